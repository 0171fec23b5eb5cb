import { boreSize, length } from "./fields";
import type { Kind } from "./kind";
import { plainThrough } from "./plain";
import type { PartBase } from "./record";

/** Through a floor or wall: what it passes, and what it is long enough for. */
export interface Bulkhead extends PartBase {
  kind: "bulkhead";
  wallM: number;
  reachM: number;
}

export const bulkhead: Kind<Bulkhead> = {
  ...plainThrough,
  title: "Bulkhead fitting",
  fields: {
    wallM: boreSize("measured", length, { blank: 0.006 }),
    reachM: boreSize("maker", length, { blank: 0.02, tells: true }),
  },
};
