import type { Kind } from "./kind";
import { type PumpPart, pumpFields, pumpInLine, pumpLinks } from "./pumping";

/** Draws from the tank and feeds the consumer; fuel passes it when it is off. */
export interface LiftPump extends PumpPart {
  kind: "liftPump";
}

export const liftPump: Kind<LiftPump> = {
  ...pumpInLine,
  title: "Lift pump",
  fields: pumpFields(400, 50000, { kind: "free", dropPa: 8000 }),
  links: (part) => pumpLinks(part, { id: part.id, from: "in", to: "out" }),
};
