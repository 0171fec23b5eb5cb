/** Practice 19 and 55: holes larger than their flange, too near an edge, a baffle or each other; no room to lift a part out. */
import { holeFaults } from "../tanks/opening";
import { onTank } from "./onTank";
import type { Finding, Rule } from "./types";

export const plateHole: Rule = ({ job }) =>
  job.tanks.flatMap((tank) =>
    holeFaults(tank).map((fault): Finding => {
      const { code, holeId, ...figures } = fault;
      const hole = tank.opening?.holes.find(({ id }) => id === holeId);
      const [figure = null] = Object.values(figures).filter((one): one is number => typeof one === "number");
      const isRoom = code === "noRoomAbove";
      return onTank({
        rule: isRoom ? "noRoomAbove" : "plateHole",
        grade: isRoom ? "watch" : "mend",
        tank,
        also: holeId,
        values: { code, use: hole?.use ?? "", byM: figure },
        figure,
      });
    }),
  );
