import { atLeastZero, positive, pressure, vacuum } from "./fields";
import { heldInLine, type Kind, port } from "./kind";
import type { PartBase } from "./record";

/**
 * Screwed to a tank in place of an open vent: lets air in under a vacuum and out over a pressure. While fuel is drawn
 * the air over it stands at that vacuum.
 */
export interface BreatherValve extends PartBase {
  kind: "breatherValve";
  opensInPa: number;
  opensOutPa: number;
}

export const breatherValve: Kind<BreatherValve> = {
  ...heldInLine,
  title: "Breather valve",
  families: ["breather"],
  hasArrow: false,
  fields: {
    opensInPa: vacuum("maker", atLeastZero, { blank: 700, isNeeded: true, tells: true }),
    opensOutPa: pressure("maker", positive, { blank: 7000, isNeeded: true }),
  },
  ports: () => [port("tank", "tank", "either")],
  through: () => null,
  links: () => [],
  body: { widthM: 0.05, heightM: 0.06, depthM: 0.05, massKg: 0.15, room: [] },
  end: "pipeThread",
};
