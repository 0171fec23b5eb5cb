/** What may be wrong, in words: groups, looks, symptoms, visits. No joint is named out of a group. */

import type { FaultKind } from "~/core/book/entries";
import type { CareOutcome, ReadState, Visit } from "~/core/care/diagnose";
import type { Look, Symptom } from "~/core/care/looks";
import type { PlainVisit } from "~/core/care/visits";

type NameOf = (id: string) => string;

/** A group as it is told: what, and the stretch or the one part of it. */
export function groupText(
  { kind, ids }: { kind: FaultKind; ids: readonly string[] },
  nameOf: NameOf,
): string {
  const names = [...new Set(ids.map(nameOf))];
  const [first = "a place", second] = names;
  const stretch =
    names.length < 2
      ? `at ${first}`
      : names.length === 2
        ? `at ${first}, or ${second}`
        : `somewhere from ${first} on to ${names.at(-1)}`;
  switch (kind) {
    case "restricted":
    case "pickupBlocked":
      return `Something narrow ${stretch}`;
    case "filterLoaded":
      return `${first} is loaded`;
    case "wayShut":
      return `A way is shut ${stretch}`;
    case "ventBlocked":
      return `The vent of ${first} is blocked`;
    case "weakPump":
      return `${first} is weak`;
    case "airLeak":
      return `Air comes in ${stretch}`;
    case "airAtPickup":
      return `Air at the pickup of ${first}: its mouth is clear, or the tube is holed`;
    case "returnRestricted":
      return `The return is narrow ${stretch}`;
    case "waxing":
      return "The fuel waxes";
    case "wrongLineUp":
      return `The valves stand as in ${first}`;
  }
}

/** What is done where it is found; then it is read again. */
export const mendTexts: Record<FaultKind, string> = {
  restricted: "Take the hose off at one end and look: a kink, a collapsed lining, a valve half shut.",
  pickupBlocked:
    "Blow back gently with the cap off, or lift the pickup out; never petrol, and no more than the tank bears.",
  filterLoaded: "Change the element; look at what it holds before it goes into the waste.",
  wayShut: "Set the valve as the card has it; look at the arrow of a check or pump.",
  ventBlocked:
    "Clear the vent: wasps, paint, a dip full of fuel. Run with the cap off meanwhile only at rest.",
  weakPump: "Volts at the pump under load first, then its strainer, then the pump.",
  airLeak:
    "Joint by joint along the stretch: wipe dry, wet with fuel or soap, listen; a bowl seal and a drain come first.",
  airAtPickup:
    "Dip the tank; fill it or change over. A mouth that is covered and still draws air has a holed tube.",
  returnRestricted: "Open the return; look for a kink and a valve that is half shut. Never run with it shut.",
  waxing:
    "Warm the tank and the filter, winter fuel or its additive by the maker's dose; no petrol in diesel.",
  wrongLineUp: "Set every handle by the card.",
};

export const outcomeTexts: Record<CareOutcome, string> = {
  nothingShows: "Nothing shows: what was read is what the plan says",
  found: "Likely found",
  open: "Not told yet: one more reading parts them",
  badReading: "One reading does not fit the others",
};

/** Words for a share; no figure under four in five. */
export const shareText = (share: number): string =>
  share >= 0.95
    ? "nearly certain"
    : share >= 0.8
      ? "likely"
      : share >= 0.35
        ? "one of two or three"
        : "possible";

export const stateTexts: Record<ReadState, string> = {
  full: "at full load",
  idle: "at idle",
  stopped: "all stopped, pumps off",
  capOff: "at full load, the tank's cap off",
};

export const lookTexts: Record<Look, string> = {
  bubbles: "Bubbles in a clear line",
  puddle: "A puddle overnight",
  handlesRight: "Every handle as the card has it",
  mouthClear: "The dip says that the mouth is clear of fuel",
  hissAtCap: "Air hisses in as the cap is opened",
};

export const symptomTexts: Record<Symptom, string> = {
  losesPowerAtFull: "Loses power at full load",
  diesOnSlope: "Dies on a slope with little aboard",
  cranksLong: "Starts only after long cranking",
  risesWithSpeed: "The gauge rises with speed",
  worseInCold: "Worse in the cold",
  betterWithCapOff: "Better with the tank's cap off",
  dead: "Does not run at all",
};

/** What a visit is: one sentence. */
export function visitText(visit: PlainVisit | Visit, portName: NameOf): string {
  if (visit.kind === "state") return `Read every gauge ${stateTexts[visit.state ?? "full"]}`;
  if (visit.kind === "gauge") return `Put a gauge in at ${portName(visit.port ?? "")}, full load`;
  const at = visit.port ? ` at ${portName(visit.port)}` : "";
  return `Look: ${lookTexts[visit.look ?? "bubbles"].toLowerCase()}${at}`;
}
