import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Job } from "../plan/types";
import type { Command } from "./command";
import { applyCommand, madeFrom } from "./commands";
import { merged } from "./merge";

const marram = (): Job => (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;
const apply = (job: Job, ...commands: Command[]) =>
  commands.reduce((now, command) => applyCommand(now, command).job, job);

const leaf = fc.oneof(fc.integer(), fc.string(), fc.boolean(), fc.constant(null));
const tree = fc.letrec<{ node: unknown }>((tie) => ({
  node: fc.oneof(
    { depthSize: "small" },
    leaf,
    fc.array(tie("node"), { maxLength: 4 }),
    fc.dictionary(fc.constantFrom("a", "b", "c", "id"), tie("node")),
  ),
})).node;

describe("a change put on what has changed meanwhile", () => {
  test("on what was shown is what was wanted; no change changes nothing", () => {
    fc.assert(
      fc.property(tree, tree, (shown, other) => {
        expect(merged(shown, other, shown)).toEqual(other);
        expect(merged(shown, shown, other)).toEqual(other);
      }),
    );
  });

  test("of two fields of one record both stand, in either order", () => {
    const keys = ["a", "b", "c", "d"] as const;
    const record = fc.record({ a: leaf, b: leaf, c: leaf, d: leaf });
    fc.assert(
      fc.property(
        record,
        fc.constantFrom(...keys),
        fc.constantFrom(...keys),
        leaf,
        leaf,
        (shown, p, q, v, w) => {
          fc.pre(p !== q);
          const [one, two] = [
            { ...shown, [p]: v },
            { ...shown, [q]: w },
          ];
          const both = { ...shown, [p]: v, [q]: w };
          expect(merged(shown, one, two)).toEqual(both);
          expect(merged(shown, two, one)).toEqual(both);
        },
      ),
    );
  });

  test("of lists of records: what either added or took out stands", () => {
    const [a, b, c, d] = ["a", "b", "c", "d"].map((id) => ({ id, at: 0 }));
    expect(merged([a, b], [a, b, c], [b, d])).toEqual([b, d, c]);
    expect(merged([a, b], [{ ...a, at: 1 }, b], [a, { ...b, at: 2 }])).toEqual([
      { id: "a", at: 1 },
      { id: "b", at: 2 },
    ]);
  });

  test("of a union's kind is put in whole", () => {
    const off = { kind: "bypass", opensPa: 1, dropPa: 2 };
    expect(merged(off, { kind: "blocked" }, { ...off, dropPa: 3 })).toEqual({ kind: "blocked" });
  });
});

describe("two fields typed quickly, both made from what was shown at first", () => {
  const shown = marram();
  const pump = shown.plans[0]!.parts.find(({ id }) => id === "lift") as never as {
    circuit: Record<string, number>;
    given?: Record<string, object>;
  };
  const typed = (field: string, value: number): Command =>
    madeFrom(shown, {
      name: "editPart",
      id: "lift",
      change: {
        circuit: { ...pump.circuit, [field]: value },
        given: { ...pump.given, [`circuit.${field}`]: { entered: String(value), basis: "measured" } },
      },
    });

  test("are both kept: the fuse and then the copper", () => {
    const job = apply(shown, typed("fuseA", 7.5), typed("wireAreaM2", 4e-6));
    const lift = job.plans[0]!.parts.find(({ id }) => id === "lift") as never as typeof pump;
    expect(lift.circuit).toMatchObject({ fuseA: 7.5, wireAreaM2: 4e-6 });
    expect(Object.keys(lift.given ?? {})).toEqual(
      expect.arrayContaining(["circuit.fuseA", "circuit.wireAreaM2"]),
    );
  });

  test("of the site, of a hose and of a tank's port too", () => {
    const site = (change: object) =>
      madeFrom(shown, { name: "editJob", change: { site: { ...shown.site, ...change } } });
    const run = shown.plans[0]!.runs[0]!;
    const hose = (change: object) =>
      madeFrom(shown, { name: "editRun", id: run.id, change: { product: { ...run.product, ...change } } });
    const tank = shown.tanks[0]!;
    const port = (i: number, boreM: number) =>
      madeFrom(shown, {
        name: "editTank",
        id: tank.id,
        change: { ports: tank.ports.map((one, k) => (k === i ? { ...one, boreM } : one)) },
      });
    const job = apply(
      shown,
      site({ altitudeM: 50 }),
      site({ ambientLowC: -9 }),
      hose({ marking: "x" }),
      hose({ leastRadiusM: 0.2 }),
      port(0, 0.011),
      port(1, 0.012),
    );
    expect(job.site).toMatchObject({ altitudeM: 50, ambientLowC: -9 });
    expect(job.plans[0]!.runs[0]!.product).toMatchObject({ marking: "x", leastRadiusM: 0.2 });
    expect(job.tanks[0]!.ports.slice(0, 2).map(({ boreM }) => boreM)).toEqual([0.011, 0.012]);
  });
});
