import type { Kind } from "./kind";
import { type PumpPart, pumpFields, pumpInLine, pumpLinks } from "./pumping";

/** Moves fuel from tank to tank. */
export interface TransferPump extends PumpPart {
  kind: "transferPump";
}

export const transferPump: Kind<TransferPump> = {
  ...pumpInLine,
  title: "Transfer pump",
  fields: pumpFields(900, 70000, { kind: "blocked" }),
  links: (part) => pumpLinks(part, { id: part.id, from: "in", to: "out" }),
};
