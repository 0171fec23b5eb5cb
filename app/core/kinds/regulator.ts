import { choice } from "./fields";
import type { Kind } from "./kind";
import { type OpensBy, oneWayInLine, opensBy, opensFields } from "./opening";

/** Holds the pressure before it (spills what is too much) or after it (throttles), over the pressure of the air. */
export interface Regulator extends OpensBy {
  kind: "regulator";
  holds: "before" | "after";
}

export const regulator: Kind<Regulator> = {
  ...oneWayInLine,
  title: "Pressure regulator",
  fields: { holds: choice(["before", "after"], { blank: "after" }), ...opensFields(30000, 2000) },
  links: (part) => {
    const way = { id: part.id, from: "in", to: "out", part };
    return part.holds === "before"
      ? [{ kind: "check", ...way, ...opensBy(part) }]
      : [{ kind: "throttle", ...way }];
  },
};
