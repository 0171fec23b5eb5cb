/** Practice 28: a hose of a board that cannot be laid at its least radius, or that the plan has shorter than it must be. */
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
    const name = (id: string) =>
      plan.parts.find((part) => part.id === id)?.name ?? network.ports.get(id)?.ownerName ?? "";
    return judgedBoards(context).flatMap(({ hoses, layout: { board, parts, task } }) =>
      task.hoses.flatMap(({ id, from, to, radiusM }, i) => {
        const laid = hoses[i];
        const run = plan.runs.find((one) => one.id === id);
        if (!laid || !run) return [];
        const isWhole = "part" in from && "part" in to;
        const planM = run.route.kind === "measured" ? run.route.lengthM : null;
        const isBlocked = laid.through.length > 0;
        const isShort = isWhole && planM !== null && planM < laid.lengthM - TAPE_M;
        if (!isBlocked && !isShort) return [];
        return [
          {
            grade: "mend" as const,
            ids: [id],
            lineUpIds: [],
            basis: "maker" as const,
            values: {
              board: board.name,
              code: isBlocked ? ("blocked" as const) : ("short" as const),
              from: name(run.from.part),
              to: name(run.to.part),
              by: laid.through.flatMap((n) => parts[n]?.name ?? []).join(", "),
              needsM: laid.lengthM,
              hasM: planM,
              radiusM,
            },
            figure: planM === null ? null : laid.lengthM - planM,
          },
        ];
      }),
    );
  },
});
