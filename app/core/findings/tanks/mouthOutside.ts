/** A pickup's or a return's mouth that lies outside the tank it is of: every figure of the tank then hangs on nothing. */
import { outsideOf } from "../../tanks/contains";
import { onTank } from "../onTank";
import { rule } from "../rule";

export const mouthOutside = rule({
  id: "mouthOutside",
  practice: [],
  place: "survey",
  judge: ({ job }) =>
    job.tanks.flatMap((tank) =>
      tank.ports.flatMap((port) => {
        const outside = outsideOf(tank, port.mouth);
        return outside
          ? [
              onTank({
                grade: "stop",
                tank,
                values: { port: port.name, ...outside },
                figure: outside.byM,
              }),
            ]
          : [];
      }),
    ),
});
