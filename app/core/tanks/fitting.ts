/** What fuel enters or leaves a tank by: a tube, a standpipe over a reserve, a side outlet, a sump, a return. */
import type { Id } from "../kinds/record";
import type { Tank, TankPort } from "../plan/types";
import { boundsOf } from "./shape";
import { heightsOf } from "./tank";

export const fittingIds = ["tube", "standpipe", "side", "sump", "stripping", "return"] as const;
export type Fitting = (typeof fittingIds)[number];

/** Common practice, no source: a quarter of the height for a reserve, 25 mm for a side outlet and a tube. */
const RESERVE_SHARE = 0.25;
const SIDE_OVER_M = 0.025;
const OVER_TOP_M = 0.03;
/** Mouth of a stripping tube over the floor. Common practice, no source. */
const STRIPPING_M = 0.008;
const SUMP = { diameterM: 0.1, depthM: 0.06, holeM: 0.076 } as const;
/** Bore where no outlet tells one. Common practice, no source. */
const BORE_M = 0.0095;

/** No two ports of a tank are called the same: 'return', 'return 2'. */
function nameBeside({ ports }: Tank, name: string): string {
  const taken = new Set(ports.map((port) => port.name));
  for (let n = 1; ; n++) {
    const said = n === 1 ? name : `${name} ${n}`;
    if (!taken.has(said)) return said;
  }
}

function portOf(tank: Tank, fitting: Fitting, id: Id, called: string): TankPort {
  const { x, y } = boundsOf(tank.shape);
  const { lowM, highM } = heightsOf(tank);
  // Beside those there are, along the tank.
  const xM = x[0] + ((x[1] - x[0]) * (1 + (tank.ports.length % 5))) / 6;
  const yM = (y[0] + y[1]) / 2;
  const at = (zM: number) => ({ xM, yM, zM });
  const base = {
    id,
    name: nameBeside(tank, called),
    boreM: tank.ports.find(({ role }) => role === "outlet")?.boreM ?? BORE_M,
  };
  const top = at(highM + OVER_TOP_M);
  switch (fitting) {
    case "return":
      return { ...base, role: "return", mouth: at(highM - SIDE_OVER_M), outside: top };
    case "tube":
      return { ...base, role: "outlet", fitting, mouth: at(lowM + SIDE_OVER_M), outside: top };
    case "stripping":
      // For water and dirt: its mouth nearly on the floor.
      return { ...base, role: "outlet", fitting: "tube", mouth: at(lowM + STRIPPING_M), outside: top };
    case "standpipe":
      return {
        ...base,
        role: "outlet",
        fitting,
        mouth: at(lowM + RESERVE_SHARE * (highM - lowM)),
        outside: top,
      };
    case "side":
      return {
        ...base,
        role: "outlet",
        fitting,
        mouth: at(lowM + SIDE_OVER_M),
        outside: { ...at(lowM + SIDE_OVER_M), xM: x[0] },
      };
    case "sump":
      return {
        ...base,
        role: "outlet",
        fitting,
        mouth: at(lowM - SUMP.depthM + 0.01),
        outside: { ...at(lowM - SUMP.depthM + 0.01), yM: yM + SUMP.diameterM / 2 },
      };
  }
}

/** What a tank can still be given: it has one sump at most. */
export const fittingsFor = ({ sump }: Tank): readonly Fitting[] =>
  fittingIds.filter((id) => id !== "sump" || !sump);

/** What changes of a tank that is given a fitting: its port, `id`, called so or so with a number; a sump comes with its outlet. */
export function fittingOn(
  tank: Tank,
  fitting: Fitting,
  id: Id,
  called: string,
): Pick<Tank, "ports"> & Partial<Pick<Tank, "sump">> {
  const port = portOf(tank, fitting, id, called);
  const sump =
    fitting === "sump" && !tank.sump ? { sump: { xM: port.mouth.xM, yM: port.mouth.yM, ...SUMP } } : {};
  return { ports: [...tank.ports, port], ...sump };
}
