import { toggle } from "./fields";
import { heldInLine, type Kind, port } from "./kind";
import type { Id, PartBase } from "./record";

export interface SelectorPosition {
  id: Id;
  name: string;
  /** Groups of ports that this position joins; ports in no group are shut. */
  joins: string[][];
}

/** Ports: `c` common, `w1`..`wn` ways. Positions stand in the order the handle passes them. */
export interface SelectorValve extends PartBase {
  kind: "selector";
  ways: number;
  positions: SelectorPosition[];
  makesBeforeBreaks: boolean;
}

export const selector: Kind<SelectorValve> = {
  ...heldInLine,
  title: "Selector",
  families: ["valve"],
  hasArrow: false,
  fields: {
    ways: {
      form: "quantity",
      dimension: "ratio",
      unit: "ratio",
      basis: "measured",
      bounds: { least: 2, most: 8, isWhole: true },
      blank: 2,
      tells: true,
      fold: "quiet",
    },
    positions: {
      form: "positions",
      blank: [
        { id: "one", name: "way 1", joins: [["c", "w1"]] },
        { id: "two", name: "way 2", joins: [["c", "w2"]] },
      ],
    },
    makesBeforeBreaks: toggle({ blank: false }),
  },
  ports: ({ ways }) => [
    port("c", "common", "either"),
    ...Array.from({ length: ways }, (_, i) => port(`w${i + 1}`, `way ${i + 1}`, "branch")),
  ],
  through: () => ["w1", "c"],
  /** Every pair of ports that some position can join. */
  links: (valve) => {
    const pairs = new Map<string, [Id, Id]>();
    for (const { joins } of valve.positions) {
      for (const [hub, ...others] of joins) {
        for (const other of others) if (hub) pairs.set(`${valve.id}.${hub}-${other}`, [hub, other]);
      }
    }
    return [...pairs].map(([id, ports]) => ({
      kind: "valve",
      id,
      from: ports[0],
      to: ports[1],
      valve,
      ports,
    }));
  },
  body: {
    widthM: 0.1,
    heightM: 0.1,
    depthM: 0.09,
    massKg: 0.8,
    room: [{ use: "swing", clearM: 0.08 }],
    faces: { c: { side: "foot", at: 0.5 }, w1: { side: "left", at: 0.5 }, w2: { side: "right", at: 0.5 } },
  },
  end: "pipeThread",
};
