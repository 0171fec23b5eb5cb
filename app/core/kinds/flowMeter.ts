import type { Kind } from "./kind";
import { type RatedDrop, ratedFields, ratedInLine } from "./rated";

/** Tells what passes it. */
export interface FlowMeter extends RatedDrop {
  kind: "flowMeter";
}

const { ratedFlowM3S, ratedDropPa } = ratedFields(4000);

export const flowMeter: Kind<FlowMeter> = {
  ...ratedInLine,
  title: "Flow meter",
  fields: { ratedFlowM3S: { ...ratedFlowM3S, tells: true }, ratedDropPa },
  links: (part) => [{ kind: "rated", id: part.id, from: "in", to: "out", part }],
};
