/** Figures of one part put on another of its kind. */
import type { PlanPart } from "../kinds/index";

/** What is only a part's own, or its plan's; its element is known to the conditions by its id. */
const OWN: ReadonlySet<string> = new Set(["id", "name", "position", "kind", "provisional"]);

export function withFigures(part: PlanPart, kept: PlanPart): PlanPart {
  const own = Object.fromEntries(Object.entries(part).filter(([key]) => OWN.has(key)));
  const figures = Object.fromEntries(Object.entries(kept).filter(([key]) => !OWN.has(key)));
  const element = "element" in part ? part.element : null;
  const keptElement = "element" in kept ? kept.element : null;
  const both = element && keptElement ? { ...keptElement, id: element.id } : element;
  return { ...figures, ...own, ...("element" in part && { element: both }) } as PlanPart;
}
