/** What all pumps with a curve have. */
import type { PumpPoint } from "../laws/pumpCurve";
import { LITRE_PER_HOUR_M3_S } from "../units/factors";
import { type Circuit, circuitField } from "./circuit";
import { type FieldsOf, metres, optional, positive, pressure, seconds, vacuum } from "./fields";
import { type Body, inOut, inToOut, type Kind } from "./kind";
import type { PartLink } from "./links";
import type { Id, PartBase } from "./record";

/** Passes fuel when unpowered, the drop at the free flow of the curve; shut; or round itself through a check. */
export type PumpOff =
  | { kind: "free"; dropPa: number }
  | { kind: "blocked" }
  | { kind: "bypass"; opensPa: number; dropPa: number };

/** Drop of an unpowered pump at its free flow, and what opens the way round it, until its maker says. Common practice, no source. */
const IDLE_DROP_PA = 4000;
export const BYPASS_OPENS_PA = 700;

/** Another way of standing still, with as much as is known of the one it had. */
export function offOf(kind: PumpOff["kind"], before: PumpOff): PumpOff {
  const dropPa = before.kind === "blocked" ? IDLE_DROP_PA : before.dropPa;
  if (kind === "blocked") return { kind };
  return kind === "free" ? { kind, dropPa } : { kind, dropPa, opensPa: BYPASS_OPENS_PA };
}

/** What a pump does on air, from its maker. */
export interface DryRunning {
  /** Lifts fuel so high when it is dry, at sea level. */
  liftM?: number;
  /** May run dry so long. */
  mostS?: number;
}

const dryFields: FieldsOf<DryRunning> = {
  liftM: metres("maker", { over: 0, most: 9 }, optional),
  mostS: seconds("maker", { least: 0, most: 3600 }, optional),
};
export const dryField = { form: "group", fields: dryFields, fold: "bleeding", isOptional: true } as const;

export interface PumpBody {
  curve: PumpPoint[];
  reliefPa?: number;
  off: PumpOff;
  /** Most vacuum it can draw, from the maker. */
  mostSuctionPa?: number;
  /** Vacuum the maker allows at its inlet in service. */
  suctionLimitPa?: number;
  circuit?: Circuit;
  dry?: DryRunning;
}

/** A pump alone, without a filter of its own. */
export interface PumpPart extends PartBase, PumpBody {}

export const suctionFields = {
  suctionLimitPa: vacuum("maker", positive, optional),
  mostSuctionPa: vacuum("maker", positive, optional),
};

export const freeFlowM3S = (curve: readonly PumpPoint[]): number =>
  curve.reduce((most, { flowM3S }) => Math.max(most, flowM3S), 0);

/** Drop of an unpowered pump at its free flow, per flow. */
export const offPerFlowPa = ({ off, curve }: PumpBody): number =>
  off.kind === "blocked" ? 0 : off.dropPa / freeFlowM3S(curve);

/** The straight curve of a blank pump between rest and free flow. */
export function pumpFields(
  freeLitresAnHour: number,
  deadHeadPa: number,
  off: PumpOff,
  tells = true,
): FieldsOf<PumpBody> {
  return {
    curve: {
      form: "curve",
      isNeeded: true,
      tells,
      blank: [
        { flowM3S: 0, risePa: deadHeadPa },
        { flowM3S: freeLitresAnHour * LITRE_PER_HOUR_M3_S, risePa: 0 },
      ],
    },
    off: { form: "off", blank: off },
    reliefPa: pressure("maker", positive, optional),
    ...suctionFields,
    circuit: circuitField(),
    dry: dryField,
  };
}

type Placed = { id: string; from: Id; to: Id };

/** Its own way, and where it has one the way round it through a check. */
export function pumpLinks<P extends PumpPart>(
  part: Extract<PartLink, { kind: "pump" }>["part"] & P,
  way: Placed,
): PartLink[] {
  const own: PartLink = { kind: "pump", ...way, part };
  if (part.off.kind !== "bypass") return [own];
  const round: PartLink = {
    kind: "check",
    ...way,
    id: `${part.id}.by`,
    part,
    opensPa: part.off.opensPa,
    perFlowPa: offPerFlowPa(part),
  };
  return [own, round];
}

const pumpHousing: Body = {
  widthM: 0.13,
  heightM: 0.09,
  depthM: 0.09,
  massKg: 1.2,
  room: [{ use: "driver", clearM: 0.08 }],
};

/** What is the same in all pumps with a curve that stand in a line. */
export const pumpInLine = {
  families: ["powered", "pushing"],
  hasArrow: true,
  ports: () => inOut,
  through: inToOut,
  filling: "through",
  volumeM3: () => null,
  body: pumpHousing,
  end: "pipeThread",
} as const satisfies Partial<Kind<PumpPart>>;
