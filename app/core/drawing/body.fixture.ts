import type { DrawnNode } from "./nodes";

/** A body for tests of the drawing, by cells: of one kind, without ports, unless it is told. */
export const bodyWith = (id: string, of: Partial<DrawnNode> = {}): DrawnNode => {
  const { columns = 4, above = 1, foot = 3 } = of;
  return {
    id,
    kind: "filter",
    widthPx: 12 * columns,
    heightPx: 12 * (above + foot),
    rowPx: 12 * above,
    label: null,
    columns,
    above,
    below: foot,
    foot,
    overhang: 0,
    ports: [],
    ...of,
  };
};
