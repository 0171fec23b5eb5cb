/** Adds what fuel enters or leaves a tank by: a tube, a standpipe over a reserve, a side outlet, a sump, a return. */
import { newId } from "~/core/kinds/ids";
import type { Tank, TankPort } from "~/core/plan/types";
import { boundsOf } from "~/core/tanks/shape";
import { heightsOf } from "~/core/tanks/tank";
import { useJob } from "~/state/job";
import { Select } from "~/ui/fields";

type Fitting = "tube" | "standpipe" | "side" | "sump" | "return" | "stripping";

const fittings: { id: Fitting; name: string }[] = [
  { id: "tube", name: "Pickup tube from the top" },
  { id: "standpipe", name: "Standpipe, above a reserve" },
  { id: "side", name: "Side outlet" },
  { id: "sump", name: "Sump with its outlet" },
  { id: "stripping", name: "Stripping tube, to the lowest point" },
  { id: "return", name: "Return" },
];

/** Common practice, no source: a quarter of the height for a reserve, 25 mm for a side outlet and a tube. */
const RESERVE_SHARE = 0.25;
const SIDE_OVER_M = 0.025;
const OVER_TOP_M = 0.03;
/** Mouth of a stripping tube over the floor. Common practice, no source. */
const STRIPPING_M = 0.008;
const SUMP = { diameterM: 0.1, depthM: 0.06, holeM: 0.076 } as const;

/** No two ports of a tank are called the same: 'return', 'return 2'. */
function nameBeside({ ports }: Tank, name: string): string {
  const taken = new Set(ports.map((port) => port.name));
  for (let n = 1; ; n++) {
    const said = n === 1 ? name : `${name} ${n}`;
    if (!taken.has(said)) return said;
  }
}

function portOf(tank: Tank, fitting: Fitting): TankPort {
  const { x, y } = boundsOf(tank.shape);
  const { lowM, highM } = heightsOf(tank);
  const taken = tank.ports.length;
  const xM = x[0] + ((x[1] - x[0]) * (1 + (taken % 5))) / 6;
  const yM = (y[0] + y[1]) / 2;
  const at = (zM: number) => ({ xM, yM, zM });
  const base = {
    id: newId(),
    name: nameBeside(tank, fittings.find(({ id }) => id === fitting)?.name.toLowerCase() ?? fitting),
    boreM: tank.ports.find(({ role }) => role === "outlet")?.boreM ?? 0.0095,
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

export function TankPorts({ tank }: { tank: Tank }) {
  const { dispatch } = useJob();
  const add = (fitting: Fitting) => {
    const port = portOf(tank, fitting);
    const sump =
      fitting === "sump" && !tank.sump ? { sump: { xM: port.mouth.xM, yM: port.mouth.yM, ...SUMP } } : {};
    void dispatch({ name: "editTank", id: tank.id, change: { ports: [...tank.ports, port], ...sump } });
  };
  const options = fittings.filter(({ id }) => id !== "sump" || !tank.sump);
  return (
    <Select
      label="Add an outlet or return"
      value={null}
      placeholder="choose what"
      options={options}
      onChange={add}
    />
  );
}
