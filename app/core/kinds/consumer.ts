/** What burns fuel. A heater burns all it is fed and has no return. */
import { LITRE_PER_HOUR_M3_S } from "../units/factors";
import { type Circuit, circuitField } from "./circuit";
import {
  atLeastZero,
  degrees,
  type FieldsOf,
  length,
  look,
  metres,
  type Own,
  optional,
  positive,
  pressure,
  temperature,
  toggle,
  vacuum,
  volts,
  volume,
  watts,
} from "./fields";
import { type Body, heldInLine, type Kind, port } from "./kind";
import type { PartBase } from "./record";

export interface EngineLoad {
  load: number;
  feedM3S: number;
  burnM3S: number;
}

/** Where and how a heater stands: what its maker's sheet and the space ask. What nobody has looked at is absent. */
export interface HeaterFit {
  hasCoAlarm?: boolean;
  /** Sum of the bends of its exhaust. */
  exhaustBendDeg: number;
  exhaustFalls?: boolean;
  drainAtLowest?: boolean;
  outletClear?: boolean;
  airFacesRear?: boolean;
  airWayClear?: boolean;
  clearanceM: number;
  /** Its switch can cut the supply before it has run down. */
  switchCutsRunDown?: boolean;
  /** Maker's supply window. */
  leastV?: number;
  mostV?: number;
}

export interface ConsumerBase extends PartBase {
  powerW: number;
  /** Feed and burn by load (0..1), ascending; straight between. */
  loads: EngineLoad[];
  suctionLimitPa?: number;
  /** Maker's window of feed pressure at its inlet, gauge. */
  leastFeedPa?: number;
  mostFeedPa?: number;
  /** Room of its own behind the feed joint, and the pressure over its return at which that overflows to it. */
  galleryM3?: number;
  galleryOpensPa?: number;
  /** Its injection pump is lubricated by fuel alone. */
  fuelLubricated?: boolean;
  /** It burns all that it is fed and has no return: an outboard, a carburettor. A heater never has one. */
  noReturn?: boolean;
  /** A heater that takes fuel by a regulator of its own, a pot burner: it needs no dosing pump. */
  metersItself?: boolean;
  /** What leaves its return; common practice without it. */
  returnC?: number;
  circuit?: Circuit;
  heater?: HeaterFit;
}

const fitFields: FieldsOf<HeaterFit> = {
  hasCoAlarm: look,
  exhaustBendDeg: degrees("measured", { least: 0, most: 3600 }, { blank: 90 }),
  exhaustFalls: look,
  drainAtLowest: look,
  outletClear: look,
  airFacesRear: look,
  airWayClear: look,
  clearanceM: metres("measured", length, { blank: 0.1 }),
  switchCutsRunDown: look,
  leastV: volts("maker", { over: 0, most: 100 }, optional),
  mostV: volts("maker", { over: 0, most: 100 }, optional),
};

type Sheet = [load: number, feedLitresAnHour: number, burnLitresAnHour: number];

interface Start {
  powerW: number;
  loads: readonly Sheet[];
  circuit?: Circuit;
  heater?: HeaterFit;
}

const feedWindow = { least: -1e5, most: 1e7 };

/** Fields of what burns; those with a return are asked for more. */
export function consumerFields(
  { powerW, loads, circuit, heater }: Start,
  hasReturn: boolean,
): FieldsOf<Own<ConsumerBase>> {
  const ofReturn = hasReturn ? {} : ({ fold: "quiet" } as const);
  return {
    powerW: watts("maker", positive, { blank: powerW, tells: true }),
    loads: {
      form: "loads",
      isNeeded: true,
      blank: loads.map(([load, feed, burn]) => ({
        load,
        feedM3S: feed * LITRE_PER_HOUR_M3_S,
        burnM3S: burn * LITRE_PER_HOUR_M3_S,
      })),
    },
    suctionLimitPa: vacuum("maker", positive, optional),
    leastFeedPa: pressure("maker", feedWindow, { ...optional, ...ofReturn }),
    mostFeedPa: pressure("maker", feedWindow, { ...optional, ...ofReturn }),
    galleryM3: volume("maker", positive, { ...optional, ...ofReturn }),
    galleryOpensPa: pressure("maker", atLeastZero, { ...optional, ...ofReturn }),
    returnC: temperature("maker", { least: -60, most: 150 }, { ...optional, ...ofReturn }),
    fuelLubricated: toggle({ ...optional, ...ofReturn }),
    noReturn: toggle({ ...optional, ...ofReturn }),
    metersItself: toggle({ ...optional, ...(hasReturn ? ({ fold: "quiet" } as const) : {}) }),
    circuit: circuitField(circuit),
    heater: {
      form: "group",
      fields: fitFields,
      fold: hasReturn ? "quiet" : "standing",
      isOptional: true,
      ...(heater ? { blank: heater } : {}),
    },
  };
}

const body: Body = { widthM: 0.9, heightM: 0.8, depthM: 0.6, massKg: 300, room: [] };

/** What is the same in all that burns. */
export const burning = {
  ...heldInLine,
  families: ["consumer"],
  hasArrow: false,
  through: () => null,
  links: () => [],
  body,
  end: "machined",
} as const satisfies Partial<Kind<ConsumerBase>>;

export const feed = port("feed", "feed", "feed");
const feedAndReturn = [feed, port("return", "return", "return")];
export const enginePortsOf = ({ noReturn }: ConsumerBase) => (noReturn ? [feed] : feedAndReturn);
/** Does all that it is fed stay in it? */
export const burnsAll = ({ kind, noReturn }: { kind: string; noReturn?: boolean }): boolean =>
  kind === "heater" || noReturn === true;
/** The feed of an engine stands over its return, and that is narrower. */
export const enginePorts = {
  feed: { offset: { xM: 0, yM: 0, zM: 0.1 } },
  return: { boreM: 0.0079 },
};
