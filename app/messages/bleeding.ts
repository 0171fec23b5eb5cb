/** Bleeding in words: what is opened, what is run, what is minded, why air stays. */

import type { Content } from "~/core/air/content";
import type { BleedJoint } from "~/core/air/joints";
import type { Dearest } from "~/core/air/practice";
import {
  KEY_CYCLE_S,
  LIFTED_M,
  type MoverKind,
  type ProcedureStep,
  secondsRange,
  type WhyNot,
  WIDE_QUARTERS,
} from "~/core/air/procedure";
import type { Scenario } from "~/core/air/scenario";
import { type AirRefusal, partOfMover } from "~/core/air/session";
import type { Id } from "~/core/kinds/record";
import type { tradeIn } from "~/core/units/trade";

type Trade = ReturnType<typeof tradeIn>;
type NameOf = (id: Id) => string;

const jointTexts: Record<BleedJoint["kind"], { what: string; turn: string }> = {
  lid: { what: "lid", turn: "half a turn" },
  headScrew: { what: "bleed screw", turn: "half a turn" },
  screw: { what: "", turn: "half a turn" },
  outlet: { what: "outlet joint", turn: "half a turn" },
  inlet: { what: "joint at the pump's inlet", turn: "half a turn" },
  crest: { what: "joint at the crest", turn: "half a turn" },
  feed: { what: "feed joint", turn: "half a turn" },
  deadEnd: { what: "joint at the end of the dead leg", turn: "half a turn" },
};

/** What is opened, without how far: 'Secondary, lid'. */
export function jointName({ kind, name }: Pick<BleedJoint, "kind" | "name">): string {
  const { what } = jointTexts[kind];
  return what === "" ? name : `${name}, ${what}`;
}

const listed = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? "") : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;

/** Seconds of a hand: from four fifths to a third more of the model's. */
export function secondsText(seconds: number): string {
  const [low, high] = [secondsRange.least * seconds, secondsRange.most * seconds];
  if (high < 90) return `${Math.max(1, Math.floor(low))} to ${Math.ceil(high)} s`;
  return `${Math.max(1, Math.round(low / 60))} to ${Math.ceil(high / 60)} min`;
}

const rangeOf = (count: number): string => {
  const [low, high] = [Math.floor(secondsRange.least * count), Math.ceil(secondsRange.most * count)];
  return low >= count && high <= count ? `${count}` : `${Math.max(1, low)} to ${high}`;
};

/** How it is moved: by itself, the key, the primer, a hand. */
export function movedText(
  step: Extract<ProcedureStep, { kind: "bleed" | "runOn" }>,
  nameOf: NameOf,
  trade: Trade,
): string {
  const name = step.by.id === null ? "" : nameOf(partOfMover(step.by.id));
  const { presses, strokes } = step;
  switch (step.by.kind) {
    case "gravity":
      return `runs by itself, ${secondsText(step.seconds)}`;
    case "lifted":
      return `${name}, or a clean can in its place with the feed hose in it, held ${trade.length(LIFTED_M)} higher, ${secondsText(step.seconds)}; never petrol`;
    case "bulb":
      return `${name}: ${rangeOf(strokes ?? 1)} squeezes`;
    case "lever":
      return `${name}, lever: ${rangeOf(strokes ?? 1)} strokes`;
    case "primer":
      return `${name} on, ${secondsText(step.seconds)}`;
    case "pump":
      return presses === null
        ? `${name} on, ${secondsText(step.seconds)}`
        : `key, ${rangeOf(presses)} presses of ${KEY_CYCLE_S} s: ${name}`;
  }
}

