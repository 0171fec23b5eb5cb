/**
 * A swirl pot once nothing fills it any more: what is drawn less what comes back lowers it steadily until its own mouth
 * comes clear, and from then on air is drawn. The mouth is taken to lie at its bottom: common practice, no source.
 */
import type { SwirlPot } from "../kinds/swirlPot";
import type { SolvedLineUp } from "./solve";

export interface PotHolds {
  drawnM3S: number;
  backM3S: number;
  /** From full until air is drawn, s; null where as much comes back as is drawn. */
  seconds: number | null;
  /** What is left after some seconds without filling, m3. */
  leftM3(seconds: number): number;
}

/** What flows into a part at one of its ports, m3/s; out of it is less than nothing. */
export function portFlowM3S({ network, flow }: SolvedLineUp, part: string, port: string): number {
  const run = network.plan.runs.find(({ from, to }) =>
    [from, to].some((end) => end.part === part && end.port === port),
  );
  const index = run && network.linkOf.get(run.id);
  if (!run || index === undefined) return 0;
  const q = flow[index] ?? 0;
  return run.from.part === part && run.from.port === port ? -q : q;
}

export function potHolds(solved: SolvedLineUp, { id, volumeM3 }: SwirlPot): PotHolds {
  const drawnM3S = Math.max(0, -portFlowM3S(solved, id, "out"));
  const backM3S = Math.max(0, portFlowM3S(solved, id, "back"));
  const net = drawnM3S - backM3S;
  return {
    drawnM3S,
    backM3S,
    seconds: net > 0 ? volumeM3 / net : null,
    leftM3: (seconds) => Math.max(0, volumeM3 - Math.max(0, net) * seconds),
  };
}
