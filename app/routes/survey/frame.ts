/** How a plane of the tank is laid on the picture, and back from the picture to the tank. */
import type { SectionPoint } from "~/core/plan/types";
import { DEGREE_RAD } from "~/core/units/factors";

/** The picture's size, drawing units, and what is left free round the tank. */
export const W = 400;
export const H = 168;
const MARGIN = 20;

export interface Frame {
  place(point: SectionPoint): [number, number];
  back(at: [number, number]): SectionPoint;
  scale: number;
}

/** Turns the tank's plane to the picture's: `turnDeg` clockwise on screen, `flip` where the first axis runs to the left. */
export function frameOf(outline: readonly SectionPoint[], turnDeg: number, flip: boolean, spare = 0): Frame {
  const us = outline.map(([u]) => u);
  const zs = outline.map(([, z]) => z);
  const [u0, u1] = [Math.min(...us), Math.max(...us)];
  const [z0, z1] = [Math.min(...zs), Math.max(...zs)];
  const [sine, cosine] = [Math.sin(turnDeg * DEGREE_RAD), Math.cos(turnDeg * DEGREE_RAD)];
  const width = (u1 - u0) * Math.abs(cosine) + (z1 - z0) * Math.abs(sine);
  const height = (u1 - u0) * Math.abs(sine) + (z1 - z0) * Math.abs(cosine);
  const scale = Math.min((W - 2 * MARGIN - 60) / width, (H - 2 * MARGIN - spare) / height);
  const [uc, zc] = [(u0 + u1) / 2, (z0 + z1) / 2];
  const side = flip ? -1 : 1;
  return {
    scale,
    place: ([u, z]) => {
      const [a, b] = [side * (u - uc) * scale, -(z - zc) * scale];
      return [W / 2 + a * cosine - b * sine, H / 2 + 4 - spare / 4 + a * sine + b * cosine];
    },
    back: ([x, y]) => {
      const [a, b] = [x - W / 2, y - H / 2 - 4 + spare / 4];
      return [uc + (side * (a * cosine + b * sine)) / scale, zc - (-a * sine + b * cosine) / scale];
    },
  };
}
