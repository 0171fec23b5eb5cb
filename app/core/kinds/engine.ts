import { burning, type ConsumerBase, consumerFields, enginePorts, feedAndReturn } from "./consumer";
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
  ports: () => feedAndReturn,
  blankPorts: enginePorts,
};
