/** Findings as sentences: what is wrong, the number behind it, why it matters, what to do, and on what basis. */
import type { Finding } from "~/core/findings/types";
import { formatQuantity, type UnitChoice } from "~/core/units/format";

export interface FindingText {
  title: string;
  detail: string;
  why: string;
  mend: string;
  basis: string;
}

const hours = (h: number) => {
  const whole = Math.floor(h);
  const minutes = Math.round((h - whole) * 60);
  return whole > 0 ? `${whole} h ${minutes} min` : `${minutes} min`;
};

const schools: Record<string, string> = {
  abycH33: "ABYC H-33 school",
  iso10088: "ISO 10088 school",
  awayFromPickup: "school: return away from the pickup",
};

const bases: Record<Finding["basis"], string> = {
  standard: "published standard",
  maker: "maker's figure",
  common: "common practice",
};

export function findingText(finding: Finding, units: UnitChoice, name: (id: string) => string): FindingText {
  const { values, rule } = finding;
  const text = (key: string) => String(values[key] ?? "");
  const number = (key: string) => Number(values[key] ?? 0);
  const flow = (key: string) => formatQuantity("flow", number(key), units.flow);
  const pressure = (key: string) => formatQuantity("pressure", number(key), units.pressure);
  const volume = (key: string) => formatQuantity("volume", number(key), units.volume);
  const length = (key: string) => formatQuantity("length", number(key), units.length);
  const basis = [bases[finding.basis], finding.school && schools[finding.school]].filter(Boolean).join(", ");
  const worst = () =>
    values.worstId ? `${name(text("worstId"))} takes ${Math.round(number("worstShare") * 100)} % of it.` : "";
  switch (rule) {
    case "returnElsewhere":
      return {
        title: `${text("lineUp")} returns to ${text("to")}`,
        detail: `${text("to")} gains ${flow("flowM3S")} and overflows after ${hours(number("fullHours"))}; ${text("from")} is empty after ${hours(number("emptyHours"))}.`,
        why: "Fuel taken from one tank and put back in another overfills it through its vent, and starves the engine from the first.",
        mend: `Set the return to ${text("from")} in this line-up, or mark it as an intended transfer.`,
        basis,
      };
    case "returnCanClose":
      return number("oneMove") === 1
        ? {
            title: `${text("valve")}: one movement shuts the return`,
            detail: "One handle shut closes the return with the engine running.",
            why: "A shut return lifts the pressure in the injection system's return until something gives.",
            mend: "Use a valve without a shut position, or place the handle so that it cannot be left shut.",
            basis,
          }
        : {
            title: `${text("lineUp")}: the return is shut`,
            detail: "No open way from the engine's return to any tank.",
            why: "A shut return lifts the pressure in the injection system's return until something gives.",
            mend: "Open a way from the return to a tank before the engine runs.",
            basis,
          };
    case "noOpenPath":
      return {
        title: `${text("lineUp")}: no way from a tank to ${text("consumer")}`,
        detail: "Every way is shut, uncovered or missing.",
        why: "The engine stops, and a pump that fuel lubricates runs dry.",
        mend: "Open the valves of one tank, or connect what is missing.",
        basis,
      };
    case "deadHead":
      return {
        title: `${text("pump")} pumps against a shut way`,
        detail: `It stands at ${pressure("deadHeadPa")} without a relief.`,
        why: "A pump without relief heats the fuel in it and loads every joint after it.",
        mend: "Open a way for it, switch it off in this line-up, or give it a relief.",
        basis,
      };
    case "againstArrow":
      return {
        title: `${text("part") || name(finding.ids[0] ?? "")} stands against the flow`,
        detail: `Its arrow points the other way in ${text("lineUp")}.`,
        why: "A check valve or pump the wrong way round lets nothing through; a filter filters from the wrong side.",
        mend: "Turn the part end for end.",
        basis,
      };
    case "starved":
      return {
        title: `${text("lineUp")}: ${text("consumer")} is starved`,
        detail:
          values.mostM3S === null
            ? "Fuel would boil on the way."
            : `Asks ${flow("feedM3S")}, can have ${flow("mostM3S")}: ${text("cause") === "vapour" ? "the fuel would boil" : "the pump cannot draw more"} at ${name(finding.ids[1] ?? "")}.`,
        why: "What the line cannot bring, the engine does not get; vapour and air stop it first under load.",
        mend: "A larger bore, a cleaner or larger filter, a lower lift, or a pump nearer to the tank.",
        basis,
      };
    case "noShutOff":
      return {
        title: `${text("tank")} drains ${volume("lostM3")} if its line is cut`,
        detail:
          values.shutOffAtM === null
            ? "No shut-off on its line."
            : `The first shut-off is ${length("shutOffAtM")} of hose away.`,
        why: "A line that is cut or comes off empties the tank into the bilge by its own weight.",
        mend: "A shut-off valve on the tank itself, reachable.",
        basis,
      };
    case "filterTooSmall":
      return {
        title: `${text("filter")} passes ${flow("flowM3S")}, rated ${flow("ratedFlowM3S")}`,
        detail: "The whole feed passes the filter, not the burn alone.",
        why: "Above its rating a separator lets water through and its drop grows out of proportion.",
        mend: "A larger element, two in parallel, or less flow in this line-up.",
        basis,
      };
    case "suctionOverLimit":
      return {
        title: `${text("pump")}: ${pressure("vacuumPa")} of vacuum, limit ${pressure("limitPa")}`,
        detail: `In ${text("lineUp")}. ${worst()}`,
        why: "Beyond the limit the pump loses flow, air comes out of the fuel and the engine hunts or stops.",
        mend: "Change the element, or a larger bore where most is lost.",
        basis,
      };
    case "suctionClean":
      return {
        title: `${text("pump")}: ${pressure("vacuumPa")} with clean filters, ${pressure("limitPa")} is wanted`,
        detail: `In ${text("lineUp")}. ${worst()}`,
        why: "What a clean system takes leaves no room for a filter to load before the limit.",
        mend: "A larger bore where most is lost, or a larger filter.",
        basis,
      };
    case "freeAir":
      return {
        title: `Bubbles likely: ${(number("freeAir") * 100).toFixed(1)} % free air at ${text("pump")}`,
        detail: `In ${text("lineUp")}, at ${pressure("vacuumPa")} of vacuum.`,
        why: "Air that the fuel held comes out under vacuum; above about 1 % it shows in a clear line.",
        mend: "Less vacuum: a cleaner filter, a larger bore, less lift.",
        basis,
      };
    case "returnNearPickup":
      return {
        title: `${text("tank")}: return ${length("apartM")} from the pickup`,
        detail: `${length("leastM")} apart is wanted.`,
        why: "Hot, foaming return fuel goes straight back into the pickup.",
        mend: "Move the return mouth away, or lead it into a swirl pot.",
        basis,
      };
    case "feedsJoined":
      return {
        title: `${text("lineUp")} joins ${text("tanks")}`,
        detail: `${number("crossM3S") > 0 ? `${flow("crossM3S")} crosses over now. ` : ""}No check valve or selector parts them.`,
        why: "The fuller tank runs into the lower one, and a tank that empties lets air into both.",
        mend: "One tank at a time, or a check valve in each feed.",
        basis,
      };
  }
}
