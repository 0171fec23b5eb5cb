import { describe, expect, test } from "@jest/globals";
import { genericCircuit } from "~/core/kinds/circuit";
import { newEngine, newPart } from "~/core/plan/blank";
import type { PartKind } from "~/core/kinds/index";
import { unitsOf } from "~/core/units/factors";
import { metricUnits, usUnits } from "~/core/units/format";
import { partKindNames } from "~/messages/outcomes";
import { newPartKinds } from "./newPartKinds";
import { circuitFields, type FieldSpec, heaterFields, partFields } from "./partFields";

const at = { xM: 0, yM: 0, zM: 0 };
const consumers: PartKind[] = ["engine", "generator", "heater"];
const kinds = Object.keys(partFields) as PartKind[];
const partOf = (kind: PartKind): Record<string, unknown> =>
  (consumers.includes(kind)
    ? newEngine("x", "X", at, kind as "engine")
    : newPart(kind as Parameters<typeof newPart>[0], "x", at)) as unknown as Record<string, unknown>;

/** A figure that only a maker's sheet gives is absent until it is entered. */
const makersAlone = new Set([
  "sensorHeldM3",
  "reliefPa",
  "suctionLimitPa",
  "mostSuctionPa",
  "mostBeforeM",
  "mostAfterM",
  "mostLiftM",
  "leastFeedPa",
  "mostFeedPa",
  "returnC",
  "fuelLubricated",
]);

const unitIsKnown = (spec: FieldSpec): boolean => {
  if (spec.kind !== "quantity") return true;
  return [metricUnits, usUnits].every((units) => {
    const unit =
      spec.unit in units ? units[spec.unit as keyof typeof units] : spec.unit === "ratio" ? "" : spec.unit;
    return unit in unitsOf(spec.dimension);
  });
};

describe("fields of the inspector", () => {
  test.each(kinds)("%s: every field is one of the part's, or a figure that a maker alone gives", (kind) => {
    const part = partOf(kind);
    for (const { field } of partFields[kind])
      expect(field in part || makersAlone.has(field) ? "" : `${kind}.${field}`).toBe("");
  });

  test.each([
    ...kinds.map((kind) => [kind, partFields[kind]] as const),
    ["circuit", circuitFields] as const,
    ["heater", heaterFields] as const,
  ])(
    "%s: every quantity has a unit of its dimension, metric and inch, and no label twice",
    (_kind, specs) => {
      expect(specs.filter((spec) => !unitIsKnown(spec)).map(({ field }) => field)).toEqual([]);
      const labels = specs.map(({ label }) => label);
      expect(new Set(labels).size).toBe(labels.length);
    },
  );

  test("fields of a circuit and of a heater are theirs", () => {
    const circuit = genericCircuit() as unknown as Record<string, unknown>;
    for (const { field } of circuitFields)
      expect(field === "circuit.triggerA" || field.split(".")[1]! in circuit).toBe(true);
    const heater = newEngine("h", "H", at, "heater").heater as unknown as Record<string, unknown>;
    const own = new Set(["heater.leastV", "heater.mostV"]);
    for (const { field } of heaterFields) expect(own.has(field) || field.split(".")[1]! in heater).toBe(true);
  });

  test("every kind that can be added has a name of its own, and the other way round", () => {
    const names = newPartKinds.map(({ name }) => name);
    expect(new Set(names).size).toBe(names.length);
    const ids = newPartKinds.map(({ id }) => id as string);
    expect([...ids, ...consumers].sort()).toEqual([...kinds].sort());
    for (const kind of kinds) expect(partKindNames[kind]).toBeTruthy();
  });
});
