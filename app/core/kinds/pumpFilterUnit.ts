import { positive, pressure } from "./fields";
import { type FilterBody, filterFields, filterHousing } from "./filtering";
import { inOut, inToOut, type Kind, port } from "./kind";
import { BYPASS_OPENS_PA, type PumpBody, pumpFields, pumpLinks } from "./pumping";
import type { PartBase } from "./record";

/** A pump, its filter, and what it does not deliver back through a return of its own. Ports: `in`, `out`, `back`. */
export interface PumpFilterUnit extends PartBase, FilterBody, PumpBody {
  kind: "pumpFilterUnit";
  /** Pressure it holds after the pump; the rest goes back. */
  reliefPa: number;
}

/** A unit's relief lets the rated flow back at this share over its setting. Common practice, no source. */
const RELIEF_DROOP = 0.1;

export const pumpFilterUnit: Kind<PumpFilterUnit> = {
  title: "Pump and filter unit",
  families: ["powered", "pushing", "filtering"],
  hasArrow: true,
  fields: {
    ...filterFields,
    // A unit is told by its filter, not by its curve.
    ...pumpFields(500, 90000, { kind: "bypass", opensPa: BYPASS_OPENS_PA, dropPa: 4000 }, false),
    reliefPa: pressure("maker", positive, { blank: 60000, isNeeded: true }),
  },
  ports: () => [...inOut, port("back", "own return", "branch")],
  through: inToOut,
  links: (part) => {
    const { id } = part;
    return [
      ...pumpLinks(part, { id: `${id}.p`, from: "in", to: "x" }),
      { kind: "filter", id: `${id}.f`, from: "x", to: "out", part },
      {
        kind: "check",
        id: `${id}.r`,
        from: "x",
        to: "back",
        part,
        opensPa: part.reliefPa,
        perFlowPa: (RELIEF_DROOP * part.reliefPa) / part.ratedFlowM3S,
      },
    ];
  },
  inner: ["x"],
  volumeM3: ({ volumeM3 }) => volumeM3,
  filling: "bowl",
  body: { ...filterHousing, widthM: 0.2, massKg: 3.5 },
  end: "pipeThread",
};
