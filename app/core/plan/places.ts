/** How far from the corner of its sheet anything may stand on the drawing, cells. */
import type { Cell } from "./types";

export const SHEET = { left: -100, right: 1000, top: -100, bottom: 600 } as const;

const within = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));

export const onSheet = ({ x, y, ...rest }: Cell): Cell => ({
  ...rest,
  x: within(x, SHEET.left, SHEET.right),
  y: within(y, SHEET.top, SHEET.bottom),
});
