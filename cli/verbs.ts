/** What each verb of the command line does with its file and its flags: a door to the core and to the messages. */

import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { airReport, bleedReport } from "~/core/air/report";
import { standingOf } from "~/core/book/standing";
import { cureOf, HIRED_M3S } from "~/core/care/cure";
import { Diagnoser } from "~/core/care/diagnose";
import { dueOf } from "~/core/care/due";
import { gaugeTrend, trendReport, trendsOf } from "~/core/care/gaugeTrend";
import { deltasOf, SimulatedSystem } from "~/core/care/simulate";
import { exportInp } from "~/core/export/inp";
import { findingsOf } from "~/core/findings/findings";
import { fuelAt } from "~/core/fuel/fuel";
import { solveReport } from "~/core/hydraulics/report";
import { LineUpSolver } from "~/core/hydraulics/solve";
import { buildNetwork } from "~/core/network/network";
import { workReport } from "~/core/order/report";
import { assumedFigures } from "~/core/plan/assumed";
import { lyingRuns } from "~/core/plan/lying";
import { currentPlan } from "~/core/plan/ports";
import { type Job, type LineUp, schoolChoices } from "~/core/plan/types";
import { runReport } from "~/core/running/report";
import { changeOf, serviceSteps } from "~/core/service/report";
import { STEEPEST_DEG } from "~/core/tanks/attitude";
import { dipTable } from "~/core/tanks/dip";
import { holdOf } from "~/core/tanks/hold";
import { capacityM3, soundingOf } from "~/core/tanks/tank";
import { HOUR_S, LITRE_M3 } from "~/core/units/factors";
import { runSides } from "~/core/work/runSides";
import { airRefusalText } from "~/messages/bleeding";
import { calendarDays, cureNeeds } from "~/messages/care";
import { labelText } from "~/messages/fit";
import { handOverParts } from "~/messages/handOver";
import { nameOf, provisionalOf } from "~/messages/notes";
import { serviceWords } from "~/messages/service";
import { inWords } from "~/messages/workOrder";
import { airActionsSchema, readAction } from "~/schemas/air";
import { laws } from "~/schemas/calc";
import { calendarText } from "~/schemas/calendar";
import { careReadingsSchema, readCareReading } from "~/schemas/diagnosis";
import { faultsOf, writeJobFile } from "~/schemas/file";
import { CalcFault } from "~/schemas/law";
import { solveReportJsonSchema } from "~/schemas/solveReport";
import { boardReport } from "./boards";
import { diagnosisReport } from "./diagnosis";
import { edited } from "./edits";
import {
  type Call,
  contentAsked,
  fileOf,
  lineUpOf,
  numberOf,
  oneOf,
  readFile,
  readJob,
  readJson,
  valueOf,
} from "./inputs";
import { partsReport } from "./parts";
import { BAD_INPUT, BAD_USE, refuse, Stop } from "./stop";

function calc(call: Call): unknown {
  const { word, file } = call;
  const law = word === undefined ? undefined : laws[word];
  if (!law) throw new Stop([`calc: no law '${word ?? ""}'; one of ${Object.keys(laws).join(", ")}`], BAD_USE);
  const input = readJson(call, file, "input");
  const one = (value: unknown, root: string) => {
    const parsed = law.input.safeParse(value);
    if (!parsed.success) throw refuse("input", faultsOf(parsed.error, root));
    try {
      return law.run(parsed.data as never);
    } catch (fault) {
      if (fault instanceof CalcFault)
        throw refuse("input", [
          {
            path: [root, fault.path].filter(Boolean).join("."),
            code: fault.code,
            ...(fault.values && { values: fault.values }),
          },
        ]);
      throw fault;
    }
  };
  return Array.isArray(input) ? input.map((value, i) => one(value, `[${i}]`)) : one(input, "");
}

