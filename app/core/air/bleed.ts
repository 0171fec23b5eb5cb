/** Which way of the fuel a line-up is bled along. */
import type { LineUpSolver } from "../hydraulics/solve";
import { judgeLineUp, type LineUpVerdict } from "../hydraulics/worst";
import type { Conditions, LineUp } from "../plan/types";

/** The way that opens when the inlet joint of a stopped consumer is loosened: the farthest of those that it leads to. */
function primingVerdict(solver: LineUpSolver, lineUp: LineUp, conditions: Conditions): LineUpVerdict | null {
  const verdicts = solver.network.engines.map(({ part: { id } }) =>
    judgeLineUp(solver, { ...lineUp, consumers: { ...lineUp.consumers, [id]: "running" } }, conditions, id),
  );
  const lengthM = ({ way }: LineUpVerdict) => way?.legs.at(-1)?.points.at(-1)?.atM ?? 0;
  return verdicts
    .filter(({ way, result }) => way?.consumer && result.outcome === "solved")
    .reduce<LineUpVerdict | null>((far, one) => (far && lengthM(far) >= lengthM(one) ? far : one), null);
}

/**
 * The line-up's own way; where nothing runs that draws and the line-up moves no fuel from tank to tank, the way to the
 * consumer's inlet joint. Null where nothing leads there.
 */
export function bledWay(
  solver: LineUpSolver,
  verdict: LineUpVerdict,
  conditions: Conditions,
): { from: LineUpVerdict | null; isPriming: boolean } {
  const { lineUp } = verdict;
  const runs = Object.values(lineUp.consumers).includes("running");
  const isPriming = !runs && (lineUp.purpose === "prime" || !verdict.way);
  const from = isPriming ? primingVerdict(solver, lineUp, conditions) : verdict;
  return { from: from?.way && from.result.outcome === "solved" ? from : null, isPriming };
}
