/** The hand-over as sections of lines and tables: what the owner is given, computed from the one plan and its book. */

import { bleedProcedure } from "~/core/air/procedure";
import { bleedTask } from "~/core/air/report";
import { boardsJudged } from "~/core/boards/board";
import { type Book, entriesOf } from "~/core/book/entries";
import { dueOf } from "~/core/care/due";
import { trendsOf } from "~/core/care/gaugeTrend";
import { judgeJar } from "~/core/care/jar";
import { findingsOf } from "~/core/findings/findings";
import { hoseName } from "~/core/hose/survey";
import { LineUpSolver } from "~/core/hydraulics/solve";
import { elementsOf, isPowered, isValve } from "~/core/kinds/families";
import { buildNetwork } from "~/core/network/network";
import { partLines } from "~/core/parts/partsList";
import { assumedFigures } from "~/core/plan/assumed";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { planChanges } from "~/core/service/planChanges";
import { capacityM3 } from "~/core/tanks/tank";
import { formatNumber } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";
import { planFigures } from "~/core/work/planFigures";
import { stepDetail, stepTitle } from "./bleeding";
import { dueText, dueWhen, jarVerdicts, readText } from "./care";
import { counted } from "./counted";
import { groupText } from "./diagnosis";
import { findingText } from "./findings";
import { detailText, partKindName } from "./kinds";
import { decayText } from "./leaks";
import { nameOf, provisionalOf } from "./notes";
import { minutesText, serviceStepTexts } from "./service";
import { settingText } from "./settingText";

export const handOverParts = [
  "system",
  "drawing",
  "lineUps",
  "findings",
  "assumed",
  "parts",
  "records",
  "changed",
  "due",
  "filter",
  "bleed",
  "trouble",
  "pictures",
] as const;
export type HandOverPart = (typeof handOverParts)[number];

export const handOverTitles: Record<HandOverPart, string> = {
  system: "The system",
  drawing: "The plan as built, drawn",
  lineUps: "Line-ups and valves",
  findings: "Findings that are left",
  assumed: "Assumed and never measured",
  parts: "Parts, elements and hoses",
  records: "Torques, leaks, bleeding and baselines",
  changed: "As found, and as built",
  due: "When it is touched again",
  filter: "How a filter is changed",
  bleed: "How it is bled",
  trouble: "When water or a leak is found",
  pictures: "Photographs",
};

export interface HandOverSection {
  part: HandOverPart;
  lines: string[];
  table?: { head: string[]; rows: string[][]; shares: number[] };
}

const day = (at: string): string => at.slice(0, 10);

/** The day of the baseline, else of the first reading kept: what later ones are held against. */
export const baselineDay = (book: Book): string | null => {
  const readings = entriesOf(book, "vacuum");
  const first = readings.find(({ isBaseline }) => isBaseline) ?? readings.at(0);
  return first ? day(first.at) : null;
};

/** @param wanted parts of it that are printed; @param today findings are judged on this day */
export function handOverSections(
  job: Job,
  book: Book,
  wanted: ReadonlySet<HandOverPart>,
  today: Date,
): HandOverSection[] {
  const make: Record<HandOverPart, () => HandOverSection> = {
    system: () => systemOf(job),
    drawing: () => ({
      part: "drawing",
      lines: [`${currentPlan(job).name}. Dashed: back to a tank. Thin: still.`],
    }),
    pictures: () => ({ part: "pictures", lines: [] }),
    lineUps: () => lineUpsOf(job),
    findings: () => findingsLeft(job, book, today),
    assumed: () => assumedOf(job),
    parts: () => partsOf(job),
    records: () => recordsOf(job, book),
    changed: () => changedOf(job, book, today),
    due: () => dueList(job, book),
    filter: () => filterOf(job),
    bleed: () => bleedOf(job),
    trouble: () => ({ part: "trouble", lines: TROUBLE }),
  };
  return handOverParts.filter((part) => wanted.has(part)).map((part) => make[part]());
}

