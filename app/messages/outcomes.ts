import type { Shortage } from "~/core/hydraulics/starving";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import type { UnitChoice } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";

const boils: Record<Shortage, string> = {
  vapour: "fuel boils on the way",
  pumpSuction: "the pump cannot draw",
  pumpCapacity: "the pump cannot give so much",
  pumpRise: "the pump cannot lift so high",
  air: "air is drawn in",
};

/** One line for what a line-up does. */
export function outcomeText({ result, lineUp }: LineUpVerdict, units: UnitChoice): string {
  switch (result.outcome) {
    case "notConverged":
    case "notFinite":
      return "no solution found";
    case "boils":
      return boils[result.cause];
    case "badConditions":
      return "outside the fuel's known range";
    case "solved": {
      const outcomes = [...result.consumers.values()].filter(({ outcome }) => outcome !== "stopped");
      const worst = outcomes.find(({ outcome }) => outcome !== "fed") ?? outcomes[0];
      if (!worst && lineUp.purpose === "run") return "nothing runs";
      if (!worst) return result.flow.some((q) => q !== 0) ? "flows" : "nothing flows";
      switch (worst.outcome) {
        case "fed":
          return `fed ${tradeIn(units).flow(worst.feedM3S)}`;
        case "air":
          return `draws air beyond ${tradeIn(units).flow(worst.mostM3S)}`;
        case "starved":
          return `starved: at most ${tradeIn(units).flow(worst.mostM3S)}`;
        case "noPath":
          return worst.side === "feed" ? "no way from a tank" : "return shut";
        case "stopped":
          return "nothing runs";
      }
    }
  }
}

export const placeNames = {
  survey: "Survey",
  layout: "Lay out",
  prove: "Prove",
  fit: "Fit",
  parts: "Parts",
  install: "Install",
  bleed: "Bleed",
  care: "Care",
} as const;
