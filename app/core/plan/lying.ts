/** Everything that lies in the vehicle as a hose or tube does: the runs that feed, and what tanks are filled, vented and drained by. */
import type { Position } from "../kinds/record";
import { SMOOTH_ROUGHNESS_M } from "./blank";
import { type PlacedPort, placedPorts, portKey } from "./ports";
import type { Job, Plan, Run, TankLine } from "./types";

export type LyingEnd = Pick<PlacedPort, "name" | "ownerName" | "position">;

export interface LyingRun {
  run: Run;
  from: LyingEnd;
  to: LyingEnd;
  /** Where it is one of these, its record in the plan. */
  line?: TankLine;
}

/** What the outer end of a tank's line is called. */
const outerNames: Readonly<Record<TankLine["use"], string>> = {
  fill: "fill's lip",
  vent: "vent's top",
  drain: "drain's mouth",
};

/** A tank's line as a run, from the tank outwards. */
export function runOfTankLine(line: TankLine): Run {
  const { id, tank, use, points, radiusM, isDoubleClamped: _, ...lies } = line;
  return {
    ...lies,
    id,
    from: { part: tank, port: use },
    to: { part: id, port: "outer" },
    roughnessM: SMOOTH_ROUGHNESS_M,
    route: { kind: "traced", points: points.slice(1, -1), radiusM },
  };
}

/** Tank's lines whose tank is there, as they lie. */
export function lyingTankLines(job: Job, plan: Plan): (LyingRun & { line: TankLine })[] {
  return (plan.tankLines ?? []).flatMap((line) => {
    const tank = job.tanks.find(({ id }) => id === line.tank);
    if (!tank) return [];
    const end = (position: Position, name: string): LyingEnd => ({
      name,
      ownerName: tank.name,
      position,
    });
    const from = end(line.points[0] as Position, line.use);
    const to = end(line.points.at(-1) as Position, outerNames[line.use]);
    return [{ run: runOfTankLine(line), from, to, line }];
  });
}

/** Every hose and tube of a plan, whatever it is for. */
export const hosesOf = ({ runs, tankLines = [] }: Pick<Plan, "runs" | "tankLines">): (Run | TankLine)[] => [
  ...runs,
  ...tankLines,
];

/** Runs whose ends are both there, in the plan's order, then the tanks' lines. */
export function lyingRuns(job: Job, plan: Plan): LyingRun[] {
  const ports = placedPorts(job, plan);
  const feeding = plan.runs.flatMap((run): LyingRun[] => {
    const [from, to] = [ports.get(portKey(run.from)), ports.get(portKey(run.to))];
    return from && to ? [{ run, from, to }] : [];
  });
  return [...feeding, ...lyingTankLines(job, plan)];
}