function bleed(call: Call): unknown {
  const job = readJob(call);
  const school = valueOf(call, "school");
  const priming = schoolChoices.priming.find((one) => one === school);
  if (school !== undefined && !priming)
    throw new Stop([`--school: one of ${schoolChoices.priming.join(", ")}`], BAD_USE);
  const schools = { ...job.schools, ...(priming ? { priming } : {}) };
  return bleedReport(job, lineUpOf(call, job), schools, contentAsked(call, job));
}

function air(call: Call): unknown {
  const job = readJob(call);
  const lineUp = lineUpOf(call, job);
  const every = numberOf(call, "every", 5, 0.1, 3600);
  const from = fileOf(call, "actions", "a file with what is done");
  const parsed = airActionsSchema.safeParse(readJson(call, from, from));
  if (!parsed.success) throw refuse(from, faultsOf(parsed.error, "actions"));
  const report = airReport(job, lineUp, parsed.data.map(readAction), contentAsked(call, job), every);
  if (!report) throw new Stop([`${lineUp.id}: nothing leads from a tank to a consumer in it`], BAD_INPUT);
  if (report.refused)
    throw new Stop(
      [`${from}: actions[${report.refused.action}]: ${airRefusalText(report.refused)}`],
      BAD_INPUT,
    );
  return report;
}

function calendar(call: Call): string {
  const { job, book } = readFile(call);
  const [network, standing] = [buildNetwork(job), standingOf(book)];
  const due = dueOf(network, standing, trendsOf(network, standing));
  const days = calendarDays(job, due, (id) => nameOf(job, id));
  const last = book.map(({ at }) => Date.parse(at)).reduce((most, at) => Math.max(most, at), 0);
  return calendarText(job.name, days, new Date(last));
}

function trend(call: Call): unknown {
  const { job, book } = readFile(call);
  const gauges = currentPlan(job).parts.filter(({ kind }) => kind === "gauge");
  const gauge = oneOf(call, "gauge", gauges);
  const by = (["hours", "days", "litres"] as const).find((one) => one === valueOf(call, "by"));
  if (valueOf(call, "by") !== undefined && by === undefined)
    throw new Stop(["--by: hours, days or litres"], BAD_USE);
  const found = gaugeTrend(buildNetwork(job), standingOf(book), gauge.id, by);
  if (!found) throw new Stop([`${gauge.id}: no reading in the book that stands behind a filter`], BAD_INPUT);
  const element = found.filter.element?.id ?? null;
  const asked = valueOf(call, "element");
  if (asked !== undefined && asked !== element)
    throw new Stop([`--element: ${gauge.id} reads before ${element ?? "no element"}`], BAD_INPUT);
  // What cannot be counted so is not counted otherwise: it is said.
  if (by !== undefined && found.by !== by)
    throw new Stop([`--by ${by}: not every reading of ${gauge.id} has its engine hours`], BAD_INPUT);
  return trendReport(found);
}

/** The line-up's faults, solved; refused where nothing is fed in it. */
function diagnoserOf(job: Job, lineUp: LineUp): Diagnoser {
  const plan = currentPlan(job);
  const diagnoser = new Diagnoser(buildNetwork(job), lineUp, plan.conditions);
  if (!diagnoser.isReady)
    throw new Stop([`${lineUp.id}: nothing is fed in it, so nothing can be told of it`], BAD_INPUT);
  return diagnoser;
}

function diagnose(call: Call): unknown {
  const job = readJob(call);
  const lineUp = lineUpOf(call, job);
  const from = fileOf(call, "readings", "a file with what was read");
  const most = numberOf(call, "next", 3, 0, 60);
  const parsed = careReadingsSchema.safeParse(readJson(call, from, from));
  if (!parsed.success) throw refuse(from, faultsOf(parsed.error, "readings"));
  const diagnoser = diagnoserOf(job, lineUp);
  const readings = parsed.data.map(readCareReading);
  const strange = readings.findIndex(
    (one) => "port" in one && one.port && !diagnoser.network.nodeOf.has(one.port),
  );
  if (strange >= 0) throw new Stop([`${from}: readings[${strange}].port is not in this plan`], BAD_INPUT);
  return diagnosisReport(diagnoser, readings, Math.floor(most));
}

