import { amperes, blankOf, type FieldsOf, metres, optional, toggle, wireArea } from "./fields";

/** What a part draws, and the wire it hangs on; the length is there and back. */
export interface Circuit {
  runA: number;
  peakA: number;
  wireLengthM: number;
  wireAreaM2: number;
  fuseA: number;
  /** Rating of the circuit that switches it, and whether a relay stands between. */
  triggerA?: number;
  hasRelay: boolean;
}

const current = { least: 0, most: 2000 };

const fields: FieldsOf<Circuit> = {
  runA: amperes("maker", current, { blank: 4 }),
  peakA: amperes("maker", current, { blank: 8 }),
  wireLengthM: metres("measured", { least: 0, most: 200 }, { blank: 6 }),
  wireAreaM2: wireArea("measured", { over: 0, most: 1e-3 }, { blank: 2.5e-6 }),
  fuseA: amperes("measured", current, { blank: 10 }),
  triggerA: amperes("maker", current, optional),
  hasRelay: toggle({ blank: false }),
};

/** 2.5 mm2 of copper, three metres there and back, a common blade fuse. Common practice, no source. */
export const genericCircuit = (): Circuit => blankOf<Circuit>(fields);

/** The circuit of a part that has one from the start, or may be given one. */
export const circuitField = (blank?: Circuit) => ({
  form: "group" as const,
  fields,
  fold: "circuit" as const,
  isOptional: true as const,
  ...(blank ? { blank } : {}),
});
