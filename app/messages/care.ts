/** Care in words: what the trend says, whether a reading fits the plan, what the jar said. */
import type { CureWay, TankCure } from "~/core/care/cure";
import type { Due } from "~/core/care/due";
import type { GaugeTrend } from "~/core/care/gaugeTrend";
import { dayOf } from "~/core/care/gaugeTrend";
import { type IncomingFault, MOST_COLUMNS } from "~/core/care/incoming";
import type { Fit, Instrument } from "~/core/care/instruments";
import type { JarSign, JarVerdict } from "~/core/care/jar";
import type { PolishSample } from "~/core/care/polishProgress";
import type { Season } from "~/core/care/seasons";
import { COARSE_M, FINE_M, type Treatment } from "~/core/care/treatments";
import type { Id } from "~/core/kinds/record";
import type { Job } from "~/core/plan/types";
import { HOUR_S } from "~/core/units/factors";
import { formatNumber, percentText } from "~/core/units/format";
import type { Trade } from "~/core/units/trade";
import { minutesText } from "./service";
import { dayText } from "./when";

/** A place on the trend's axis: a day, or engine hours. */
export function whenText(trend: GaugeTrend, x: number): string {
  const day = dayOf(trend, x);
  return day ? dayText(day) : `${formatNumber(Math.round(x))} ${trend.by === "litres" ? "L" : "h"}`;
}

/** Farther ahead than this the readings say nothing yet. */
const FAR_DAYS = 3650;
const FAR_HOURS = 20_000;
const isFar = ({ by, points }: GaugeTrend, x: number): boolean =>
  x - (points.at(-1)?.x ?? 0) > (by === "days" ? FAR_DAYS : FAR_HOURS);

/** Where the filter stands, between when it will be due, and by when to act. */
export function trendText(trend: GaugeTrend, vacuum: (pa: number) => string): string {
  const { filter, points, weighed, target, lastPa, limitPa } = trend;
  const last = points.at(-1);
  const stands = `${filter.name}: ${vacuum(lastPa)} read, ${vacuum(limitPa)} is its limit`;
  if (lastPa >= limitPa) return `${stands}: change it now.`;
  if (!weighed) return `${stands}: three readings on different days tell when it is due.`;
  const { earliest, latest, due } = weighed;
  if (earliest === null || isFar(trend, earliest))
    return `${stands}; it does not grow enough to say when it is due.`;
  if ((last?.loading ?? 0) >= target) return `${stands}: change it.`;
  const end = latest === null || isFar(trend, latest) ? "an open date" : whenText(trend, latest);
  const middle = due === null || isFar(trend, due) ? "" : `, about ${whenText(trend, due)}`;
  return `${stands}; due between ${whenText(trend, earliest)} and ${end}${middle}. Act by ${whenText(trend, earliest)}.`;
}

/** What a jar says, and what to do next. */
export const jarVerdicts: Record<JarVerdict, { name: string; next: string }> = {
  clean: {
    name: "Clean",
    next: "Keep the tank full against condensation; sample again before a long passage, and twice a year.",
  },
  waitAndLook: {
    name: "Hazy: wait and look again",
    next: "Let the jar stand a day in a quiet, cool place. Haze that settles is water; haze that stays is an emulsion.",
  },
  stripAndPolish: {
    name: "Settles clear: strip, then polish",
    next: "Draw the water off at the lowest point, then polish: about 10 turnovers as a first figure, looking at the jar between.",
  },
  emulsion: {
    name: "Haze that stays: an emulsion",
    next: "Do not polish for ever: it goes round with the fuel. Settle long, treat, or discard by its legal way.",
  },
  growth: {
    name: "Growth",
    next: "Biocide by the maker's dose, gloves on; clean the tank by hand through its opening; then polish, with filters standing by.",
  },
};

/** Whether a reading is what the plan computes, within what the gauge can tell. */
export function fitText(quantity: Instrument["quantity"], { off, fits }: Fit, say: Trade): string {
  if (fits) return "as it should be";
  const size = Math.abs(off);
  return `${quantity === "temperature" ? say.warmer(size) : readText(quantity, size, say)} ${off > 0 ? "more" : "less"} than the plan computes: look for the cause`;
}

/** What an instrument tells. */
export const instrumentText = (quantity: Instrument["quantity"]): string =>
  ({ vacuum: "vacuum", pressure: "pressure", flow: "flow", level: "aboard", temperature: "temperature" })[
    quantity
  ];

