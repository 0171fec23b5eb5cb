/** The room that the name of a part takes under it. */
import type { Part } from "~/core/kinds/index";
import { firstLinePx } from "./kinds/drawing";
import { drawingOf } from "./kinds/index";
import { LEAST_FIT, LINE_PX, wrapped } from "./labels";

/** Mean width of a letter of the labels' face at their size, px: measured. */
const LETTER_PX = 5.7;
/** From the foot of a line to its head, px. */
const HEAD_PX = 12;

/**
 * Room for the name of a part and the figure under it on the smallest drawing, px, and how far down it begins; null for
 * parts that are named otherwise.
 */
export function labelRoom(part: Part): { top: number; width: number; height: number } | null {
  const { nameY: foot, longest } = drawingOf(part);
  if (foot === null) return null;
  const text = 1 / LEAST_FIT;
  const figure = longest?.(part) ?? "";
  const lines = [...wrapped(part.name, text), ...(figure ? wrapped(figure, text) : [])];
  const top = foot - HEAD_PX;
  return {
    top,
    width: Math.max(...lines.map(({ length }) => length)) * LETTER_PX * text,
    height: firstLinePx(foot, text) + ((lines.length - 1) * LINE_PX + 4) * text - top,
  };
}
