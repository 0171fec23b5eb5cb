/**
 * Practice 24 and 34: a fill, vent or drain line that holds fuel, runs the wrong way or lies nearly level, whose fill hose
 * has one clamp at its ends, or a drain on a petrol tank. ABYC H-24 and H-33, ISO 10088 (from memory).
 */
import { lyingTankLines } from "../../plan/lying";
import type { TankLine } from "../../plan/types";
import { tankLineFaults } from "../../tanks/tankLine";
import { onPart } from "../onPart";
import { type FindingBasis, type Grade, rule } from "../rule";

type Code = "holds" | "wrongWay" | "flat" | "oneClamp" | "petrolDrain";
type LineValues = {
  use: TankLine["use"];
  code: Code;
  /** Depth of what it holds, or how far it runs the wrong way, m. */
  byM: number;
  volumeM3: number;
  /** Least fall over its length. */
  fall: number;
};

export const tankLine = rule({
  id: "tankLine",
  practice: [24, 34],
  place: "layout",
  judge: ({ job, plan }) =>
    lyingTankLines(job, plan).flatMap(({ line, from }) => {
      const none = { byM: 0, volumeM3: 0, fall: 0 };
      const say = (grade: Grade, code: Code, basis: FindingBasis, values: Partial<typeof none> = {}) => ({
        ...onPart<LineValues>({
          grade,
          part: { id: line.id, name: from.ownerName },
          also: [line.tank],
          basis,
          values: { use: line.use, code, ...none, ...values },
          figure: values.byM ?? null,
        }),
        about: code,
      });
      return [
        ...tankLineFaults(line, plan.conditions.trim).map((fault) => {
          switch (fault.code) {
            case "holds":
              return say("mend", "holds", "standard", { byM: fault.depthM, volumeM3: fault.heldM3 });
            case "wrongWay":
              return say("mend", "wrongWay", "standard", { byM: fault.byM });
            case "flat":
              return say("watch", "flat", "common", { fall: fault.fall });
          }
        }),
        ...(line.isDoubleClamped === false && line.use === "fill"
          ? [say("mend", "oneClamp", "standard")]
          : []),
        ...(line.use === "drain" && job.fuel.grade === "petrol"
          ? [say("mend", "petrolDrain", "standard")]
          : []),
      ];
    }),
});
