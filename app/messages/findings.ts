/** Findings as sentences: what is wrong, the number behind it, why it matters, what to do, and on what basis. */
import type { Finding } from "~/core/findings/types";
import type { SchoolMatter } from "~/core/plan/types";
import { formatNumber, formatQuantity, type UnitChoice } from "~/core/units/format";

import { planFindingWords } from "./planFindings";
import { schoolTexts } from "./schools";

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

/** `matter:choice` of a divided practice, or one of the standards' own names. */
function schoolText(school: string): string {
  const [matter, choice] = school.split(":") as [SchoolMatter, string];
  return choice === undefined
    ? (schools[school] ?? school)
    : `school: ${schoolTexts[matter].choices[choice] ?? choice}`;
}

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
  const basis = [bases[finding.basis], finding.school && schoolText(finding.school)]
    .filter(Boolean)
    .join(", ");
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
        detail:
          number("boxed") === 1
            ? "No baffle stands between the two."
            : `${length("leastM")} apart is wanted.`,
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
    default: {
      const said = planFindingWords(rule, { text, number, flow, pressure, volume, length });
      if (!said) return surveyFindingText(finding, { text, number, pressure, volume, length, basis, name });
      const [title, detail, why, mend] = said;
      return { title, detail, why, mend, basis };
    }
  }
}

interface Words {
  text: (key: string) => string;
  number: (key: string) => number;
  pressure: (key: string) => string;
  volume: (key: string) => string;
  length: (key: string) => string;
  basis: string;
  name: (id: string) => string;
}

const holeUses: Record<string, string> = {
  sender: "sender's hole",
  pickup: "pickup's hole",
  return: "return's hole",
  vent: "vent's hole",
  spare: "spare hole",
  sampling: "sampling hole",
  sump: "sump's hole",
};

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

const feels: Record<string, string> = {
  stiff: "stiff",
  soft: "soft and swollen",
  oily: "oily to the hand",
  cracked: "cracked",
};

export function hoseReasonText(code: string, years: number | null, feel: string): string {
  switch (code) {
    case "noMarking":
      return "nothing legible is printed on it";
    case "noClass":
      return "no fire class is printed on it";
    case "noDate":
      return "no date can be read";
    case "notFireTested":
      return "not fire tested, in an engine room";
    case "notLowPermeation":
      return "not of the low-permeation class that petrol needs";
    case "old":
    case "nearlyOld":
      return `${formatNumber(years ?? 0, 2)} years old`;
    case "feels":
      return feels[feel] ?? feel;
    case "boreDiffers":
      return "another bore is printed on it than the plan has";
    default:
      return code;
  }
}

const meansText: Record<string, string> = {
  hands: "one pair of hands",
  twoPeople: "two people",
  cradleAndJack: "a cradle and jack",
};

/** Findings of what was found on board: tanks and hoses. */
function surveyFindingText(finding: Finding, words: Words): FindingText {
  const { text, number, volume, length, basis, name } = words;
  const tank = text("tank");
  switch (finding.rule) {
    case "tankCapacity":
      return {
        title: `${tank} measures ${volume("measuredM3")}, its plate says ${volume("plateM3")}`,
        detail: "Further apart than plates are rounded.",
        why: "Levels, dip table and hours are computed from the measured shape: one wrong size moves them all.",
        mend: "Measure its sizes again, and say whether they were taken inside or outside.",
        basis,
      };
    case "returnHot":
      return {
        title: `${tank} reaches ${Math.round(number("hottestC"))} °C from its return`,
        detail: `Passes ${Math.round(number("limitC"))} °C after ${hours(number("hours"))} at full load on the hottest day.`,
        why:
          number("flash") === 1
            ? "Over the fuel's flash point the space above it is to be treated as petrol's."
            : "Hot fuel is thin: pumps lose flow, seals harden, and the engine loses power.",
        mend: "A cooler in the return, a larger tank to return to, or more fuel kept aboard.",
        basis,
      };
    case "plateHole":
      return { ...holeText(words), basis };
    case "noRoomAbove":
      return {
        title: `${tank}: no room to lift the ${text("use")} out`,
        detail: `${length("byM")} more is needed above the plate.`,
        why: "A sender or pickup that cannot be lifted out is never serviced.",
        mend: "Turn the plate, shorten or fold the part, or cut a hatch over it.",
        basis,
      };
    case "pickupClearance":
      return {
        title: `${tank}: pickup stands ${length("clearM")} over the floor`,
        detail: `A ${text("mouth")} mouth needs ${length("leastM")}.`,
        why: "Nearer than that the mouth throttles itself, or sits on the floor when the tank settles.",
        mend: "Shorten the tube, or bevel or notch its mouth. Measure with the tank hung as when full.",
        basis,
      };
    case "sumpHangs":
      return {
        title: `${tank}: sump ${length("clearM")} over the ground`,
        detail: `${volume("lostM3")} runs out if it is struck off; ${length("leastM")} is wanted.`,
        why: "A sump is the lowest thing on the vehicle and meets the kerb first.",
        mend: "A guard that takes the blow, or a shallower sump.",
        basis,
      };
    case "tankHeavy":
      return {
        title: `${tank} weighs ${Math.round(number("allKg"))} kg to drop`,
        detail: `${meansText[text("means")] ?? ""} is good for ${Math.round(number("mostKg"))} kg: drain ${volume("drainM3")} first.`,
        why: "A tank that slips crushes, spills, and tears the lines it still hangs on.",
        mend: "Drain it first, or use a cradle and jack. Never lie under a tank on straps alone.",
        basis,
      };
    case "ventLow":
      return { ...ventText(words), basis };
    case "standingWater":
      return {
        title: text("drains") === "foam" ? `${tank} stands on open foam` : `Water stands under ${tank}`,
        detail: "",
        why: "Metal that stays wet from below rots from outside in, where no one sees it.",
        mend: "A channel that drains, strips or closed-cell pads that really bear, checked by hand all round.",
        basis,
      };
    case "hoseFound": {
      const reasons = text("codes")
        .split(" ")
        .map((code) => hoseReasonText(code, number("years"), text("feel")));
      return {
        title: `Hose ${name(finding.ids[0] ?? "")}: ${finding.grade === "mend" ? "replace" : "watch"}`,
        detail: `${capital(reasons.join("; "))}.`,
        why: "Hose fails from inside and where it is clamped; its printing says what fire and fuel it was made for.",
        mend: "New hose of the class its place needs; write down what was fitted and when.",
        basis,
      };
    }
    case "cleaningTaken":
      return {
        title: `${tank}: a sender's adapter has taken the cleaning opening`,
        detail: "",
        why: "Growth and sludge are wiped out by hand through that opening.",
        mend: "A plate with both, or a second opening.",
        basis,
      };
    case "warningGone":
      return {
        title: `${tank}: nothing warns when it is full or low`,
        detail: "The whistle, sight glass or gauge it had is gone.",
        why: "Filling goes by the ear and the eye; what warned before must be replaced by something that warns.",
        mend: "Fit a whistle, a sight glass or a gauge, and say here which.",
        basis,
      };
    case "gaugeEmpty":
      return {
        title: `${tank}: ${volume("atEM3")} left when the gauge says E`,
        detail: "By shape and sender; not dipped yet.",
        why: "E is where the float stops, not where the fuel does: some run dry before it, some carry a reserve no one knows of.",
        mend: "Dip the tank when the gauge first shows E, and enter the depth.",
        basis,
      };
    default:
      throw new Error(`no words for ${finding.rule}`);
  }
}

