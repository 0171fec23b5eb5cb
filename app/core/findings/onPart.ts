/** A finding of a part of the plan; with line-ups where it hangs on how they are set. */
import type { Id } from "../kinds/record";
import type { Finding, FindingBasis, Grade, RuleId } from "./types";

interface OnPart {
  rule: RuleId;
  grade: Grade;
  part: { id: Id; name: string };
  values?: Finding["values"];
  /** Larger is worse. */
  figure?: number | null;
  basis?: FindingBasis;
  lineUpIds?: Id[];
  also?: Id[];
  school?: string;
}

export const onPart = ({
  rule,
  grade,
  part,
  values,
  figure,
  basis,
  lineUpIds,
  also,
  school,
}: OnPart): Finding => ({
  rule,
  grade,
  ids: [part.id, ...(also ?? [])],
  lineUpIds: lineUpIds ?? [],
  basis: basis ?? "common",
  ...(school === undefined ? {} : { school }),
  values: { part: part.name, ...values },
  figure: figure ?? null,
});
