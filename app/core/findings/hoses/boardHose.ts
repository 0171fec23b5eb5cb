/** Practice 28: a hose of a board that cannot be laid at its least radius, or that the plan has shorter than it must be. */
import { boardRuns, centreRadiusM } from "../../boards/board";
import { portKey } from "../../plan/ports";
import type { PortRef } from "../../plan/types";
import { rule } from "../rule";
import { judgedBoards } from "./boardClash";

/** What a tape and a hand make of the same hose. Common practice, no source. */
const TAPE_M = 0.02;

export const boardHose = rule({
  id: "boardHose",
  practice: [28],
  place: "fit",
  judge: (context) => {
    const { plan, network } = context;
    const name = (ref: PortRef) => network.ports.get(portKey(ref))?.ownerName ?? ref.part;
    return judgedBoards(context).flatMap((judged) =>
      boardRuns(plan, judged).flatMap(({ run, laid, planM, isWhole, blockedBy }) => {
        const isBlocked = laid.through.length > 0;
        const isShort = isWhole && planM !== null && planM < laid.lengthM - TAPE_M;
        if (!isBlocked && !isShort) return [];
        return [
          {
            grade: "mend" as const,
            ids: [run.id],
            lineUpIds: [],
            basis: "maker" as const,
            values: {
              board: judged.layout.board.name,
              code: isBlocked ? ("blocked" as const) : ("short" as const),
              from: name(run.from),
              to: name(run.to),
              by: blockedBy.join(", "),
              needsM: laid.lengthM,
              hasM: planM,
              radiusM: centreRadiusM(run),
            },
            figure: planM === null ? null : laid.lengthM - planM,
          },
        ];
      }),
    );
  },
});
