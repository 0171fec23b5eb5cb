import { headPa } from "../../fuel/fuel";
import { distanceM } from "../../plan/ports";
import { Way } from "../../solver/newton";
import { fitting, type LinkKind, type LinkOf } from "./link";

/** A tank's outlet or return. A mouth over the surface takes no fuel; what comes out of it falls in. */
export const tankPort: LinkKind<LinkOf<"tankPort">> = {
  boreM: ({ port }) => port.boreM,
  owner: ({ tank }) => tank,
  station: "tank",
  loss: ({ port: { role, boreM, mouth, outside } }) =>
    fitting(role === "outlet" ? "entrance" : "exit", boreM, distanceM(mouth, outside)),
  setter:
    ({ tank: { id }, nth }, index) =>
    (laws, { posture, surfaceM, fuel }) => {
      const uncoveredM = (posture.mouthM[nth] as number) - (surfaceM.get(id) ?? 0);
      if (uncoveredM < 0) return;
      laws.way[index] = Way.oneWay;
      laws.constant[index] = headPa(fuel.densityKgM3, uncoveredM);
    },
  export: ({ id, port: { mouth, outside } }, { from, to, way, constant, tankPa }, file) => {
    const lengthM = distanceM(mouth, outside);
    if (way !== Way.oneWay) return file.pipe(from, to, lengthM, 0, "Open");
    const mouthNode = `${id}~`;
    file.reservoir(mouthNode, constant + tankPa);
    return file.pipe(from, mouthNode, lengthM, 0, "CV");
  },
};
