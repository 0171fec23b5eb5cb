/** On which side of its consumer each run of a plan carries fuel: as its line-ups are solved, not by what its ports are called. */
import { fuelWay, type Side } from "../hydraulics/route";
import type { LineUpSolver } from "../hydraulics/solve";
import type { Id } from "../kinds/record";
import type { Conditions, Plan } from "../plan/types";

/** Runs that no line-up sends fuel through to a consumer and back are not in it. */
export function runSides(solver: LineUpSolver, { lineUps }: Plan, conditions: Conditions): Map<Id, Side> {
  const sides = new Map<Id, Side>();
  for (const lineUp of lineUps) {
    const solved = solver.solve(lineUp, conditions);
    if (solved.outcome !== "solved") continue;
    for (const { part } of solved.network.engines) {
      const way = fuelWay(solved, part.id);
      if (way?.consumer?.id !== part.id) continue;
      for (const { id, kind, side } of way.legs) if (kind === "run" && !sides.has(id)) sides.set(id, side);
    }
  }
  return sides;
}
