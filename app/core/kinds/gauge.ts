import { choice, optional, positive, vacuum } from "./fields";
import type { Kind } from "./kind";
import { plainThrough } from "./plain";
import type { PartBase } from "./record";

/** In the line, `a`-`b`, without loss; `b` is blank on a dead-ended gauge. */
export interface Gauge extends PartBase {
  kind: "gauge";
  measures: "vacuum" | "pressure";
  /** Of a vacuum gauge: the reading at which the element before it is changed, Pa under the air. */
  changeAtPa?: number;
}

export const gauge: Kind<Gauge> = {
  ...plainThrough,
  title: "Vacuum gauge",
  fields: {
    measures: choice(["vacuum", "pressure"], { blank: "vacuum", tells: true }),
    changeAtPa: vacuum("maker", positive, optional),
  },
  body: { widthM: 0.07, heightM: 0.07, depthM: 0.06, massKg: 0.3, room: [] },
};