/** What is done in a step, in a line. */
export function stepTitle(step: ProcedureStep, nameOf: NameOf): string {
  switch (step.kind) {
    case "valves":
      return step.isBack
        ? `Put back as it was: ${listed(step.ids.map(nameOf))}`
        : step.actions.some((action) => action.do === "valve" && isShutting(action))
          ? `Shut for a moment: ${listed(step.ids.map(nameOf))}`
          : `Open meanwhile: ${listed(step.ids.map(nameOf))}`;
    case "fill":
      return `${step.isAgain ? "Top up" : "Fill by hand"}: ${listed(step.vessels.map(({ name }) => name))}`;
    case "runOn":
      if (step.through !== null)
        return step.isAgain
          ? `Let it stand, then once more until firm: nothing is opened`
          : `Prime ${nameOf(step.through)}: nothing is opened`;
      return step.isAgain ? "Run it on once more" : "Close everything and keep it running";
    case "bleed":
      return `${step.isAgain ? "Once more: " : ""}${jointName(step.joint)}, ${isWide(step) ? "a whole turn" : jointTexts[step.joint.kind].turn}`;
  }
}
/** Opened farther than at first: what clings to a slope wants more flow. */
const isWide = ({ actions, joint }: Extract<ProcedureStep, { kind: "bleed" }>): boolean =>
  actions.some(
    (action) => action.do === "open" && action.joint === joint.key && (action.quarters ?? 0) >= WIDE_QUARTERS,
  );
const isShutting = (action: { setting: { kind: string; position?: string } }): boolean =>
  action.setting.kind === "position" && action.setting.position === "shut";

/** How, and what must be minded: in the step itself. */
export function stepDetail(step: ProcedureStep, nameOf: NameOf, trade: Trade): string {
  switch (step.kind) {
    case "valves":
      return step.isBack
        ? "So that the line-up is as its card says."
        : "What stands behind it is then bled with the rest.";
    case "fill":
      return step.vessels
        .map(({ name, shutIds, isToInlet }) =>
          isToInlet
            ? `${name}: no valve shuts it off, so that it fills no higher than its inlet. Clean fuel, on the dirty side of the element.`
            : `${name}: ${shutIds.length > 0 ? `${listed(shutIds.map(nameOf))} shut first, ` : ""}lid off, to the brim, on the dirty side of the element.`,
        )
        .join(" ");
    case "runOn":
      return step.through === null
        ? `${movedText(step, nameOf, trade)}. The air goes on into the tank.`
        : `${movedText(step, nameOf, trade)}. ${closedText(step.by.kind, nameOf(step.through))}`;
    case "bleed":
      return `${meanwhile(step, nameOf)}${movedText(step, nameOf, trade)}${step.goes > 1 ? `, in ${step.goes} goes of ${Math.round(step.dryLimitS)} s with a minute's rest between them: it runs dry until fuel comes` : ""}, shut when it has run solid for 3 s. Eyes covered, face and hands away, pan under it.`;
  }
}

/** A handle that stands open for this joint alone. */
function meanwhile({ actions }: ProcedureStep, nameOf: NameOf): string {
  const ids = actions.flatMap((action) => (action.do === "valve" && !isShutting(action) ? [action.id] : []));
  return ids.length === 0 ? "" : `${listed(ids.map(nameOf))} open for this one, shut again after it. `;
}

/** How a line is primed with every joint closed, and what it means where it does not come firm. */
const closedText = (by: MoverKind, engine: string): string =>
  by === "bulb"
    ? `Open the tank's vent, hold the bulb with its outlet up, and squeeze until it is firm. ${engine} passes the rest as it is cranked. Not firm after that: look for a leak before the bulb, a stuck anti-siphon valve, or a check valve in the bulb that does not close.`
    : `Key on without starting, wait for the pump to stop, off, and again until its note changes; then crank ${engine}. Relieve the rail pressure by the maker's method before any joint is loosened.`;