/** A figure as its instrument shows it. */
export function readText(quantity: Instrument["quantity"], si: number, say: Trade): string {
  if (quantity === "vacuum") return say.vacuum(si);
  if (quantity === "pressure") return say.gauge(si);
  if (quantity === "temperature") return say.temperature(si);
  return quantity === "flow" ? say.flow(si) : say.volume(si);
}

/** What is due, as a calendar and a list say it. */
export function dueText(
  { kind, ofId, name, every }: Pick<Due, "kind" | "ofId" | "name" | "every">,
  nameOf: (id: Id) => string,
): string {
  switch (kind) {
    case "elementYear":
      return `${nameOf(ofId)}: element, ${everyText(every)}`;
    case "bowl":
      return `${nameOf(ofId)}: bowl drained into a jar, looked at`;
    case "joints":
      return "Every joint, clamp and clip looked at";
    case "own":
      return name ?? "Service";
    case "elementTrend":
      return `${nameOf(ofId)}: element, by its readings`;
    case "sample":
      return `${nameOf(ofId)}: sample from the lowest point`;
  }
}

/** How often: 'every 6 months or 250 h'. */
export function everyText({ months, hours }: Due["every"]): string {
  const parts = [
    months === undefined
      ? null
      : months === 12
        ? "yearly"
        : months === 1
          ? "monthly"
          : `every ${formatNumber(months)} months`,
    hours === undefined ? null : `every ${formatNumber(hours)} h`,
  ].filter((part) => part !== null);
  return parts.length === 0 ? "by its readings" : parts.join(", or ");
}

/** Why, and what to mind, in the step itself. */
export function dueDetail({ kind, last, every, atH, curingDays }: Due): string {
  const basis =
    every.basis === "common" ? "common practice" : every.basis === "maker" ? "by its maker" : "by this shop";
  const counter = atH === undefined ? "" : ` At ${formatNumber(Math.round(atH))} h of the engine's counter.`;
  const said = everyText(every);
  const how = `${said.charAt(0).toUpperCase()}${said.slice(1)}, ${basis}.${counter}`;
  const since = last === null ? "" : ` Last ${dayText(new Date(`${last}T00:00:00Z`))}.`;
  switch (kind) {
    case "elementYear":
      return `${how} The maker's interval goes first. Engine stopped, fuel shut, pan under it, eyes covered.${since}`;
    case "bowl":
      return `${how} Engine stopped, vent open, cup under it, face to the side; no flame.${since}`;
    case "joints":
      return `${how} Dry cloth, pump on, no flame; a joint under vacuum shows no drop.${since}`;
    case "own":
      return `${how}${since}`;
    case "elementTrend":
      return `The earliest date by its vacuum readings. Engine stopped, fuel shut, pan under it, eyes covered.${since}`;
    case "sample":
      if (curingDays !== undefined)
        return `Within ${curingDays} days of a jar that was not clean, until two in a row are: common practice. No flame; the jar away from the face.${since}`;
      return `${how} And before a long passage: common practice. No flame; the jar away from the face.${since}`;
  }
}

/** The day, or what is missing to know it. */
export const dueWhen = ({ on, kind }: Pick<Due, "on" | "kind">): string =>
  on !== null
    ? dayText(new Date(`${on}T00:00:00Z`))
    : kind === "sample"
      ? "never sampled: now"
      : kind === "elementYear"
        ? "not known when it was fitted: enter it in Lay out"
        : "never noted: now";

/** Days of a job for a calendar; what has no date is left out. */
export const calendarDays = (
  job: Pick<Job, "id" | "name">,
  due: readonly Due[],
  nameOf: (id: Id) => string,
) =>
  due.flatMap((one) =>
    one.on === null
      ? []
      : [
          {
            uid: `${job.id}-${one.id.replace(/[^A-Za-z0-9]/g, "-")}@iron-keel`,
            on: one.on,
            summary: `${job.name}: ${dueText(one, nameOf)}`,
            description: dueDetail(one),
          },
        ],
  );

/** What is wrong with a source of readings, with its row. */
export function incomingFaultText({ row, code, what }: IncomingFault): string {
  const at = row > 0 ? `Row ${row}: ` : "";
  switch (code) {
    case "noRows":
      return "There is no reading in it.";
    case "tooManyRows":
      return `${at}more rows than a log bears: at most 50,000. Cut it into parts.`;
    case "tooManyColumns":
      return `It has ${what} columns, more than the ${MOST_COLUMNS} that are read. Keep the time and what was measured.`;
    case "badTime":
      return `${at}'${what}' is no time. Wanted is one like 2026-05-03T09:30:00Z.`;
    case "future":
      return `${at}${what} has not come yet: look at the clock.`;
    case "twice":
      return `${at}${what} is read twice at one time.`;
    case "gone":
      return `${at}${what} is of an instrument that this plan has no more.`;
    case "notNumber":
      return `${at}'${what}' is no figure of it.`;
    case "halfWritten":
      return `${at}it ends half way: '${what}'.`;
    case "noTimeColumn":
      return "No column is chosen as the time.";
    case "noColumn":
      return "No column is chosen for an instrument.";
    case "jump":
      return `${at}${what} jumps more than fortyfold: another unit, or another instrument.`;
  }
}

