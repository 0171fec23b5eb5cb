import { burning, type ConsumerBase, consumerFields, enginePorts, enginePortsOf } from "./consumer";
import type { Kind } from "./kind";

export interface EnginePart extends ConsumerBase {
  kind: "engine";
}

export const engine: Kind<EnginePart> = {
  ...burning,
  title: "Engine",
  fields: consumerFields(
    {
      powerW: 60000,
      loads: [
        [0, 40, 2],
        [1, 80, 16],
      ],
    },
    true,
  ),
  ports: enginePortsOf,
  blankPorts: enginePorts,
};
