/** A finding of a tank as it was surveyed: no line-up changes it. */
import type { Id } from "../kinds/record";
import type { Tank } from "../plan/types";
import { onPart } from "./onPart";
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
  tank,
  also,
  values,
  ...rest
}: OnTank<V>): Found<V & { tank: string }> => ({
  ...onPart({ ...rest, part: tank, also: also === undefined ? [] : [also], values }),
  values: { tank: tank.name, ...values },
});
