import { readFileSync } from "node:fs";
import { describe, expect, jest, test } from "@jest/globals";
import { LinkProperty, Project, Workspace } from "epanet-js";
import { LineUpSolver, type SolvedLineUp } from "../hydraulics/solve";
import { cubicTransition } from "../laws/cubicTransition";
import { churchill, type FrictionLaw } from "../laws/friction";
import { buildNetwork } from "../network/network";
import { randomJob } from "../network/randomPlan.fixture";
import { currentPlan } from "../plan/ports";
import type { Job, LineUp } from "../plan/types";
import { Way } from "../solver/newton";
import { exportInp } from "./inp";

const LPM_M3_S = 1e-3 / 60;
/** Near zero flow the two are compared absolutely, L/min. */
const SMALL_LPM = 1e-3;
/** That engine settles its check valves to 0.0001 ft3/s: where one stands shut, its smallest flows mean no more. */
const STATUS_LPM = (1e-4 * 0.3048 ** 3) / LPM_M3_S;

async function workspace(): Promise<Workspace> {
  const ws = new Workspace();
  await ws.loadModule();
  return ws;
}

/** Flows of that engine by our link id, L/min; null where it gives no balanced solution. */
function outside(ws: Workspace, text: string, ids: readonly string[]): number[] | null {
  const model = new Project(ws);
  ws.writeFile("n.inp", text);
  model.open("n.inp", "r.rpt", "o.bin");
  try {
    model.solveH();
    return ids.map((id) => model.getLinkValue(model.getLinkIndex(id), LinkProperty.Flow));
  } catch (error) {
    if (/Error (110|233)/.test(String(error))) return null;
    throw error;
  } finally {
    model.close();
  }
}

const unbalanced = (ws: Workspace) => /unbalanced/i.test(ws.readFile("r.rpt"));

function solve(job: Job, lineUp: LineUp, law: FrictionLaw): SolvedLineUp | null {
  const result = new LineUpSolver(buildNetwork(job), law).solve(lineUp, currentPlan(job).conditions);
  if (result.outcome !== "solved") return null;
  return [...result.consumers.values()].some(({ outcome }) => outcome === "starved") ? null : result;
}

const hasTransition = ({ flow, settings }: SolvedLineUp) =>
  flow.some((q, i) => {
    const re = Math.abs(q) * (settings.laws.reynoldsPerFlow[i] as number);
    return (settings.laws.friction[i] as number) > 0 && re > 2000 && re < 4000;
  });

/** Worst relative difference of a flow, or null where that engine has no answer. */
function compare(ws: Workspace, solved: SolvedLineUp): { worst: number; tight: boolean } | null {
  const joined = solved.network.links.map((link, i) => ({
    link,
    ours: (solved.flow[i] as number) / LPM_M3_S,
    i,
  }));
  // What is metered is drawn and put in at nodes there: it has no link of its own.
  const links = joined.filter(({ link }) => link.from !== link.to && link.kind !== "dosing");
  const theirs = outside(
    ws,
    exportInp(solved),
    links.map(({ link }) => link.id),
  );
  if (!theirs || unbalanced(ws)) return null;
  const tight = !links.some(({ ours, i }) => solved.settings.laws.way[i] === Way.oneWay && ours === 0);
  const small = tight ? SMALL_LPM : STATUS_LPM;
  let worst = 0;
  links.forEach(({ ours }, k) => {
    const flow = theirs[k] as number;
    const off = Math.abs(flow - ours);
    if (off > small) worst = Math.max(worst, off / Math.max(Math.abs(ours), Math.abs(flow)));
  });
  return { worst, tight };
}

jest.spyOn(console, "warn").mockImplementation(() => undefined);

