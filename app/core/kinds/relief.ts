import type { Kind } from "./kind";
import { type OpensBy, oneWayInLine, opensBy, opensFields } from "./opening";

/** Opens at a pressure across it and lets the rated flow through at that plus the droop. */
export interface ReliefValve extends OpensBy {
  kind: "relief";
}

export const relief: Kind<ReliefValve> = {
  ...oneWayInLine,
  title: "Relief valve",
  fields: opensFields(50000, 5000),
  links: (part) => [{ kind: "check", id: part.id, from: "in", to: "out", part, ...opensBy(part) }],
};
