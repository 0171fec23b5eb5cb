/** A bench of plain parts for tests: wide lines, tanks with their surface at a height. */
import { type FuelState, fuelAt } from "../fuel/fuel";
import type { Engine, PlanPart } from "../kinds/index";
import type { Position } from "../kinds/record";
import { buildNetwork } from "../network/network";
import { newEngine, newJob, newLineUp, newPart, newRun, newTank } from "../plan/blank";
import { currentPlan } from "../plan/ports";
import type { Job, LineUp, Plan } from "../plan/types";
import { LITRE_PER_HOUR_M3_S } from "../units/factors";
import { gaugeAtPort } from "./derive";
import { LineUpSolver, type SolvedLineUp } from "./solve";

export const at = (xM: number, yM: number, zM: number): Position => ({ xM, yM, zM });

export class Bench {
  readonly job: Job = newJob("j", "J");
  readonly plan: Plan = currentPlan(this.job);
  readonly lineUp: LineUp = newLineUp("l", "run");
  private runs = 0;

  constructor() {
    this.plan.lineUps.push(this.lineUp);
    this.plan.conditions.fuelC = 15;
  }

  /** A wide box whose surface stands at a height. */
  tank(id: string, xM: number, surfaceM: number): this {
    const tank = newTank(id, id, at(xM, 0, surfaceM - 0.2));
    tank.shape = { kind: "box", lengthM: 1, widthM: 1, heightM: 0.4 };
    for (const port of tank.ports) {
      port.mouth = at(0, 0, 0.05);
      port.outside = at(0, 0, 0.05);
      port.boreM = 0.025;
    }
    this.job.tanks.push(tank);
    this.plan.conditions.aboardM3[id] = 0.2;
    return this;
  }

  part<K extends PlanPart["kind"]>(kind: K, id: string, zM: number, change: object = {}): this {
    this.plan.parts.push({ ...newPart(kind, id, at(1, 0, zM)), ...change } as PlanPart);
    return this;
  }

  /** A consumer that draws and sends back what is given, L/h; it runs in the line-up. */
  engine(id: string, zM: number, feedLH: number, burnLH = feedLH, kind: Engine["kind"] = "engine"): this {
    const engine = newEngine(id, id, at(3, 0, zM), kind);
    engine.boreM = 0.025;
    engine.ports = {};
    const flows = { feedM3S: feedLH * LITRE_PER_HOUR_M3_S, burnM3S: burnLH * LITRE_PER_HOUR_M3_S };
    engine.loads = [{ load: 1, ...flows }];
    this.job.consumers.push(engine);
    this.lineUp.consumers[id] = "running";
    return this;
  }

  run(from: string, to: string, lengthM = 2, boreM = 0.025): this {
    const ref = (key: string) => {
      const [part = "", port = ""] = key.split(".");
      return { part, port };
    };
    this.plan.runs.push(newRun(`r${this.runs++}`, ref(from), ref(to), lengthM, boreM));
    return this;
  }

  solve(): SolvedLineUp {
    const result = new LineUpSolver(buildNetwork(this.job)).solve(this.lineUp, this.plan.conditions);
    if (result.outcome !== "solved") throw new Error(result.outcome);
    return result;
  }

  get fuel(): FuelState {
    return fuelAt(this.job.fuel, 15) as FuelState;
  }
}

export const flow = (solved: SolvedLineUp, id: string): number =>
  solved.flow[solved.network.linkOf.get(id)!]!;
export const gauge = gaugeAtPort;
