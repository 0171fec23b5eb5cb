import { type Circuit, circuitField } from "./circuit";
import {
  degrees,
  hertz,
  look,
  metres,
  milliseconds,
  optional,
  panVolume,
  positive,
  pressure,
} from "./fields";
import { heldInLine, inOut, inToOut, type Kind } from "./kind";
import { type DryRunning, dryField, suctionFields } from "./pumping";
import type { PartBase } from "./record";

/** Meters by stroke. It draws in a part of each stroke only: its suction is that much harder than the mean. */
export interface DosingPump extends PartBase {
  kind: "dosingPump";
  strokeM3: number;
  mostHz: number;
  /** Time in which a stroke draws; it lasts as long at any rate. */
  strokeS: number;
  mostRisePa: number;
  suctionLimitPa?: number;
  mostSuctionPa?: number;
  /** Slope of its body, outlet up. */
  tiltDeg?: number;
  rubberMounted?: boolean;
  /** Maker's: most length of line before and after it, and most lift. */
  mostBeforeM?: number;
  mostAfterM?: number;
  mostLiftM?: number;
  circuit?: Circuit;
  dry?: DryRunning;
}

/** Line of an air heater's kit. Common practice, no source; kits differ. */
export const HEATER_BORE_M = 0.002;

export const dosingPump: Kind<DosingPump> = {
  ...heldInLine,
  title: "Dosing pump",
  boreM: HEATER_BORE_M,
  families: ["powered"],
  hasArrow: true,
  fields: {
    strokeM3: panVolume("maker", { over: 0, most: 1e-5 }, { blank: 0.023e-6, isNeeded: true, tells: true }),
    mostHz: hertz("maker", { over: 0, most: 100 }, { blank: 6.5, isNeeded: true }),
    // A quarter of the period at its most strokes a second. Common practice, no source.
    strokeS: milliseconds("maker", { over: 0, most: 1 }, { blank: 0.25 / 6.5 }),
    mostRisePa: pressure("maker", positive, { blank: 50000 }),
    tiltDeg: degrees("measured", { least: -90, most: 90 }, { isOptional: true, blank: 25 }),
    mostBeforeM: metres("maker", positive, optional),
    mostAfterM: metres("maker", positive, optional),
    mostLiftM: metres("maker", { least: -20, most: 20 }, optional),
    ...suctionFields,
    rubberMounted: look,
    circuit: circuitField(),
    dry: dryField,
  },
  ports: () => inOut,
  through: inToOut,
  links: (part) => [{ kind: "dosing", id: part.id, from: "in", to: "out", part }],
  body: { widthM: 0.13, heightM: 0.05, depthM: 0.05, massKg: 0.3, room: [] },
  end: "hose",
};
