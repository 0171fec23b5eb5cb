/** Readings from tables and deltas: units, doubles, times to come, jumps, halves; nothing is taken where one is wrong. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { capacityM3 } from "../tanks/tank";
import { Diagnoser } from "./diagnose";
import { columnsOf, guessedMapping, MOST_KEPT, readDeltas, readTable, thinned } from "./incoming";
import { instrumentsOf } from "./instruments";
import { deltasOf, SimulatedSystem } from "./simulate";

const { job } = JSON.parse(readFileSync("demo/unit-12.keel.json", "utf8")) as { job: Job };
const plan = currentPlan(job);
const NOW = new Date("2026-06-01T12:00:00Z");
const codes = (text: string, mapping = guessedMapping(columnsOf(text), instrumentsOf(job, plan))) =>
  readTable(text, mapping, job, plan, NOW).faults.map(({ row, code }) => `${row} ${code}`);

test("a table of five thousand columns is refused for its width before it is read", () => {
  const width = 5000;
  const text = [
    ["Time", ...Array.from({ length: width - 1 }, (_, i) => `Vacuum gauge ${i}`)].join(","),
    ...Array.from({ length: 50 }, () => Array.from({ length: width }, () => "1").join(",")),
  ].join("\n");
  const { faults, readings } = readTable(text, { time: "Time", of: {} }, job, plan, NOW);
  expect([faults, readings]).toEqual([[{ row: 0, code: "tooManyColumns", what: String(width) }], []]);
});

describe("a table", () => {
  const text = [
    "Time,Vacuum gauge,Pressure gauge,Bed tank,Oil",
    "2026-06-01T10:00:00Z,3.2,29 kPa,240 L,80",
    "2026-06-01T11:00:00Z,1 inHg,4 psi,,82",
  ].join("\n");

  test("is mapped by its names; figures are of the job's units unless they say otherwise, empty cells are none", () => {
    const mapping = guessedMapping(columnsOf(text), instrumentsOf(job, plan));
    expect(mapping).toEqual({
      time: "Time",
      of: { "Vacuum gauge": "vac", "Pressure gauge": "press", "Bed tank": "bed" },
    });
    const { readings, faults, others } = readTable(text, mapping, job, plan, NOW);
    expect(faults).toEqual([]);
    expect(others).toEqual(["Oil"]);
    expect(readings.map(({ of, value }) => [of.id, Math.round(value * 1000) / 1000])).toEqual([
      ["vac", 3200],
      ["press", 29000],
      ["bed", 0.24],
      // 1 inHg 3386.39 Pa, 4 psi 27579.03 Pa (NIST SP 811).
      ["vac", 3386.389],
      ["press", 27579.029],
    ]);
  });

  test("faults stand with their rows, and nothing else", () => {
    const lines = (...rows: string[]) => ["Time,Vacuum gauge", ...rows].join("\n");
    expect(codes(lines("2026-06-01T10:00:00Z,a lot"))).toEqual(["2 notNumber"]);
    expect(codes(lines("noon,3"))).toEqual(["2 badTime"]);
    expect(codes(lines("2026-07-01T10:00:00Z,3"))).toEqual(["2 future"]);
    // A time of several columns is told once.
    expect(
      codes(["Time,Vacuum gauge,Pressure gauge", "noon,3,20", "2026-07-01T10:00:00Z,3,20"].join("\n")),
    ).toEqual(["2 badTime", "3 future"]);
    expect(codes(lines("2026-05-01T10:00:00Z,3", "2026-05-01T10:00:00Z,4"))).toEqual(["3 twice"]);
    // From kPa to Pa in one table.
    expect(codes(lines("2026-05-01T10:00:00Z,3.2", "2026-05-01T11:00:00Z,3200"))).toEqual(["3 jump"]);
    expect(codes("Time,Vacuum gauge")).toEqual(["0 noRows"]);
    expect(codes(lines("2026-05-01T10:00:00Z,3"), { time: "When", of: {} })).toEqual(["0 noTimeColumn"]);
    expect(codes(lines("2026-05-01T10:00:00Z,3"), { time: "Time", of: {} })).toEqual(["0 noColumn"]);
    expect(codes(lines("2026-05-01T10:00:00Z,3"), { time: "Time", of: { "Vacuum gauge": "old" } })).toEqual([
      "2 gone",
    ]);
  });

  test("50,000 rows are read, one more is told; what is kept is even and has the last of each", () => {
    const rows = (count: number) =>
      [
        "Time,Vacuum gauge",
        ...Array.from(
          { length: count },
          (_, i) => `${new Date(1.7e12 + i * 1000).toISOString()},3.${i % 10}`,
        ),
      ].join("\n");
    const { readings, faults } = readTable(
      rows(50_000),
      { time: "Time", of: { "Vacuum gauge": "vac" } },
      job,
      plan,
      NOW,
    );
    expect([readings.length, faults]).toEqual([50_000, []]);
    const kept = thinned(readings);
    expect(kept.length).toBeLessThanOrEqual(MOST_KEPT + 1);
    expect(kept.at(-1)).toEqual(readings.at(-1));
    expect(codes(rows(50_001))).toEqual(["0 tooManyRows"]);
    expect(thinned(readings.slice(0, 5))).toEqual(readings.slice(0, 5));
  });
});

describe("deltas", () => {
  const network = buildNetwork(job);
  const diagnoser = new Diagnoser(network, plan.lineUps[0]!, plan.conditions, {});
  const deltas = deltasOf(new SimulatedSystem(diagnoser, null, 5), 1);

  test("of the stand-in are read back: a vacuum is more than nothing, a level is litres of its tank", () => {
    const { readings, faults } = readDeltas(JSON.stringify(deltas), job, plan, NOW);
    expect(faults).toEqual([]);
    const last = (id: string) => readings.findLast(({ of }) => of.id === id)!.value;
    const said = (path: string) => deltas.at(-1)!.updates[0]!.values.find((one) => one.path === path)!.value;
    expect(last("vac")).toBe(-said("fuelSystem.vac.pressure"));
    expect(last("press")).toBe(said("fuelSystem.press.pressure"));
    expect(last("bed")).toBeCloseTo(
      said("tanks.fuel.bed.currentLevel") * capacityM3(job.tanks.find(({ id }) => id === "bed")!),
      12,
    );
    expect(last("bed")).toBeCloseTo(plan.conditions.aboardM3.bed!, 9);
  });

  test("line by line as off a wire: a greeting is no delta, half a line is told, other paths are left out", () => {
    const lines = [
      '{"name":"x","version":"1.0.0"}',
      JSON.stringify(deltas[0]),
      '{"context":"vessels.self","updates":[{"timestamp":"2026-01-01T00:00:09Z","values":[{"path":"propulsion.main.revolutions","value":20}]}]}',
    ];
    const whole = readDeltas(lines.join("\n"), job, plan, NOW);
    expect(whole.faults).toEqual([]);
    expect(whole.others).toEqual(["propulsion.main.revolutions"]);
    const half = readDeltas([...lines, JSON.stringify(deltas[1]).slice(0, 60)].join("\n"), job, plan, NOW);
    expect(half.faults).toMatchObject([{ row: 4, code: "halfWritten" }]);
    expect(readDeltas("[{", job, plan, NOW).faults).toMatchObject([{ row: 0, code: "halfWritten" }]);
    expect(readDeltas("", job, plan, NOW).faults).toMatchObject([{ code: "noRows" }]);
    expect(readDeltas("[1]", job, plan, NOW).faults).toMatchObject([{ row: 1, code: "halfWritten" }]);
  });
});
