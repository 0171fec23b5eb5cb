/** A tube through the plate has one place: that of its hole and that of its port are the same figures. */
import type { Opening, PlateHole, Tank, TankPort } from "../plan/types";

type Plated = Pick<Tank, "ports" | "opening">;

const holeOf = (opening: Opening | undefined, portId: string): PlateHole | undefined =>
  opening?.holes.find((hole) => hole.portId === portId);

/** The port moved so that it stands in its hole; its mouth goes with it. */
function inHole(port: TankPort, opening: Opening, hole: PlateHole): TankPort {
  const [xM, yM] = [opening.at.xM + hole.aM, opening.at.yM + hole.bM];
  const [dx, dy] = [xM - port.outside.xM, yM - port.outside.yM];
  if (dx === 0 && dy === 0) return port;
  return {
    ...port,
    outside: { ...port.outside, xM, yM },
    mouth: { ...port.mouth, xM: port.mouth.xM + dx, yM: port.mouth.yM + dy },
  };
}

const samePlace = (a: TankPort | undefined, b: TankPort): boolean =>
  a?.outside.xM === b.outside.xM && a.outside.yM === b.outside.yM;

/**
 * What an edit makes of ports and holes that belong together: where the port was moved the hole follows, in every other
 * case (the hole or the plate was moved, a hole was given a port) the port does. Null where nothing moves.
 */
export function alignedPlate(before: Plated, after: Plated): Plated | null {
  const { opening } = after;
  if (!opening?.holes.some(({ portId }) => portId !== undefined)) return null;
  const ports = new Map(after.ports.map((port) => [port.id, port]));
  const was = new Map(before.ports.map((port) => [port.id, port]));
  const holes = opening.holes.map((hole) => {
    const port = hole.portId === undefined ? undefined : ports.get(hole.portId);
    if (!port) return hole;
    const wasLinked = holeOf(before.opening, port.id) !== undefined;
    if (wasLinked && !samePlace(was.get(port.id), port))
      return { ...hole, aM: port.outside.xM - opening.at.xM, bM: port.outside.yM - opening.at.yM };
    ports.set(port.id, inHole(port, opening, hole));
    return hole;
  });
  return { opening: { ...opening, holes }, ports: after.ports.map((port) => ports.get(port.id) ?? port) };
}