/** The document and the job's file, side by side in a folder. */
async function handOver(call: Call): Promise<unknown> {
  const file = readFile(call);
  const out = fileOf(call, "out", "a folder to write into");
  const size = valueOf(call, "paper") ?? "A4";
  if (size !== "A4" && size !== "Letter") throw new Stop(["--paper: A4 or Letter"], BAD_USE);
  const provisional = provisionalOf(file.job);
  if (provisional.length > 0 && !call.flags.provisional)
    throw new Stop(
      [`for the time being only: ${provisional.join(", ")}; --provisional names them in the document`],
      BAD_INPUT,
    );
  const font = (name: string) =>
    readFileSync(new URL(`../node_modules/dejavu-fonts-ttf/ttf/${name}.ttf`, import.meta.url));
  // Fonts and the PDF writer are most of the start: no other verb waits for them.
  const { handOverPdf } = await import("~/state/handOverPdf");
  const made = await handOverPdf(
    { job: file.job, book: standingOf(file.book), parts: new Set(handOverParts), today: new Date(), size },
    { text: font("DejaVuSansCondensed"), strong: font("DejaVuSansCondensed-Bold") },
  );
  if (!made) throw new Stop(["no document was made"], BAD_INPUT);
  mkdirSync(out, { recursive: true });
  const written = [join(out, `${file.job.id}-hand-over.pdf`), join(out, `${file.job.id}.keel.json`)] as const;
  writeFileSync(written[0], made.bytes);
  writeFileSync(written[1], writeJobFile(file));
  return { written, missingLetters: made.missing };
}

function simulate(call: Call): unknown {
  const job = readJob(call);
  const [first] = currentPlan(job).lineUps;
  const lineUp = valueOf(call, "lineup") === undefined && first ? first : lineUpOf(call, job);
  const diagnoser = diagnoserOf(job, lineUp);
  const fault = valueOf(call, "fault") === undefined ? null : oneOf(call, "fault", diagnoser.faults);
  const size = Number(valueOf(call, "size") ?? fault?.sizes[0] ?? 0);
  if (fault && !(size > 0)) throw new Stop(["--size: a number over 0"], BAD_USE);
  const minutes = numberOf(call, "minutes", 1, 0, 1440);
  if (minutes === 0) throw new Stop(["--minutes: a number over 0, to 1440"], BAD_USE);
  const seed = numberOf(call, "seed", 1, 0, 2 ** 31);
  if (!Number.isInteger(seed)) throw new Stop(["--seed: a whole number"], BAD_USE);
  return deltasOf(new SimulatedSystem(diagnoser, fault ? { fault, size } : null, seed), minutes);
}

function inp(call: Call): string {
  const job = readJob(call);
  const plan = currentPlan(job);
  const lineUp = lineUpOf(call, job);
  const { id } = lineUp;
  const result = new LineUpSolver(buildNetwork(job)).solve(lineUp, plan.conditions);
  if (result.outcome !== "solved")
    throw new Stop([`${id}: no solution to export: ${result.outcome}`], BAD_INPUT);
  return exportInp(result);
}

function dip(call: Call): unknown {
  const tank = oneOf(call, "tank", readJob(call).tanks);
  const attitude = {
    pitchDeg: numberOf(call, "pitch", 0, -STEEPEST_DEG, STEEPEST_DEG),
    rollDeg: numberOf(call, "roll", 0, -STEEPEST_DEG, STEEPEST_DEG),
  };
  return {
    tank: tank.id,
    ...attitude,
    sounding: soundingOf(tank),
    capacityM3: capacityM3(tank),
    rows: dipTable(tank, attitude, numberOf(call, "step", 0.02, 0.001, 1)),
  };
}

function run(call: Call): unknown {
  const job = readJob(call);
  return runReport(job, numberOf(call, "ambient", currentPlan(job).conditions.fuelC, -60, 70));
}

