import { genericCircuit } from "./circuit";
import { burning, type ConsumerBase, consumerFields, feed } from "./consumer";
import { HEATER_BORE_M } from "./dosingPump";
import type { Kind } from "./kind";

export interface HeaterPart extends ConsumerBase {
  kind: "heater";
}

export const heater: Kind<HeaterPart> = {
  ...burning,
  title: "Heater",
  boreM: HEATER_BORE_M,
  fields: consumerFields(
    {
      powerW: 4000,
      loads: [
        [0, 0.13, 0.13],
        [1, 0.5, 0.5],
      ],
      circuit: { ...genericCircuit(), runA: 3.5, peakA: 12, fuseA: 15, wireAreaM2: 4e-6 },
      heater: {
        exhaustBendDeg: 90,
        clearanceM: 0.1,
      },
    },
    false,
  ),
  ports: () => [feed],
  body: { widthM: 0.32, heightM: 0.14, depthM: 0.13, massKg: 3, room: [{ use: "driver", clearM: 0.1 }] },
  end: "hose",
};
