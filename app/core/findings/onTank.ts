/** A finding of a tank as it was surveyed: no line-up changes it. */
import type { Id } from "../kinds/record";
import type { Tank } from "../plan/types";
import type { Finding, FindingBasis, Grade, RuleId } from "./types";

interface OnTank {
  rule: RuleId;
  grade: Grade;
  tank: Tank;
  values?: Finding["values"];
  /** Larger is worse. */
  figure?: number | null;
  basis?: FindingBasis;
  /** What else it concerns: a hole, a run. */
  also?: Id;
  school?: string;
}

export const onTank = ({ rule, grade, tank, values, figure, basis, also, school }: OnTank): Finding => ({
  rule,
  grade,
  ids: also === undefined ? [tank.id] : [tank.id, also],
  lineUpIds: [],
  basis: basis ?? "common",
  ...(school === undefined ? {} : { school }),
  values: { tank: tank.name, ...values },
  figure: figure ?? null,
});