function systemOf(job: Job): HandOverSection {
  const { volume } = tradeIn(job.units);
  const { vessel, engine, owner, fitter, signedBy, on } = job.handOver ?? {};
  const told = [
    ["Vessel or vehicle", vessel],
    ["Engine", engine],
    ["Owner", owner],
    ["Fitted by", fitter],
    ["Signed off by", signedBy],
    ["On", on],
  ].flatMap(([what, said]) => (said ? [`${what}: ${said}`] : []));
  return {
    part: "system",
    lines: [
      ...told,
      `Plan: ${currentPlan(job).name}.`,
      ...job.tanks.map((tank) => `${tank.name}: ${volume(capacityM3(tank))} when full.`),
      ...job.consumers.map(({ name, kind }) => `${name}: ${kind}.`),
    ],
  };
}

function lineUpsOf(job: Job): HandOverSection {
  const plan = currentPlan(job);
  const valves = plan.parts.filter(isValve);
  const pumps = plan.parts.filter(isPowered);
  return {
    part: "lineUps",
    lines: [
      "Set every valve of a line-up before the pump or engine runs. Never leave the return shut with the engine running.",
    ],
    table: {
      head: ["Line-up", "Valves", "Pumps on"],
      rows: plan.lineUps.map((lineUp) => [
        lineUp.name,
        valves.map((valve) => `${valve.name}: ${settingText(valve, lineUp.valves[valve.id])}`).join("; "),
        pumps
          .filter(({ id }) => lineUp.pumps[id] === "on")
          .map(({ name }) => name)
          .join(", ") || "none",
      ]),
      shares: [0.22, 0.56, 0.22],
    },
  };
}

function findingsLeft(job: Job, book: Book, today: Date): HandOverSection {
  const found = findingsOf(job, book, undefined, undefined, today);
  const provisional = provisionalOf(job);
  return {
    part: "findings",
    lines: [
      found.length === 0 ? "Nothing was found." : `${counted(found.length, "finding")}.`,
      ...found.map((finding) => {
        const { title, mend } = findingText(finding, job.units, (id) => nameOf(job, id));
        return `${finding.grade}: ${title}. ${finding.setAside ? `Set aside: ${finding.setAside.reason}` : mend}`;
      }),
      ...(provisional.length > 0 ? [`For the time being only: ${provisional.join(", ")}.`] : []),
    ],
  };
}

function assumedOf(job: Job): HandOverSection {
  const byOwner = new Map<string, number>();
  for (const { id } of assumedFigures(job, currentPlan(job))) byOwner.set(id, (byOwner.get(id) ?? 0) + 1);
  return {
    part: "assumed",
    lines:
      byOwner.size === 0
        ? ["Every figure was measured or is its maker's."]
        : [...byOwner].map(([id, count]) => `${nameOf(job, id)}: ${counted(count, "figure")}.`),
  };
}

function partsOf(job: Job): HandOverSection {
  const plan = currentPlan(job);
  const { units } = job;
  return {
    part: "parts",
    lines: [],
    table: {
      head: ["What", "Detail", "Where"],
      rows: [
        ...partLines(plan).map((line) => [
          `${line.count} ${partKindName(line.kind)}`,
          detailText(line, units),
          line.ids.map((id) => nameOf(job, id)).join(", "),
        ]),
        ...elementsOf(plan.parts).map(({ part }) => [
          "element",
          `${formatNumber(part.micron)} µm`,
          part.name,
        ]),
        ...plan.runs.map((run) => [
          "hose",
          `${hoseName(run)}${run.survey ? `, printed ${run.survey.printed}` : ""}`,
          nameOf(job, run.id),
        ]),
      ],
      shares: [0.26, 0.4, 0.34],
    },
  };
}

