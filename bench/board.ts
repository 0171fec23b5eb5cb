/** A board arranged for ten seeds, and a part dragged on it, beside a yardstick of this machine in the same run. */
import { arrange, judgeBoard } from "~/core/fit/arrange";
import { exampleBoard, inACorner } from "~/core/fit/board.fixture";
import { median, ms, show } from "./measure";

const task = exampleBoard();
const moves = Number(process.env.MOVES ?? 4000);
const rounds = Number(process.env.ROUNDS ?? 6);
const cpu = () => process.cpuUsage().user / 1e6;
for (const seed of [1, 2, 3, 4, 5, 6, 7, 8, 9, 10]) {
  const began = cpu();
  let first: number | null = null;
  const search = arrange(task, inACorner(task), { seed, moves, rounds });
  let step = search.next();
  while (!step.done) {
    if (first === null && step.value.best.isLegal) first = cpu() - began;
    step = search.next();
  }
  const best = step.value;
  show(
    `board, seed ${seed}`,
    `${best.isLegal ? "legal" : `${best.clashes.length} clashes`}, hose ${(best.hoseM * 1000).toFixed(0)} mm, ${best.elbows} elbows, first legal ${first?.toFixed(2) ?? "-"} s, whole ${(cpu() - began).toFixed(2)} s`,
  );
}
const found = [...arrange(task, inACorner(task), { seed: 1, moves: 4000, rounds: 1 })].at(-1)?.best;
const at = (found?.at ?? inACorner(task)).map((one) => ({ ...one }));
const judged = Array.from({ length: 200 }, (_, i) => {
  const moved = at.map((one, k) => (k === 2 ? { ...one, x: one.x + (i % 20) * 0.001 } : one));
  return ms(() => judgeBoard(task, moved));
});
show("a part dragged: the board judged anew", `${median(judged).toFixed(2)} ms median`);
