/** Practice 60: the gauge's E is not empty: litres at E from shape and sender, until the tank has been dipped. Common practice. */
import { fittedAttitude } from "../../tanks/attitude";
import { volumeOfDip } from "../../tanks/dip";
import { onTank } from "../onTank";
import { rule } from "../rule";

/** Less than this no one plans with. Common practice, no source. */
const WORTH_SAYING_M3 = 0.002;

export const gaugeEmpty = rule({
  id: "gaugeEmpty",
  practice: [60],
  place: "survey",
  judge: ({ job, book }) =>
    job.tanks.flatMap((tank) => {
      const isDipped = book.some((entry) => entry.kind === "dip" && entry.tankId === tank.id);
      if (!tank.sender || isDipped) return [];
      const atEM3 = volumeOfDip(tank, fittedAttitude(tank), tank.sender.lowM);
      if (atEM3 < WORTH_SAYING_M3) return [];
      return [onTank({ grade: "watch", tank, values: { atEM3 }, figure: atEM3 })];
    }),
});
