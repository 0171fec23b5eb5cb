/** What is known of a kind of link, in one place: see {@link LinkKind}. */
import type { FuelState } from "../../fuel/fuel";
import type { JetPump } from "../../kinds/jetPump";
import type { PartLaw } from "../../kinds/links";
import type { Id, Position } from "../../kinds/record";
import type { FittingKind } from "../../laws/twoK";
import { twoKOf } from "../../laws/twoK";
import type { RunGeometry } from "../../plan/route";
import type { Conditions, LineUp, Run, Tank, TankPort } from "../../plan/types";
import type { Curve, LinkLaws, Way } from "../../solver/newton";
import type { Posture } from "../posture";

interface LinkBase {
  /** Run id, part id, or `part.port` where a part has several ways. */
  readonly id: string;
  readonly from: number;
  readonly to: number;
}

export type NetworkLink = LinkBase &
  (
    | PartLaw
    | { readonly kind: "run"; readonly run: Run; readonly geometry: RunGeometry }
    /** Drawn from the port into the tank, so that 'one way' means fuel may only fall into it. */
    | {
        readonly kind: "tankPort";
        readonly tank: Tank;
        readonly port: TankPort;
        /** Its place among all tank ports. */
        readonly nth: number;
        readonly mouth: Position;
      }
  );
export type LinkOf<K extends NetworkLink["kind"]> = Extract<NetworkLink, { kind: K }>;

/** What a line of one bore loses, apart from what flows in it. */
export interface Loss {
  boreM: number;
  lengthM: number;
  roughnessM: number;
  /** Sum of K over Re, and of K that does not change with flow. */
  overRe: number;
  constant: number;
}

export function fitting(kind: FittingKind, boreM: number, lengthM = 0): Loss {
  const { overRe, constant } = twoKOf(kind, boreM);
  return { boreM, lengthM, roughnessM: 0, overRe, constant };
}

/** What a line-up and its conditions make of the fuel and the tanks. */
export interface Applied {
  readonly lineUp: LineUp;
  readonly conditions: Conditions;
  readonly fuel: FuelState;
  /** Height of the fuel surface by tank, along the true vertical. */
  readonly surfaceM: ReadonlyMap<Id, number>;
  readonly posture: Posture;
}

/** A link whose constant drop is set so that a node stands at a gauge pressure; a jet's mixing link follows its nozzle. */
export type Adjusted =
  | {
      readonly kind: "hold";
      readonly index: number;
      readonly node: number;
      readonly gaugePa: number;
      readonly leastPa: number;
      /**
       * Nodes that no other link joins to a tank, and no jet or held pressure lies among: what flows there is given by
       * its draws, and what the link holds back only lowers them all. Null where fuel can come and go otherwise.
       */
      readonly beyond: readonly number[] | null;
    }
  | { readonly kind: "jet"; readonly index: number; readonly nozzle: number; readonly part: JetPump };

/** What a link asks of the network it lies in to know what adjusts it. */
export interface Surroundings {
  hold(node: number, gaugePa: number, leastPa: number): Adjusted;
  /** The heater behind a node over hoses and what lies in them; null where there is none. */
  heaterBehind(node: number): number | null;
  indexOf(id: string): number;
}

/** How a station of the fuel's way is drawn and judged. */
export type StationKind =
  | "tank"
  | "valve"
  | "tee"
  | "filter"
  | "pump"
  | "check"
  | "rated"
  | "gauge"
  | "engine";

/** A link as it stands in a solved line-up, for a file of another solver. */
export interface Exported {
  readonly from: string;
  readonly to: string;
  readonly way: Way;
  readonly constant: number;
  readonly linear: number;
  readonly square: number;
  readonly curve: Curve | null;
  /** It meters for an open burner: what it passes is drawn and put in at its nodes. */
  readonly isMetered: boolean;
  /** Piezometric pressure of the tank at its end, Pa. */
  readonly tankPa: number;
}

/** What such a file can be told. Drops and rises are functions of flow, m3/s to Pa. */
export interface NetworkFile {
  pipe(from: string, to: string, lengthM: number, roughnessM: number, status: "Open" | "Closed" | "CV"): void;
  sampled(from: string, to: string, id: string, drop: (q: number) => number): void;
  rising(from: string, to: string, rise: (q: number) => number): void;
  pump(from: string, to: string, curve: Curve): void;
  reducing(from: string, to: string, heldPa: number): void;
  reservoir(id: string, potentialPa: number): void;
  /** A place inside a part, at the height of one of its ends. */
  middle(node: number): string;
}

export type Setter = (laws: LinkLaws, applied: Applied) => void;

export interface LinkKind<L extends NetworkLink> {
  boreM(link: L): number;
  /** The part or tank it belongs to; null for a run, which is its own. */
  owner(link: L): { id: Id; name: string } | null;
  station: StationKind | null;
  loss?(link: L): Loss | null;
  /** What it loses beside its {@link Loss}, per density and square of flow. */
  perDensity?(link: L): number;
  curve?(link: L): Curve;
  /**
   * What writes its law at a line-up and conditions over what flow laws left (open, no constant); made once a network,
   * called at every solve.
   */
  setter?(link: L, index: number): Setter;
  /** What draws through it and can lose its suction. */
  draws?(link: L): { id: Id; mostSuctionPa?: number };
  adjusted?(link: L, index: number, around: Surroundings): Adjusted | null;
  export(link: L, state: Exported, file: NetworkFile): void;
}
