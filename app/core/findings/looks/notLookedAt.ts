/**
 * What a person must look at and nobody has: it is neither right nor wrong, and is not handed over so. Parts by the
 * looks of their kind, tanks by the records that were begun.
 */
import type { Field } from "../../kinds/fields";
import { kindOf, type PartKind } from "../../kinds/index";
import { partsOf } from "../../plan/ports";
import type { Plan, Tank } from "../../plan/types";
import { fillingOf, tankLineOf } from "../../tanks/tankLine";
import { onPart } from "../onPart";
import { rule } from "../rule";

/** Paths of fields of a kind, or names of a tank's looks, with blanks between. */
type Looks = { of: PartKind | "tank"; looks: string; count: number };
type Fields = Readonly<Record<string, Field>>;

/** Looks of a record that are absent, as paths; groups that are not there are not asked. */
function unlooked(record: Record<string, unknown>, fields: Fields, at = ""): string[] {
  return Object.entries(fields).flatMap(([key, field]) => {
    const value = record[key];
    if (field.form === "group" && typeof value === "object" && value !== null)
      return unlooked(value as Record<string, unknown>, field.fields as Fields, `${at}${key}.`);
    return field.form === "switch" && field.isLook && value === undefined ? [at + key] : [];
  });
}

export const tankLooks = [
  "seams",
  "feet",
  "fittings",
  "drains",
  "testHeld",
  "hasDip",
  "hasArrester",
  "doubleClamped",
] as const;
type TankLook = (typeof tankLooks)[number];

function unlookedTank(tank: Tank, plan: Plan, isPetrol: boolean): TankLook[] {
  const { condition } = tank;
  const filling = fillingOf(tank, plan);
  const fill = tankLineOf(plan, tank, "fill");
  const unseen: Record<TankLook, boolean> = {
    seams: condition?.seams === "unseen",
    feet: condition?.feet === "unseen",
    fittings: condition?.fittings === "unseen",
    drains: condition?.drains === "unseen",
    testHeld: condition?.testedPa !== undefined && condition.testHeld === undefined,
    hasDip: filling !== undefined && filling.hasDip === undefined,
    doubleClamped: fill !== undefined && fill.make !== "rigid" && fill.isDoubleClamped === undefined,
    hasArrester: isPetrol && filling !== undefined && filling.hasArrester === undefined,
  };
  return tankLooks.filter((one) => unseen[one]);
}

export const notLookedAt = rule({
  id: "notLookedAt",
  practice: [],
  place: "care",
  judge: ({ job, plan }) => [
    ...partsOf(job, plan).flatMap((part) => {
      const looks = unlooked(part as unknown as Record<string, unknown>, kindOf(part).fields as Fields);
      if (looks.length === 0) return [];
      const values: Looks = { of: part.kind, looks: looks.join(" "), count: looks.length };
      return [onPart({ grade: "mend", part, values, figure: looks.length })];
    }),
    ...job.tanks.flatMap((tank) => {
      const looks = unlookedTank(tank, plan, job.fuel.grade === "petrol");
      if (looks.length === 0) return [];
      const values: Looks = { of: "tank", looks: looks.join(" "), count: looks.length };
      return [onPart({ grade: "mend", part: tank, values, figure: looks.length })];
    }),
  ],
});
