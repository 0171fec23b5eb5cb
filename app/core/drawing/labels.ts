/** How the names of parts are set in lines. */
import type { Part } from "../kinds/index";
import { bodyOf } from "./bodies";

/** A drawing that would have to be smaller than this is scrolled: names keep their size and need their room. */
export const LEAST_FIT = 0.7;
/** From this size beside their part on, names stand in narrow lines, so as not to reach into the next one's. */
const NARROW_FROM = 1.2;
const NARROW_LINE = 11;
export const LINE_PX = 12.5;

/** Names are set in two lines where they are long, so that they stay over their own part. */
export function wrapped(name: string, text = 1): string[] {
  if (name.length <= (text > NARROW_FROM ? NARROW_LINE : 12)) return [name];
  const words = name.split(" ");
  if (words.length === 1) return [name];
  if (text > NARROW_FROM)
    return words.reduce<string[]>((lines, word) => {
      const last = lines.at(-1);
      if (last !== undefined && last.length + word.length + 1 <= NARROW_LINE)
        lines[lines.length - 1] = `${last} ${word}`;
      else lines.push(word);
      return lines;
    }, []);
  const ways = words.slice(1).map((_, i) => [words.slice(0, i + 1).join(" "), words.slice(i + 1).join(" ")]);
  return ways.reduce((best, way) =>
    Math.max(...way.map((line) => line.length)) < Math.max(...best.map((line) => line.length)) ? way : best,
  );
}

/** Foot of the first line, px: names that keep their size on a smaller drawing grow away from the part, not into it. */
export const firstLinePx = (nameY: number, text: number): number => nameY + 11 * (text - 1);

/** Mean width of a letter of the labels' face at their size, px: measured. */
const LETTER_PX = 5.7;
/** From the foot of a line to its head, px. */
const HEAD_PX = 12;

/**
 * Room for the name of a part and the figure under it on the smallest drawing, px, and how far down it begins; null for
 * parts that are named otherwise.
 */
export function labelRoom(part: Part): { top: number; width: number; height: number } | null {
  const { nameY: foot, longest } = bodyOf(part);
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
