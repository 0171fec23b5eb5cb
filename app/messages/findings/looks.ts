/** Sentences for what a person must look at. */
import { tankLooks } from "~/core/findings/looks/notLookedAt";
import { counted } from "../counted";
import { fieldLabel } from "../kinds";
import type { Sentences } from "./say";

const ofTank: Record<(typeof tankLooks)[number], string> = {
  seams: "its seams",
  feet: "its feet and straps",
  fittings: "its fittings",
  drains: "what it stands on",
  testHeld: "whether its test held",
  hasDip: "whether the vent line has a dip",
  hasArrester: "a flame arrester in the vent",
  doubleClamped: "two clamps at each end of the fill hose",
};
const isOfTank = (look: string): look is keyof typeof ofTank => look in ofTank;

export const looks: Sentences<"notLookedAt"> = {
  notLookedAt: (v) => {
    const named = v.looks
      .split(" ")
      .map((look) =>
        v.of === "tank" ? (isOfTank(look) ? ofTank[look] : look) : fieldLabel(v.of, look).toLowerCase(),
      );
    return [
      `${v.part}: ${counted(v.count, "thing")} not looked at yet`,
      `Not looked at: ${named.join("; ")}.`,
      "What nobody has looked at is neither right nor wrong, and is not handed over as right.",
      "Look, and enter yes or no.",
    ];
  },
};
