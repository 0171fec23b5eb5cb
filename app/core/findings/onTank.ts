/** A finding of a tank as it was surveyed: no line-up changes it. */
import type { Id } from "../kinds/record";
import type { Tank } from "../plan/types";
import type { FindingBasis, Found, Grade, Values } from "./rule";

interface OnTank<V extends Values> {
  grade: Grade;
  tank: Tank;
  values: V;
  /** Larger is worse. */
  figure?: number | null;
  basis?: FindingBasis;
  /** What else it concerns: a hole, a run. */
  also?: Id;
  school?: string;
}

export const onTank = <V extends Values>({
  grade,
  tank,
  values,
  figure = null,
  basis = "common",
  also,
  school,
}: OnTank<V>): Found<V & { tank: string }> => ({
  grade,
  ids: also === undefined ? [tank.id] : [tank.id, also],
  lineUpIds: [],
  basis,
  ...(school === undefined ? {} : { school }),
  values: { tank: tank.name, ...values },
  figure,
});
