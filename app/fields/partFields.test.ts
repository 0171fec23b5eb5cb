import { describe, expect, test } from "@jest/globals";
import { isConsumerKind } from "~/core/kinds/families";
import { blankOf, type Field, type FieldsOf } from "~/core/kinds/fields";
import { kinds, type PartKind, partKinds } from "~/core/kinds/index";
import { type NewPartKind, newEngine, newPart } from "~/core/plan/blank";
import { metricUnits, usUnits } from "~/core/units/format";
import { parseQuantity } from "~/core/units/parse";
import { fieldText } from "~/core/units/trade";
import { fieldLabel, newPartKinds, optionNames, partKindName, unitOf } from "~/messages/kinds";
import { within } from "./checks";

const at = { xM: 0, yM: 0, zM: 0 };
type Fields = Readonly<Record<string, Field>>;
const fieldsOf = (kind: PartKind): Fields => kinds[kind].fields as unknown as Fields;
const partOf = (kind: PartKind) =>
  (isConsumerKind(kind)
    ? newEngine("x", "X", at, kind as "engine")
    : newPart(kind as NewPartKind, "x", at)) as unknown as Record<string, unknown>;

/** Every field of a kind with its path, groups gone into. */
const paths = (fields: Fields, before = ""): [string, Field][] =>
  Object.entries(fields).flatMap(([key, field]): [string, Field][] =>
    field.form === "group"
      ? [[`${before}${key}`, field], ...paths(field.fields as Fields, `${before}${key}.`)]
      : [[`${before}${key}`, field]],
  );
const structures = new Set(["curve", "off", "element", "loads", "positions", "branches"]);

describe("the list of figures of a kind", () => {
  test.each(partKinds)("%s: a blank part has what is not optional, within its bounds", (kind) => {
    const part = partOf(kind);
    for (const [key, field] of Object.entries(fieldsOf(kind))) {
      if (!field.isOptional) expect(part[key]).not.toBeUndefined();
      const value = part[key];
      if (field.form === "quantity" && typeof value === "number")
        expect(within(field.bounds, String)(value)).toBeNull();
      if (field.form === "choice" && !field.isOptional) expect(field.options).toContain(value);
    }
  });

  test.each(partKinds)("%s: groups have blanks of their own, so that each can be written down", (kind) => {
    for (const field of Object.values(fieldsOf(kind))) {
      if (field.form !== "group") continue;
      const blank = blankOf(field.fields as FieldsOf<Record<string, never>>) as Record<string, unknown>;
      for (const [key, inner] of Object.entries(field.fields as Fields))
        if (!inner.isOptional) expect(blank[key]).not.toBeUndefined();
    }
  });

  test.each(partKinds)("%s: every quantity is shown in a unit of its dimension, metric and inch", (kind) => {
    const unknown = paths(fieldsOf(kind)).filter(
      ([, field]) =>
        field.form === "quantity" &&
        ![metricUnits, usUnits].every((units) => {
          const unit = unitOf(field.unit, units);
          const read = parseQuantity("12", field.dimension, unit);
          return read.ok && fieldText(field.dimension, read.si, unit).startsWith("12");
        }),
    );
    expect(unknown).toEqual([]);
  });

  test.each(partKinds)("%s: every field has a label, none twice among those seen together", (kind) => {
    const said = paths(fieldsOf(kind)).filter(([, { form }]) => !structures.has(form));
    for (const [path] of said) expect(fieldLabel(kind, path)).toBeTruthy();
    const open = Object.entries(fieldsOf(kind)).filter(
      ([, { fold, form }]) => fold === undefined && !structures.has(form),
    );
    const labels = open.map(([key]) => fieldLabel(kind, key));
    expect(new Set(labels).size).toBe(labels.length);
    for (const [key, field] of open)
      if (field.form === "choice")
        expect(
          optionNames(kind, key)
            .map(({ id }) => id)
            .sort(),
        ).toEqual([...field.options].sort());
  });

  test("every kind that can be added has a name of its own", () => {
    const names = newPartKinds.map(({ name }) => name);
    expect(new Set(names).size).toBe(names.length);
    expect(names.length).toBe(partKinds.filter((kind) => !isConsumerKind(kind)).length);
    expect(new Set(partKinds.map(partKindName)).size).toBe(partKinds.length);
  });
});

describe("bounds, where a number is typed", () => {
  const say = (si: number) => `${si * 1000} mm`;
  test.each([
    [{ over: 0, most: 1 }, 0, "Must be greater than zero."],
    [{ over: 0, most: 1 }, 1e-9, null],
    [{ least: 0, most: 1 }, -1e-9, "Must not be less than zero."],
    [{ least: 0.0005, most: 0.3 }, 0.0004, "Must be at least 0.5 mm."],
    [{ least: 0.0005, most: 0.3 }, 0.4, "Must be at most 300 mm."],
    [{ least: 2, most: 8, isWhole: true as const }, 2.5, "Must be a whole number."],
    [{ least: 2, most: 8, isWhole: true as const }, 3, null],
    [{ least: 0, most: 1 }, Number.NaN, "Must not be less than zero."],
  ])("%j refuses or takes %d", (bounds, si, said) => {
    expect(within(bounds, say)(si)).toBe(said);
  });
});
