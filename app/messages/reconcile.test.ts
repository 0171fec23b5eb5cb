import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { Command } from "~/core/edit/command";
import { applyCommand } from "~/core/edit/commands";
import { differencesOf, reconciled } from "~/core/edit/reconcile";
import type { Job } from "~/core/plan/types";
import { usUnits } from "~/core/units/format";
import { differenceText } from "./reconcile";

const marram = (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;
const after = (job: Job, ...commands: Command[]) =>
  commands.reduce((now, one) => applyCommand(now, one).job, job);
const said = (there: Job, here: Job = marram) =>
  differencesOf(here, there).map((one) => differenceText(here, one));

describe("what differs, said", () => {
  test("a name and a bore by the part's own name, in the job's units", () => {
    const there = after(marram, {
      name: "editPart",
      id: "lift",
      change: { name: "Other pump", boreM: 0.011 },
    });
    expect(said(there)).toEqual(
      expect.arrayContaining([
        { title: "Lift pump (part)", figure: "name", here: "Lift pump", there: "Other pump" },
        expect.objectContaining({ title: "Lift pump (part)", figure: "bore", there: "11 mm" }),
      ]),
    );
    const inches = { ...marram, units: usUnits };
    const bore = said({ ...there, units: usUnits }, inches).find(({ figure }) => figure === "bore")!;
    expect(bore.there).not.toContain("mm");
  });

  test("a part that stands on one side alone, with its kind", () => {
    const there = after(marram, { name: "removePart", id: "valvePol" });
    const gone = said(there).find(({ there: on }) => on === "is not there")!;
    expect(gone).toMatchObject({ figure: "", here: "is there: two-way valve" });
  });

  test("fuel's temperature, a choice and a switch in words", () => {
    const there = after(
      marram,
      { name: "setConditions", change: { fuelC: 3 } },
      { name: "editPart", id: "vacuum", change: { measures: "pressure" } },
      { name: "editEngine", id: "engine", change: { noReturn: true } },
    );
    const all = said(there);
    expect(all).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ figure: "fuel temperature", there: "3 °C" }),
        expect.objectContaining({ figure: "it reads", here: "vacuum", there: "pressure" }),
        expect.objectContaining({ there: "yes" }),
      ]),
    );
  });

  test("no words of the program stand in any of it", () => {
    const there = after(
      marram,
      { name: "editPart", id: "lift", change: { curve: [], provisional: true } },
      { name: "editPlan", change: { serviceAllowanceM: 0.3, name: "Other" } },
      { name: "editJob", change: { note: "", panM3: 0.002 } },
    );
    for (const { title, figure, here, there: on } of said(there))
      for (const text of [title, figure, here, on])
        expect(text).not.toMatch(/[a-z]{2}[A-Z]|undefined|\[object|[{}]/);
  });
});

test("a job that is a truck on one side and a boat on the other is told, and taken", () => {
  const there: Job = { ...marram, kind: "truck" };
  const [one, ...others] = differencesOf(marram, there);
  expect(others).toEqual([]);
  expect(differenceText(marram, one!)).toMatchObject({ figure: "what it is", here: "boat", there: "truck" });
  expect(reconciled(marram, there, new Set([one!.key])).kind).toBe("truck");
  expect(reconciled(marram, there, new Set()).kind).toBe("boat");
});
