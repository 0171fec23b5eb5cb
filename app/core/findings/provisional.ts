/** Practice 48: a part or hose that was put in for the time being. Common practice. */
import { portKey } from "../plan/ports";
import { onPart } from "./onPart";
import type { Rule } from "./types";

export const provisional: Rule = ({ plan, network }) => [
  ...plan.parts
    .filter((part) => part.provisional)
    .map((part) => onPart({ rule: "provisional", grade: "mend", part })),
  ...plan.runs
    .filter((run) => run.provisional)
    .map((run) => {
      const name = `Hose from ${network.ports.get(portKey(run.from))?.ownerName ?? run.id}`;
      return onPart({ rule: "provisional", grade: "mend", part: { id: run.id, name } });
    }),
];
