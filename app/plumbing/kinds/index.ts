/** The drawing of every kind of part, once. */
import type { Part, PartKind, PartOf } from "~/core/kinds/index";
import * as consumers from "./consumers";
import type { Drawing } from "./drawing";
import * as filters from "./filters";
import { gauge } from "./gauge";
import * as inline from "./inline";
import * as pumps from "./pumps";
import * as valves from "./valves";
import * as vessels from "./vessels";

const drawings: { [K in PartKind]: Drawing<PartOf<K>> } = {
  ...consumers,
  ...filters,
  gauge,
  ...inline,
  ...pumps,
  ...valves,
  ...vessels,
};

/** The drawing of a part's kind, for that part. */
export const drawingOf = (part: Part): Drawing<Part> => drawings[part.kind] as unknown as Drawing<Part>;