/** Why air stays, and what would mend it. */
export function whyNotText(reason: WhyNot, nameOf: NameOf, trade: Trade): string {
  switch (reason.code) {
    case "noPath":
      return "Nothing leads from a tank to a consumer in this line-up.";
    case "underVacuum":
      return `${nameOf(reason.at)} stands ${trade.length(reason.overFuelM)} over the fuel and nothing pushes before it: a primer or a bulb before it, or a fuller tank, would bring fuel there.`;
    case "dryLift":
      return `${nameOf(partOfMover(reason.at))} would run dry for ${Math.ceil(reason.dryS)} s, ${reason.limitS} s at the most: fill what stands before it, or a primer.`;
    case "notSwept":
      return `${nameOf(reason.at)} keeps ${trade.pan(reason.airM3)}: fuel goes through it at ${trade.speed(reason.hadMS)}, and carries air down its slope from ${trade.speed(reason.needsMS)} on. A smaller bore, a line that rises all the way or a joint at its crest would clear it.`;
    case "headHolds":
      return `${nameOf(reason.at)} keeps ${trade.pan(reason.airM3)} under its lid.`;
    case "runsBack":
      return `${nameOf(reason.at)} keeps ${trade.pan(reason.airM3)}: no valve shuts it off from the tank, and what is poured in runs back. A valve before it would hold it.`;
    case "deadLeg":
      return `${nameOf(reason.at)} keeps ${trade.pan(reason.airM3)}: nothing flows there, and no joint of it can be opened.`;
    case "stays":
      return `${nameOf(reason.at)} keeps ${trade.pan(reason.airM3)} that has not come out.`;
  }
}

const refusals: Record<AirRefusal["code"], (at: string) => string> = {
  noJoint: (at) => `${at} is no joint of this plan`,
  noPump: (at) => `${at} is nothing that pumps`,
  noValve: (at) => `${at} is no valve, or has no such position`,
  noVessel: (at) => `${at} holds nothing that can be filled`,
  noTank: (at) => `${at} is no tank`,
  noConsumer: (at) => `${at} is no engine or heater`,
  lidShut: (at) => `the lid of ${at} is on: a whole turn takes it off`,
  stuck: () => "the model found no way on from here; what was done before stands",
};
export const airRefusalText = ({ code, at }: AirRefusal): string => refusals[code](at);

export function contentText(content: Content, nameOf: NameOf): string {
  switch (content.kind) {
    case "dry":
      return "from dry";
    case "ranDry":
      return "after running dry";
    case "filterChanged":
      return `${nameOf(content.partId)} changed`;
    case "opened":
      return `a joint of ${nameOf(content.joint.split(".")[0] as string)} was open`;
  }
}

/** What could be wrong with a line that is practised on. */
export function scenarioText(scenario: Scenario, nameOf: NameOf): string {
  const name = nameOf(scenario.partId);
  switch (scenario.kind) {
    case "suctionLeak":
      return `a joint at ${name} draws air`;
    case "shutValve":
      return `${name} is shut`;
    case "emptyFilter":
      return `${name} was put back dry`;
    case "lowTank":
      return `${name} is nearly empty`;
    case "turnedCheck":
      return `${name} is turned round`;
    case "bulbAgainstShut":
      return `${name} is shut behind the bulb`;
    case "doubledWasher":
      return `a washer is doubled at ${name}`;
    case "leaning":
      return `it leans, with ${name} a quarter full`;
  }
}

/** The act that cost most of a bleed that was practised. */
export function dearestText(dearest: Dearest, trade: Trade): string {
  const at = `${Math.floor(dearest.atS / 60)}:${String(Math.floor(dearest.atS % 60)).padStart(2, "0")}`;
  const act = `'${dearest.label}' at ${at}`;
  switch (dearest.code) {
    case "letAirIn":
      return `Dearest: after ${act} ${trade.pan(dearest.airM3)} of air came in.`;
    case "ranDry":
      return `Dearest: after ${act} a pump ran dry for ${dearest.seconds.toFixed(0)} s.`;
    case "spilled":
      return `Dearest: after ${act} ${trade.pan(dearest.panM3)} went into the pan.`;
  }
}

/** A share of air left, in words: two figures, and whole per cents from ten on. */
export function leftText(left: number): string {
  if (left < 0.0001) return "under 0.01 %";
  const percent = 100 * left;
  return `${percent >= 10 ? Math.round(percent) : percent.toPrecision(2)} %`;
}
