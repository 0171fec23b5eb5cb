/** Practice 48: a part or hose that was put in for the time being. Common practice. */
import { portKey } from "../../plan/ports";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const provisional = rule({
  id: "provisional",
  practice: [48],
  place: "layout",
  judge: ({ plan, network }) => [
    ...plan.parts
      .filter((part) => part.provisional)
      .map((part) => onPart({ grade: "mend", part, values: {} })),
    ...plan.runs
      .filter((run) => run.provisional)
      .map((run) => {
        const name = `Hose from ${network.ports.get(portKey(run.from))?.ownerName ?? run.id}`;
        return onPart({ grade: "mend", part: { id: run.id, name }, values: {} });
      }),
  ],
});
