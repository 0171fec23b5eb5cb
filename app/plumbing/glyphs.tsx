/** A tank as it stands: its section with the fuel in it. */
import type { SectionPoint, Tank } from "~/core/plan/types";
import { polygonBelow } from "~/core/tanks/polygon";
import { sectionOf } from "~/core/tanks/shape";
import { heightsOf } from "~/core/tanks/tank";
import { body } from "./kinds/drawing";

interface GlyphBox {
  width: number;
  height: number;
}

/** A section drawn into a box, its bounding corners given back for the caller's labels. */
export function sectionPath(
  section: readonly SectionPoint[],
  place: (point: SectionPoint) => [number, number],
): string {
  return `${section
    .map(
      (point, i) =>
        `${i === 0 ? "M" : "L"}${place(point)
          .map((v) => v.toFixed(1))
          .join(" ")}`,
    )
    .join("")}Z`;
}

export function TankGlyph({ tank, levelM, width, height }: GlyphBox & { tank: Tank; levelM: number }) {
  const section = sectionOf(tank.shape);
  const { lowM, highM } = heightsOf(tank);
  const ys = section.map(([y]) => y);
  const [left, right] = [Math.min(...ys), Math.max(...ys)];
  const place = ([y, z]: SectionPoint): [number, number] => [
    ((right - y) / (right - left)) * width,
    ((highM - z) / (highM - lowM)) * height,
  ];
  const surface = place([0, levelM])[1];
  const wet = polygonBelow(section, levelM);
  const [a, b] = wet.length
    ? [
        Math.min(...wet.filter(([, z]) => z >= levelM - 1e-6).map((p) => place(p)[0])),
        Math.max(...wet.filter(([, z]) => z >= levelM - 1e-6).map((p) => place(p)[0])),
      ]
    : [0, 0];
  return (
    <g>
      <path d={sectionPath(section, place)} {...body} />
      {wet.length > 2 && <path d={sectionPath(wet, place)} fill="var(--atRest)" />}
      {Number.isFinite(a) && (
        <line x1={a} x2={b} y1={surface} y2={surface} stroke="var(--ink)" strokeWidth={1.4} />
      )}
      <path d={sectionPath(section, place)} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
    </g>
  );
}