function work(call: Call): unknown {
  const file = readFile(call);
  const people = numberOf(call, "people", 1, 1, 2);
  if (!Number.isInteger(people)) throw new Stop(["--people: 1 or 2"], BAD_USE);
  const from = valueOf(call, "from") === undefined ? undefined : oneOf(call, "from", file.job.plans).id;
  return inWords(file.job, workReport(file.job, standingOf(file.book), from, people));
}

/** One change of an element, with each step as it is read out. */
function service(call: Call): unknown {
  const job = readJob(call);
  const filters = currentPlan(job).parts.flatMap((part) =>
    "element" in part && part.element ? [part.element.id, part.id] : [],
  );
  const change = changeOf(job, valueOf(call, "element") ?? "");
  if (!change) throw new Stop([`--element: one of ${filters.join(", ")}`], BAD_USE);
  const steps = serviceSteps(change).map((step) => ({ ...step, words: serviceWords(job, step) }));
  return {
    outcome: "order",
    element: change.part.element?.id ?? null,
    minutes: change.change.seconds / 60,
    steps,
  };
}

/** Each hose by the way that the fuel goes, and the bar of its label. */
function labels(call: Call): unknown {
  const job = readJob(call);
  const plan = currentPlan(job);
  const sides = runSides(new LineUpSolver(buildNetwork(job)), plan, plan.conditions);
  return {
    labels: lyingRuns(job, plan).map(({ run, from, to, line }) => ({
      runId: run.id,
      words: labelText(run, from.ownerName, line ? to.name : to.ownerName),
      bar: sides.get(run.id) ?? null,
      colour: run.colour ?? null,
    })),
  };
}

const VERDICTS = { growth: "growth", emulsion: "emulsion", water: "free water", haze: "haze" } as const;

/** What a tank's last jar asks for, with a polisher of some flow, the plan's own or hired. */
function cure(call: Call): unknown {
  const { job, book } = readFile(call);
  const tank = oneOf(call, "tank", job.tanks);
  const litresH = numberOf(call, "flow", (HIRED_M3S * HOUR_S) / LITRE_M3, 0.1, 100_000);
  const found = cureOf(job, standingOf(book), tank, (litresH * LITRE_M3) / HOUR_S);
  if (!found) throw new Stop([`${tank.id}: its fuel is not known`], BAD_INPUT);
  return {
    verdict: found.signs.map((sign) => VERDICTS[sign]),
    recommended: found.recommended,
    ways: found.ways.map(({ way, volumeM3, hours, passes }) => ({
      way,
      litres: volumeM3 / LITRE_M3,
      hours,
      passes,
      needs: cureNeeds[way],
    })),
    nextSampleDays: found.nextSampleDays,
  };
}

/** What a tank weighs full and what holds it. */
function hold(call: Call): unknown {
  const job = readJob(call);
  const tank = oneOf(call, "tank", job.tanks);
  const fuel = fuelAt(job.fuel, currentPlan(job).conditions.fuelC);
  if (!fuel) throw new Stop([`${tank.id}: its fuel is not known`], BAD_INPUT);
  return holdOf(job, tank, fuel.densityKgM3);
}

/** Every figure that nobody measured and no maker gave. */
function measure(call: Call): unknown {
  const job = readJob(call);
  return assumedFigures(job, currentPlan(job)).map(({ id, field, portId }) => ({
    ofId: id,
    field: portId === undefined ? field : `ports.${portId}.${field}`,
    basis: "assumed",
  }));
}

/** How a verb is called, and what it does. */
export interface VerbOf {
  /** What stands before its file: a law, a format. */
  word?: string;
  /** Its flags: of those that take a value what the value is, of the others nothing. */
  flags: Readonly<Record<string, string | null>>;
  help: string;
  run: (call: Call) => unknown;
}

