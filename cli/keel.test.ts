import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, test } from "@jest/globals";
import { laws } from "~/schemas/calc";
import { solveReportSchema } from "~/schemas/solveReport";
import { keel } from "./called";

/** Values computed apart from this project, from the published equations named in each `source`. */
interface Check {
  law: string;
  input: unknown;
  output: Record<string, number | string | number[]>;
  relativeTolerance: number;
  source: string;
}
const checks = JSON.parse(readFileSync("cli/checks.json", "utf8")) as Check[];

describe("laws against published relations", () => {
  test.each(checks.map((check, i) => [i, check.law, check.source, check] as const))(
    "%d %s: %s",
    (_i, _law, _source, check) => {
      const law = laws[check.law];
      if (!law) throw new Error(check.law);
      const output = law.run(law.input.parse(check.input) as never);
      for (const [name, expected] of Object.entries(check.output)) {
        if (typeof expected === "string") {
          expect(output[name]).toBe(expected);
          continue;
        }
        const found = [output[name]].flat() as number[];
        [expected].flat().forEach((one, i) => {
          expect(Math.abs((found[i] as number) / one - 1)).toBeLessThanOrEqual(check.relativeTolerance);
        });
      }
    },
  );
});

test("it runs as the README says, and ends quietly where its reader has read enough", () => {
  const out = execFileSync("npm", ["run", "-s", "keel", "--", "check", "demo/unit-12.keel.json"], {
    encoding: "utf8",
  });
  expect(JSON.parse(out)).toEqual({ job: "unit12", faults: [] });
  const { stderr } = spawnSync("bash", ["-c", "npm run -s keel -- solve demo/marram.keel.json | head -1"], {
    encoding: "utf8",
  });
  expect(stderr).toBe("");
});