/** What was measured and set, for whoever it is handed to: day, what, what was found; by kind. */
function recordRows(job: Job, book: Book): string[][] {
  const say = tradeIn(job.units);
  const name = (id: string) => nameOf(job, id);
  return [
    ...entriesOf(book, "torqueSet").map((one) => [
      day(one.at),
      "Torque",
      `${name(one.joint.part)}, ${one.joint.port}: ${say.moment(one.momentNM)}, ${one.tool}`,
    ]),
    ...entriesOf(book, "leakCheck").map((one) => [
      day(one.at),
      "Leak test",
      `${name(one.joint.part)}, ${one.joint.port}: ${one.result}`,
    ]),
    ...entriesOf(book, "bled")
      .filter(({ isPractice, came }) => !isPractice && came !== "begun")
      .map((one) => [day(one.at), "Bled", `${one.step}: ${one.came}`]),
    ...entriesOf(book, "vacuum").map((one) => [
      day(one.at),
      "Reading",
      `${name(one.gaugeId)}: ${say.vacuum(one.vacuumPa)} of vacuum${one.isBaseline ? ", baseline" : ""}`,
    ]),
    ...entriesOf(book, "reading").map((one) => [
      day(one.at),
      "Reading",
      `${name(one.ofId)}: ${readText(one.quantity, one.value, say)}${one.isBaseline ? ", baseline" : ""}`,
    ]),
    ...entriesOf(book, "decay").map((one) => [
      day(one.at),
      "Held",
      `${name(one.gaugeId)}: ${decayText(one, say)}`,
    ]),
    ...entriesOf(book, "elementChanged").map((one) => [
      day(one.at),
      "Element",
      `${name(one.partId)}: changed`,
    ]),
    ...entriesOf(book, "bunkered").map((one) => [
      day(one.at),
      "Fuel",
      [`${name(one.tankId)}: ${say.volume(one.addedM3)}`, one.place, one.certificate]
        .filter(Boolean)
        .join(", "),
    ]),
    ...entriesOf(book, "serviced").map((one) => [day(one.at), "Service", one.note || one.dueId]),
  ];
}

/** All that stands in the log, in the order of its days: what is handed over, and what was worked and found. */
export function logRows(job: Job, book: Book): string[][] {
  const say = tradeIn(job.units);
  const name = (id: string) => nameOf(job, id);
  return [
    ...recordRows(job, book),
    ...entriesOf(book, "dip").map((one) => [
      day(one.at),
      "Dip",
      `${name(one.tankId)}: ${say.length(one.depthM)}`,
    ]),
    ...entriesOf(book, "fill").map((one) => [
      day(one.at),
      "Sender set",
      `${name(one.tankId)}: ${say.volume(one.addedM3)} added`,
    ]),
    ...entriesOf(book, "sample").map((one) => [
      day(one.at),
      "Jar",
      `${name(one.tankId)}: ${jarVerdicts[judgeJar(one)].name}`,
    ]),
    ...entriesOf(book, "particles").map((one) => [
      day(one.at),
      "Particles",
      `${name(one.tankId)}, ${one.from}: ${one.code.join("/")}`,
    ]),
    ...entriesOf(book, "puddle").map((one) => [
      day(one.at),
      "Puddle",
      `${name(one.tankId)}: ${say.pan(one.volumeM3)}`,
    ]),
    ...entriesOf(book, "faultFound").map((one) => [
      day(one.at),
      "Found wrong",
      [`${groupText({ kind: one.fault, ids: [one.ofId] }, name)}`, one.note].filter(Boolean).join(": "),
    ]),
    ...entriesOf(book, "holdAside").map((one) => [day(one.at), "Hold set aside", `${one.reason}, ${one.by}`]),
    ...entriesOf(book, "photo").map((one) => [
      day(one.at),
      "Photograph",
      [name(one.ofId), one.note].filter(Boolean).join(": "),
    ]),
  ].sort(([a = ""], [b = ""]) => a.localeCompare(b));
}

function recordsOf(job: Job, book: Book): HandOverSection {
  const rows = recordRows(job, book);
  return {
    part: "records",
    lines: rows.length === 0 ? ["Nothing is in the book yet."] : [],
    ...(rows.length > 0 && { table: { head: ["Day", "What", "Found"], rows, shares: [0.16, 0.18, 0.66] } }),
  };
}