const lineup = "ID";
export const verbs: Readonly<Record<string, VerbOf>> = {
  check: {
    flags: {},
    help: "faults of a job file, with their places",
    run: (call) => ({ job: readJob(call).id, faults: [] }),
  },
  solve: {
    flags: { schema: null },
    help: "every line-up: outcome, flows, pressures, vacuums by id; --schema: the schema of it",
    run: (call) => (call.flags.schema ? solveReportJsonSchema() : solveReport(readJob(call))),
  },
  findings: {
    flags: {},
    help: "what is wrong, at which part, and the number behind it",
    run: (call) => {
      const { job, book } = readFile(call);
      return findingsOf(job, standingOf(book));
    },
  },
  run: {
    flags: { ambient: "DEG" },
    help: "the plan's duty over time: levels, heat, vacuum and events; endurance by line-up",
    run,
  },
  export: {
    word: "inp",
    flags: { lineup },
    help: "the network of a line-up for EPANET",
    run: (call) => {
      if (call.word !== "inp")
        throw new Stop([`export: no format '${call.word ?? ""}'; one of inp`], BAD_USE);
      return inp(call);
    },
  },
  dip: {
    flags: { tank: "ID", step: "M", pitch: "DEG", roll: "DEG" },
    help: "depths and volumes at a tank's sounding point",
    run: dip,
  },
  diagnose: {
    flags: { lineup, readings: "R.json", next: "N" },
    help: "what may be wrong, in groups, and what to read next",
    run: diagnose,
  },
  handover: {
    flags: { out: "DIR", paper: "A4|Letter", provisional: null },
    help: "the owner's document (PDF) and the job's file",
    run: handOver,
  },
  simulate: {
    flags: { lineup, fault: "ID", size: "N", seed: "N", minutes: "N" },
    help: "what the gauges would say, as Signal K deltas",
    run: simulate,
  },
  work: {
    flags: { from: "PLAN", people: "N" },
    help: "the work order: steps with needs, holds, litres; ledger, hours, longest way",
    run: work,
  },
  parts: {
    flags: {},
    help: "what to buy and for what, and what cannot be counted with its reason",
    run: (call) => partsReport(readJob(call)),
  },
  service: {
    flags: { element: "ID" },
    help: "one change of a filter's element as the plan stands, step by step",
    run: service,
  },
  labels: {
    flags: {},
    help: "the label of each hose by the way that the fuel goes, with its bar",
    run: labels,
  },
  cure: {
    flags: { tank: "ID", flow: "L/H" },
    help: "what a tank's last jar asks for: ways with hours and litres, the one recommended, the next jar",
    run: cure,
  },
  hold: {
    flags: { tank: "ID" },
    help: "what a tank weighs full, what pulls at it, and straps for it",
    run: hold,
  },
  board: {
    flags: { board: "ID", propose: null },
    help: "a board as it hangs, or with --propose as it could: places, what is wrong, what would let it be",
    run: (call) => {
      const job = readJob(call);
      const { id } = oneOf(call, "board", currentPlan(job).boards ?? []);
      return boardReport(job, id, call.flags.propose === true);
    },
  },
  measure: {
    flags: {},
    help: "every figure that nobody measured",
    run: measure,
  },
  edit: {
    flags: { commands: "C.json" },
    help: "edits in their order: the job's file as it is then, or with --then VERB … what that says of it",
    run: (call) => writeJobFile(edited(call)),
  },
  bleed: {
    flags: { lineup, school: "PRIMING", content: "WORD" },
    help: "how a line-up is bled: steps, proof, air left, why not",
    run: bleed,
  },
  air: {
    flags: { lineup, actions: "A.json", content: "WORD", every: "S" },
    help: "hands at it: air, joints and pumps over time",
    run: air,
  },
  trend: {
    flags: { gauge: "ID", element: "ID", by: "hours|days|litres" },
    help: "readings of a gauge as its filter's loading, and when it is due",
    run: trend,
  },
  calendar: { flags: {}, help: "what is due as an iCalendar file", run: calendar },
  calc: { word: "LAW", flags: {}, help: "one law, of JSON", run: calc },
};
