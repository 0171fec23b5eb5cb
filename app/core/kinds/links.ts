/** The ways through parts as the network has them: by the ports they join, with what their law needs to know. */
import type { DosingPump } from "./dosingPump";
import type { Filtering, OneWayPart, Pushing, RatedPart, Valve } from "./families";
import type { JetPump } from "./jetPump";
import type { Id } from "./record";
import type { Regulator } from "./regulator";
import type { Tee } from "./tee";

export type PartLaw =
  | { readonly kind: "valve"; readonly valve: Valve; readonly ports: readonly [Id, Id] }
  | { readonly kind: "tee"; readonly part: Tee; readonly way: "run" | "branch" }
  | { readonly kind: "filter"; readonly part: Filtering }
  | { readonly kind: "pump"; readonly part: Pushing }
  | { readonly kind: "dosing"; readonly part: DosingPump }
  /** Opens one way at a pressure; past it a drop that goes with flow. */
  | {
      readonly kind: "check";
      readonly part: OneWayPart | Pushing;
      readonly opensPa: number;
      readonly perFlowPa: number;
    }
  | { readonly kind: "throttle"; readonly part: Regulator }
  | { readonly kind: "rated"; readonly part: RatedPart }
  | { readonly kind: "jet"; readonly part: JetPump; readonly way: "nozzle" | "draw" | "mix" };

/** `id` is the network's name of the way; `from` and `to` are ports of the part or places inside it. */
export type PartLink = PartLaw & { readonly id: string; readonly from: Id; readonly to: Id };
