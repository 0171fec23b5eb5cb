import { positive, pressure } from "./fields";
import type { Kind } from "./kind";
import { type PumpPart, pumpFields, pumpInLine, pumpLinks } from "./pumping";

/** Hangs in the tank on its carrier and pushes from there; shut when it is off. */
export interface InTankPump extends PumpPart {
  kind: "inTankPump";
}

export const inTankPump: Kind<InTankPump> = {
  ...pumpInLine,
  inTank: "in",
  title: "In-tank pump",
  fields: {
    ...pumpFields(250, 90000, { kind: "blocked" }),
    reliefPa: pressure("maker", positive, { isOptional: true, blank: 80000 }),
  },
  links: (part) => pumpLinks(part, { id: part.id, from: "in", to: "out" }),
};