describe("the command line", () => {
  test("solve prints every line-up, in the shape it publishes", async () => {
    const { status, out } = await keel(["solve", "demo/marram.keel.json"]);
    expect(status).toBe(0);
    const report = solveReportSchema.parse(JSON.parse(out));
    expect(report.lineUps).toHaveLength(8);
    const [first] = report.lineUps;
    if (first?.outcome !== "solved") throw new Error("not solved");
    expect(first.consumers.heater).toEqual({ outcome: "stopped" });
    expect(first.consumers.engine).toEqual({
      outcome: "fed",
      feedLH: expect.closeTo(210, 6),
      burnLH: expect.closeTo(42, 6),
    });
    expect(first.links.lift?.flowLH).toBeCloseTo(210, 3);
  });

  test("calc takes an array, and refuses with the place and status 1", async () => {
    const good = { currentA: 10, oneWayM: 4, areaMm2: 2.5, conductorC: 20 };
    const { out } = await keel(["calc", "wire"], JSON.stringify([good, good]));
    expect(JSON.parse(out)).toHaveLength(2);
    const bad = await keel(["calc", "wire", "-"], JSON.stringify([good, { ...good, areaMm2: -1, gauge: 3 }]));
    expect(bad.status).toBe(1);
    expect(bad.err).toContain("[1].areaMm2");
    expect(bad.err).toContain("[1].gauge");
    expect((await keel(["calc", "wire"], '{"currentA": NaN}')).status).toBe(1);
    expect((await keel(["calc", "witchcraft"], "{}")).status).toBe(2);
    expect((await keel([])).status).toBe(2);
  });

  test("dip: from nothing to full, at a trim, and a tank that is not there", async () => {
    const level = JSON.parse(
      (await keel(["dip", "demo/marram.keel.json", "--tank", "dayTank", "--step", "0.1"])).out,
    );
    // 550 by 500 mm of floor: 27.5 L each 100 mm.
    expect(level.rows.map(({ volumeM3 }: { volumeM3: number }) => volumeM3)).toEqual(
      [0, 0.0275, 0.055, 0.0825, 0.11].map((m3) => expect.closeTo(m3, 9)),
    );
    const none = await keel(["dip", "demo/marram.keel.json", "--tank", "bilge", "--pitch", "5"]);
    expect(none.status).toBe(2);
    expect(none.err).toContain("dayTank");
  });

  test.each(["marram", "unit-12", "reading-van"])(
    "%s: check, solve, findings and run all answer",
    async (name) => {
      const file = `demo/${name}.keel.json`;
      expect((await keel(["check", file])).status).toBe(0);
      expect(
        solveReportSchema.parse(JSON.parse((await keel(["solve", file])).out)).lineUps.length,
      ).toBeGreaterThan(0);
      expect(JSON.parse((await keel(["findings", file])).out).length).toBeGreaterThan(1);
      const { status, out } = await keel(["run", file, "--ambient", "5"]);
      expect(status).toBe(0);
      const run = JSON.parse(out) as {
        hours: number;
        burnedL: number;
        points: { atH: number }[];
        events: { kind: string }[];
      };
      expect(run.points.at(-1)?.atH).toBeCloseTo(run.hours, 6);
      expect(run.burnedL).toBeGreaterThan(0);
      expect(run.events[0]?.kind).toBe("step");
    },
  );

  test("run: litres burned are load by load what the sheet says; an air that cannot be is refused", async () => {
    const run = JSON.parse((await keel(["run", "demo/reading-van.keel.json"])).out) as { burnedL: number };
    // 0.12 to 0.51 L/h by load: 1 h at full, 7 h at 0.4, 8 h at 0.25.
    expect(run.burnedL).toBeCloseTo(0.51 + 7 * (0.12 + 0.4 * 0.39) + 8 * (0.12 + 0.25 * 0.39), 6);
    expect((await keel(["run", "demo/reading-van.keel.json", "--ambient", "hot"])).status).toBe(2);
  });

  test("work: the order from the plan as it was found, what is done by the book, and what is undone until it is redone", async () => {
    const { status, out } = await keel(["work", "demo/marram.keel.json", "--people", "2"]);
    expect(status).toBe(0);
    const report = JSON.parse(out);
    expect(report).toMatchObject({ outcome: "order", from: "found", schedule: { people: 2 } });
    const at = new Map<string, number>(report.steps.map(({ id }: { id: string }, i: number) => [id, i]));
    for (const { id, needs } of report.steps)
      for (const need of needs) expect(at.get(need)).toBeLessThan(at.get(id) as number);
    expect(report.ledger.map(({ fact }: { fact: string }) => fact)).toContain("battery");
    // A separator of 0.8 L and what its hoses let go.
    expect(report.pans.board).toBeGreaterThan(0.8);
    expect((await keel(["work", "demo/marram.keel.json", "--from", "planA"])).out).toContain(
      '"outcome": "nothing"',
    );
    const { steps } = JSON.parse((await keel(["work", "demo/unit-12.keel.json"])).out);
    expect(steps.some(({ verb }: { verb: string }) => verb === "undo")).toBe(false);
    expect(await keel(["work", "demo/marram.keel.json", "--from", "none"])).toMatchObject({ status: 2 });
    expect(await keel(["work", "demo/marram.keel.json", "--people", "3"])).toMatchObject({ status: 2 });
  });

  test("trend: of the element that the gauge reads before, by what can be counted, and never silently by something else", async () => {
    const trend = async (...more: string[]) =>
      await keel(["trend", "demo/marram.keel.json", "--gauge", "vacuum", ...more]);
    const { filter, element, by } = JSON.parse((await trend()).out);
    expect([filter, element, by]).toEqual(["sep1", "elSep1", "days"]);
    expect((await trend("--element", "elSep1", "--by", "days")).out).toBe((await trend()).out);
    // The readings of the demo have no engine hours.
    for (const asked of ["litres", "hours"]) {
      const { status, err } = await trend("--by", asked);
      expect([status, err]).toEqual([1, expect.stringContaining("engine hours")]);
    }
    expect(await trend("--element", "elSecond")).toMatchObject({ status: 1 });
    expect((await trend("--element", "elSecond")).err).toContain("elSep1");
    expect(await trend("--by", "moons")).toMatchObject({ status: 2 });
    expect(await keel(["trend", "demo/marram.keel.json", "--gauge", "none"])).toMatchObject({ status: 2 });
  });

  test("trend by litres: with engine hours in the book the litres are hours by the flow through the filter", async () => {
    const file = JSON.parse(readFileSync("demo/marram.keel.json", "utf8"));
    let engineH = 1000;
    for (const entry of file.book)
      if (entry.kind === "vacuum" && entry.gaugeId === "vacuum") entry.engineH = engineH += 40;
    const path = join(mkdtempSync(join(tmpdir(), "keel-")), "hours.keel.json");
    writeFileSync(path, JSON.stringify(file));
    const points = async (by: string) =>
      (
        JSON.parse((await keel(["trend", path, "--gauge", "vacuum", "--by", by])).out).points as {
          x: number;
        }[]
      ).map(({ x }) => x);
    const [hours, litres] = [await points("hours"), await points("litres")];
    expect(hours.map((x) => x - (hours[0] as number))).toEqual(hours.map((_, i) => 40 * i));
    expect(litres[0]).toBe(0);
    // Of what runs on one separator, 210 L/h at the most.
    for (let i = 1; i < litres.length; i++) {
      const flow = ((litres[i] as number) - (litres[i - 1] as number)) / 40;
      expect(flow).toBeGreaterThan(50);
      expect(flow).toBeLessThanOrEqual(210.001);
    }
  });

  test("findings and the network of a line-up", async () => {
    const findings = JSON.parse((await keel(["findings", "demo/marram.keel.json"])).out) as {
      rule: string;
      grade: string;
      lineUpIds: string[];
    }[];
    expect(findings[0]).toMatchObject({ rule: "returnElsewhere", grade: "stop", lineUpIds: ["runStbd"] });
    const inp = await keel(["export", "inp", "demo/marram.keel.json", "--lineup", "runPort"]);
    expect(inp.out).toContain("[RESERVOIRS]");
    expect(inp.out).toContain("frozen at the solution");
    expect((await keel(["export", "inp", "demo/marram.keel.json", "--lineup", "none"])).status).toBe(2);
  });
});