describe("the same network through an outside engine (EPANET 2.2)", () => {
  test.each([
    ["its own friction law standing in", cubicTransition],
    ["ours, outside Re 2000-4000", churchill],
  ] as const)("20 random networks and more agree within 2 %: %s", async (_, law) => {
    const ws = await workspace();
    const compared = { tight: 0, withShutCheck: 0, noAnswer: 0 };
    let worst = 0;
    for (let seed = 0; seed < 500 && Math.min(compared.tight, compared.withShutCheck) < 25; seed++) {
      const job = randomJob(seed, { plain: compared.tight < 25 });
      const lineUp = currentPlan(job).lineUps[0] as LineUp;
      const solved = solve(job, lineUp, law);
      if (!solved || solved.flow.every((q) => q === 0)) continue;
      if (law === churchill && hasTransition(solved)) continue;
      const found = compare(ws, solved);
      if (!found) {
        compared.noAnswer++;
        continue;
      }
      if (!(found.worst < 0.02)) throw new Error(`seed ${seed}: ${found.worst}`);
      worst = Math.max(worst, found.worst);
      if (found.tight) compared.tight++;
      else compared.withShutCheck++;
    }
    console.info(`compared ${JSON.stringify(compared)}, worst difference ${(worst * 100).toFixed(2)} %`);
    expect(compared.tight).toBeGreaterThanOrEqual(25);
    expect(compared.withShutCheck).toBeGreaterThanOrEqual(25);
  });

  test("50 random networks with every kind of part agree within 2 %", async () => {
    const ws = await workspace();
    const kinds = new Map<string, number>();
    let compared = 0;
    let noAnswer = 0;
    let worst = 0;
    for (let seed = 1000; seed < 1600 && compared < 50; seed++) {
      const job = randomJob(seed, { every: true });
      const solved = solve(job, currentPlan(job).lineUps[0] as LineUp, cubicTransition);
      if (!solved || solved.flow.every((q) => q === 0) || solved.forcedIds.length > 0) continue;
      // A pump of that format lets nothing back: throats that run backward are left out.
      if (
        solved.network.links.some(
          (link, i) => link.kind === "jet" && link.way === "mix" && (solved.flow[i] as number) < 0,
        )
      )
        continue;
      const found = compare(ws, solved);
      if (!found) {
        noAnswer++;
        continue;
      }
      if (!(found.worst < 0.02)) throw new Error(`seed ${seed}: ${found.worst}`);
      worst = Math.max(worst, found.worst);
      compared++;
      solved.network.links.forEach(({ kind }, i) => {
        if (solved.flow[i] !== 0) kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
      });
    }
    console.info(
      `every kind: compared ${compared}, no answer ${noAnswer}, worst ${(worst * 100).toFixed(2)} %, ${JSON.stringify([...kinds])}`,
    );
    expect(compared).toBe(50);
    for (const kind of ["jet", "rated", "filter", "pump", "check"])
      expect(kinds.get(kind) ?? 0).toBeGreaterThanOrEqual(5);
  });

  test.each([
    ["its own friction law standing in", cubicTransition],
    ["ours, outside Re 2000-4000", churchill],
  ] as const)("every line-up of the demo jobs: %s", async (_, law) => {
    const ws = await workspace();
    const jobs = ["marram", "unit-12", "reading-van"].flatMap((name) => {
      const { job } = JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job };
      return job.plans.map(({ id }) => ({ ...job, currentPlanId: id }));
    });
    let compared = 0;
    for (const { job, lineUp } of jobs.flatMap((job) =>
      currentPlan(job).lineUps.map((lineUp) => ({ job, lineUp })),
    )) {
      const solved = solve(job, lineUp, law);
      expect(solved).not.toBeNull();
      if (!solved || (law === churchill && hasTransition(solved))) continue;
      const found = compare(ws, solved);
      if (!(found && found.worst < 0.02)) throw new Error(`${job.id} ${lineUp.id}: ${found?.worst}`);
      compared++;
    }
    expect(compared).toBeGreaterThanOrEqual(law === churchill ? 5 : 12);
  });
});
