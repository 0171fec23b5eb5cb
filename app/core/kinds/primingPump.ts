import type { Kind } from "./kind";
import { BYPASS_OPENS_PA, type PumpPart, pumpFields, pumpInLine, pumpLinks } from "./pumping";

/** Fills the filters before a start; a bypass lets fuel round it when it is off. */
export interface PrimingPump extends PumpPart {
  kind: "primingPump";
}

export const primingPump: Kind<PrimingPump> = {
  ...pumpInLine,
  title: "Priming pump",
  fields: pumpFields(130, 40000, { kind: "bypass", opensPa: BYPASS_OPENS_PA, dropPa: 2500 }),
  links: (part) => pumpLinks(part, { id: part.id, from: "in", to: "out" }),
};