function changedOf(job: Job, book: Book, today: Date): HandOverSection {
  const plan = currentPlan(job);
  const before =
    job.plans.find(({ id }) => id === plan.basedOn) ?? job.plans.find(({ id }) => id !== plan.id);
  if (!before)
    return { part: "changed", lines: ["There is no other plan to hold it against: a new installation."] };
  const say = tradeIn(job.units);
  const [found, built] = [before, plan].map((one) => planFigures(job, one, book, today));
  if (!found || !built) return { part: "changed", lines: [] };
  const margin = (pa: number | null) => (pa === null ? "starves" : say.vacuum(pa));
  return {
    part: "changed",
    lines: [],
    table: {
      head: ["", before.name, plan.name],
      rows: [
        ["Margin of suction at its worst", margin(found.marginPa), margin(built.marginPa)],
        ["Fuel that no pickup takes", say.volume(found.deadM3), say.volume(built.deadM3)],
        ["Places that can leak", String(found.leakPoints), String(built.leakPoints)],
        ["Steps of a filter's change", String(found.filterChangeSteps), String(built.filterChangeSteps)],
        ["Stops, mends, watches", gradesText(found.findings), gradesText(built.findings)],
      ],
      shares: [0.4, 0.3, 0.3],
    },
  };
}

const gradesText = ({ stop, mend, watch }: Record<"stop" | "mend" | "watch", number>) =>
  `${stop}, ${mend}, ${watch}`;

function dueList(job: Job, book: Book): HandOverSection {
  const network = buildNetwork(job);
  const due = dueOf(network, book, trendsOf(network, book));
  return {
    part: "due",
    lines: [
      ...due.map((one) => `${dueWhen(one)}: ${dueText(one, (id) => nameOf(job, id))}.`),
      "And at the vacuum limit, whatever the date. Draw a jar from the lowest point before a long passage.",
    ],
  };
}

function filterOf(job: Job): HandOverSection {
  const plan = currentPlan(job);
  const { pan } = tradeIn(job.units);
  const changes = planChanges(
    new LineUpSolver(buildNetwork(job)),
    plan.conditions,
    boardsJudged(job, plan),
    job.kind,
  );
  return {
    part: "filter",
    lines: changes.flatMap(({ part, change, isDuplex }) => [
      `${part.name}: ${minutesText(change.seconds)}, ${pan(change.cupM3)} into the cup. ${isDuplex ? "The engine runs on over the other filter." : "The engine stands."}`,
      change.steps
        .map(({ id }) => serviceStepTexts[id])
        .join("; ")
        .concat("."),
    ]),
  };
}

function bleedOf(job: Job): HandOverSection {
  const lineUp = currentPlan(job).lineUps.find(({ purpose }) => purpose === "run");
  const task = lineUp && bleedTask(job, lineUp, { kind: "ranDry" });
  if (!lineUp || !task) return { part: "bleed", lines: ["No line-up runs a consumer."] };
  const name = (id: string) => nameOf(job, id);
  const procedure = bleedProcedure(task, job.schools);
  if (!procedure) return { part: "bleed", lines: [`${lineUp.name} cannot be bled from here: see Bleed.`] };
  return {
    part: "bleed",
    lines: [
      `${lineUp.name}, after it ran dry. Eyes covered; the high-pressure side belongs to a licensed workshop.`,
      ...procedure.steps.map((step, i) =>
        `${i + 1}. ${stepTitle(step, name)}. ${stepDetail(step, name, tradeIn(job.units))}`.trim(),
      ),
    ],
  };
}

export const TROUBLE = [
  "Water in a bowl: drain it into a jar until fuel comes clear, look at what settles, write it down. Much water, or water again: strip the tank from its lowest point before the engine runs on.",
  "Growth, or haze that stays: do not polish for ever. Biocide by its maker's dose, clean the tank by hand, change the elements.",
  "A leak under pressure: stop the pump, shut the tank, eyes covered, a pan under it. Dry the joint, tighten once, try again; then its washer or hose.",
  "Air in a clear line, no puddle: it leaks in. Bowl seal and drain first, then each joint up to the pump, dry and wetted one after the other.",
  "A smell of fuel below: no flame, no switch; ventilate, shut the tanks, and look only then.",
];
