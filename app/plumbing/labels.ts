/** Where the name of a part stands under it, how it is set in lines, and the room that takes. */
import type { Part } from "~/core/kinds/index";

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

/** From the top of a part to the foot of its name's first line at natural size, px; parts not here are named otherwise. */
const labelTops: Partial<Record<Part["kind"], number>> = {
  twoWay: 40,
  selector: 70,
  filter: 92,
  pumpFilterUnit: 92,
  liftPump: 60,
  transferPump: 60,
  primingPump: 60,
  inTankPump: 60,
  dosingPump: 60,
  check: 44,
  antiSiphon: 46,
  bulb: 46,
  relief: 46,
  regulator: 46,
  cooler: 46,
  flowMeter: 46,
  fuelHeater: 46,
  bleedScrew: 46,
  samplingTap: 46,
  waterSensor: 46,
  bulkhead: 46,
  jetPump: 58,
  swirlPot: 88,
};

/** Foot of the first line, px: names that keep their size on a smaller drawing grow away from the part, not into it. */
export const firstLinePx = (kind: Part["kind"], text: number): number =>
  (labelTops[kind] ?? 0) + 11 * (text - 1);

/** The longest that is ever set under the name of a part. */
function longestFigure(part: Part): string {
  switch (part.kind) {
    case "filter":
    case "pumpFilterUnit":
      return `${part.micron}\u00a0µm, stand-by`;
    case "selector":
      return part.positions.reduce(
        (longest, { name }) => (name.length > longest.length ? name : longest),
        "not set",
      );
    case "liftPump":
    case "transferPump":
    case "primingPump":
    case "inTankPump":
    case "dosingPump":
      return "+0 kPa";
    default:
      return "";
  }
}

/** Mean width of a letter of the labels' face at their size, px: measured. */
const LETTER_PX = 5.7;
/** From the foot of a line to its head, px. */
const HEAD_PX = 12;

/**
 * Room for the name of a part and the figure under it on the smallest drawing, px, and how far down it begins; null for
 * parts that are named otherwise.
 */
export function labelRoom(part: Part): { top: number; width: number; height: number } | null {
  const foot = labelTops[part.kind];
  if (foot === undefined) return null;
  const text = 1 / LEAST_FIT;
  const figure = longestFigure(part);
  const lines = [...wrapped(part.name, text), ...(figure ? wrapped(figure, text) : [])];
  const top = foot - HEAD_PX;
  return {
    top,
    width: Math.max(...lines.map(({ length }) => length)) * LETTER_PX * text,
    height: firstLinePx(part.kind, text) + ((lines.length - 1) * LINE_PX + 4) * text - top,
  };
}