export const seasonNames: Record<Season["name"], string> = { cold: "Cold", mild: "Between", warm: "Warm" };

/** A sample of a polish against its course. */
export function polishedText({ computed, isSlow, share }: PolishSample): string {
  if (computed === null) return "no polishing line-up draws from it, or it is over";
  if (share === 1) return "the first: others are held against it";
  return isSlow
    ? `slower than its course (${percentText(computed)}): a part stands still, or more comes in`
    : `as its course has it (${percentText(computed)})`;
}

/** Media and drops are told in micron in every job. */
const micron = (m: number): string => formatNumber(m * 1e6, 3);

/** What a treatment is, and what it does not do. */
export const treatmentTexts: Record<Treatment["kind"], { name: string; but: string }> = {
  strip: {
    name: "Strip",
    but: "Takes what has settled under the lowest mouth; what floats stays. Into closed cans, earthed.",
  },
  settle: {
    name: "Settle",
    but: `Drops of ${micron(COARSE_M)} to ${micron(FINE_M)} µm to the bottom, the vessel still; an emulsion and growth do not settle.`,
  },
  polish: {
    name: "Polish",
    but: "Water in solution and an emulsion go round with it. The line looks clean long before the tank: sample the bottom before it is called done.",
  },
  treat: {
    name: "Treat",
    but: "Kills growth; what is dead blocks filters: have elements in hand. By the maker's dose and time, gloves and goggles on.",
  },
  discard: {
    name: "Discard",
    but: "Waste fuel goes its legal way; the tank is wiped before it is filled again.",
  },
};

/** Longer than this is told in days. */
const DAYS_FROM_H = 48;
const DAY_H = 24;
const hoursText = (h: number): string =>
  h < DAYS_FROM_H ? minutesText(h * HOUR_S) : `${formatNumber(h / DAY_H, 2)} days`;

/** From the kindest case to the worst that is reckoned with. */
export function treatmentHoursText({ kind, hours: [least, most] }: Treatment): string {
  if (kind === "treat") return "by the maker";
  if (least === null)
    return kind === "settle" ? "water does not sink in it" : "no polishing line-up draws from it";
  if (most === null) return `${hoursText(least)}, or never where a part stands still`;
  const [from, to] = [hoursText(least), hoursText(most)];
  return from === to ? from : `${from} to ${to}`;
}

/** What is in hand for a way to clean fuel, and what it is not good for. */
export const cureNeeds: Record<CureWay, string> = {
  strip: "A hand pump with a tube to the lowest point, a can; until clear fuel comes.",
  settle: "A day at rest; then look at the jar again.",
  polish: "A pump, a separator and a fine filter, spare elements; it does not lift what sticks to the floor.",
  wipe: "The plate open, the tank empty and aired, lint-free rags counted in and out; nobody's head in the opening.",
  biocide: "The dose by its maker, gloves and eyes covered; spare elements for what it kills.",
  trial:
    "A few litres in a clear can with what is to part them, a day at rest, before the whole is given up.",
  discard: "Closed cans and a licensed taker; refill with clean fuel.",
};

const signTexts: Record<JarSign, string> = {
  growth: "growth",
  emulsion: "an emulsion",
  water: "free water",
  haze: "haze",
};
const cureTitles: Record<CureWay, string> = {
  strip: "strip the lowest point until clear fuel comes, then polish",
  settle: "let it stand a day and look again",
  polish: "polish",
  wipe: "drain it, open the plate and wipe it by hand, then polish",
  biocide: "biocide by its maker, then polish with spare elements at hand",
  trial: "try a few litres in a can; discard all of it if it does not part in a day",
  discard: "discard all of it to a licensed taker",
};

/** What the last jar shows and the way that is recommended for it; null where it shows nothing. */
export function cureText({ signs, recommended, nextSampleDays }: TankCure): string | null {
  if (recommended === null) return null;
  const shown = signs.map((sign) => signTexts[sign]).join(" and ");
  return `The last jar shows ${shown}. Recommended: ${cureTitles[recommended]}. Take the next jar within ${nextSampleDays} days; it is done when two in a row are clear.`;
}
