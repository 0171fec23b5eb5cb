import { burning, type ConsumerBase, consumerFields, enginePorts, enginePortsOf } from "./consumer";
import type { Kind } from "./kind";

export interface GeneratorPart extends ConsumerBase {
  kind: "generator";
}

export const generator: Kind<GeneratorPart> = {
  ...burning,
  title: "Generator",
  fields: consumerFields(
    {
      powerW: 8000,
      loads: [
        [0, 25, 0.7],
        [1, 30, 3],
      ],
    },
    true,
  ),
  ports: enginePortsOf,
  blankPorts: enginePorts,
};
