/** A finding of a part of the plan; with line-ups where it hangs on how they are set. */
import type { Id } from "../kinds/record";
import type { FindingBasis, Found, Grade, Values } from "./rule";

interface OnPart<V extends Values> {
  grade: Grade;
  part: { id: Id; name: string };
  values: V;
  /** Larger is worse. */
  figure?: number | null;
  basis?: FindingBasis;
  lineUpIds?: Id[];
  also?: Id[];
  school?: string;
}

export const onPart = <V extends Values>({
  grade,
  part,
  values,
  figure = null,
  basis = "common",
  lineUpIds = [],
  also = [],
  school,
}: OnPart<V>): Found<V & { part: string }> => ({
  grade,
  ids: [part.id, ...also],
  lineUpIds,
  basis,
  ...(school === undefined ? {} : { school }),
  values: { part: part.name, ...values },
  figure,
});
