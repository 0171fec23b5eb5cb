/** A drawing as a plain SVG: bodies, rooms of names, hoses. What is looked at when a golden drawing differs. */
import type { Network } from "../network/network";
import { placedOf } from "./placed";

export function goldenOf(network: Network): string {
  const { width, height, nodes, edges } = placedOf(network);
  const { job, plan } = network;
  const names = new Map([...job.tanks, ...job.consumers, ...plan.parts].map(({ id, name }) => [id, name]));
  const bodies = [...nodes].map(
    ([id, { x, y, width: w, height: h, bodyHeight }]) =>
      `<g><title>${names.get(id)}</title><rect x="${x}" y="${y}" width="${w}" height="${bodyHeight}" fill="#fff" stroke="#000"/>${h > bodyHeight ? `<rect x="${x}" y="${y + bodyHeight}" width="${w}" height="${h - bodyHeight}" fill="none" stroke="#bbb"/>` : ""}</g>`,
  );
  // By their ways: ids of a starter are drawn anew each time.
  const hoses = [...edges.values()]
    .map(
      (points) =>
        `<polyline points="${points.map(({ x, y }) => `${x},${y}`).join(" ")}" fill="none" stroke="#34135c"/>`,
    )
    .sort();
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}">`,
    ...bodies,
    ...hoses,
    "</svg>",
    "",
  ].join("\n");
}