function holeText({ text, length }: Words): Omit<FindingText, "basis"> {
  const at = `${text("tank")}, ${holeUses[text("use")] ?? "hole"}`;
  const by = length("byM");
  const why = "A flange seals only on sound, flat metal all round it.";
  switch (text("code")) {
    case "largerThanFlange":
      return {
        title: `${at}: ${by} larger than its flange covers`,
        detail: "",
        why,
        mend: "The next smaller saw, kept square; or a fitting with a wider flange.",
      };
    case "noSaw":
      return {
        title: `${at}: no saw cuts it`,
        detail: "No saw between its size and what the flange covers.",
        why,
        mend: "Choose a fitting whose hole a saw cuts.",
      };
    case "nearEdge":
      return {
        title: `${at}: ${by} too near the plate's edge`,
        detail: "",
        why,
        mend: "Move it in from the edge.",
      };
    case "nearHole":
      return {
        title: `${at}: ${by} of metal to the next hole`,
        detail: "The flanges would lie over each other.",
        why,
        mend: "Move them apart.",
      };
    case "nearBaffle":
      return {
        title: `${at}: ${by} too near a baffle`,
        detail: "",
        why,
        mend: "Move it clear of the baffle and its weld.",
      };
    default:
      return {
        title: `${at}: the float fouls by ${by}`,
        detail: "",
        why: "A float that touches sticks, and the gauge lies.",
        mend: "Turn the sender, or move its hole.",
      };
  }
}

function ventText({ text, pressure, length }: Words): Omit<FindingText, "basis"> {
  const tank = text("tank");
  switch (text("code")) {
    case "spillsFirst":
      return {
        title: `${tank}: the vent spills before the fill at heel`,
        detail: `Its top lies ${length("figure")} under the fill's lip at the worst of the envelope.`,
        why: "Fuel runs out of the vent, where no one looks.",
        mend: "Lead the vent's loop higher, or to the other side.",
      };
    case "dip":
      return {
        title: `${tank}: the vent line has a dip`,
        detail: "",
        why: "Fuel lies in it and shuts the air off.",
        mend: "A fall all the way back to the tank.",
      };
    case "brimPressure":
      return {
        title: `${tank}: ${pressure("figure")} at the bottom when filled to the lip`,
        detail: `${pressure("limit")} is the most at fill, 80 % of its rating.`,
        why: "A high fill pipe presses on the tank with all its height.",
        mend: "A lower fill, or a tank rated for it.",
      };
    case "noArrester":
      return {
        title: `${tank}: no flame arrester in the vent`,
        detail: "",
        why: "Petrol's vapour stands at the vent's end.",
        mend: "An arrester that can be cleaned. Licensed work where the law says so.",
      };
    default:
      return {
        title: `${tank}: ${text("code") === "ventBore" ? "vent" : text("code") === "fillHose" ? "fill hose" : "fill pipe"} ${length("figure")} inside, ${length("limit")} is the least`,
        detail: "",
        why: "Too narrow, it blows back when it is filled.",
        mend: "The next larger bore.",
      };
  }
}
