/** Tanks where they stand in the vehicle, turned and pitched as they are fitted. */
import { fromTank } from "../plan/ports";
import type { Tank } from "../plan/types";
import { type Corner, type Face, facesOf } from "../tanks/faces";

/** Every face of a tank and its sump, job frame. */
export function tankSolids(tank: Tank): Face[] {
  const { shell, sump } = facesOf(tank);
  return [...shell, ...sump].map((face) =>
    face.map(([x, y, z]): Corner => {
      const { xM, yM, zM } = fromTank(tank, { xM: x, yM: y, zM: z });
      return [xM, yM, zM];
    }),
  );
}
