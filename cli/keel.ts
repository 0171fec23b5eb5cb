/** The core on the command line: JSON in on a file or standard input, JSON out; faults with their place on standard error. */
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { contentOf, missingIn } from "~/core/air/content";
import { airReport, bleedReport } from "~/core/air/report";
import { standingOf } from "~/core/book/standing";
import { Diagnoser } from "~/core/care/diagnose";
import { dueOf } from "~/core/care/due";
import { gaugeTrend, trendReport, trendsOf } from "~/core/care/gaugeTrend";
import { deltasOf, SimulatedSystem } from "~/core/care/simulate";
import { exportInp } from "~/core/export/inp";
import { findingsOf } from "~/core/findings/findings";
import { solveReport } from "~/core/hydraulics/report";
import { LineUpSolver } from "~/core/hydraulics/solve";
import { buildNetwork } from "~/core/network/network";
import { workReport } from "~/core/order/report";
import { currentPlan } from "~/core/plan/ports";
import { type Job, type LineUp, schoolChoices } from "~/core/plan/types";
import { runReport } from "~/core/running/report";
import { STEEPEST_DEG } from "~/core/tanks/attitude";
import { dipTable } from "~/core/tanks/dip";
import { capacityM3, soundingOf } from "~/core/tanks/tank";
import { airRefusalText } from "~/messages/bleeding";
import { calendarDays } from "~/messages/care";
import { faultText } from "~/messages/faults";
import { handOverParts } from "~/messages/handOver";
import { nameOf, provisionalOf } from "~/messages/notes";
import { inWords } from "~/messages/workOrder";
import { airActionsSchema, readAction } from "~/schemas/air";
import { laws } from "~/schemas/calc";
import { calendarText } from "~/schemas/calendar";
import { careReadingsSchema, readCareReading } from "~/schemas/diagnosis";
import { type FileFault, faultsOf, type JobFile, readJobFile, writeJobFile } from "~/schemas/file";
import { CalcFault } from "~/schemas/law";
import { solveReportJsonSchema } from "~/schemas/solveReport";
import { diagnosisReport } from "./diagnosis";
import { partsReport } from "./parts";

const BAD_INPUT = 1;
const BAD_USE = 2;

class Stop extends Error {
  constructor(
    readonly lines: string[],
    readonly status: number,
  ) {
    super(lines.join("\n"));
  }
}

const usage = `usage: keel <verb> [file or -]
  check  FILE                      faults of a job file, with their places
  solve  FILE [--schema]           every line-up: outcome, flows, pressures, vacuums by id
  findings FILE                    what is wrong, at which part, and the number behind it
  run FILE [--ambient DEG]         the plan's duty over time: levels, heat, vacuum and events; endurance by line-up
  export inp FILE --lineup ID      the network of a line-up for EPANET
  dip FILE --tank ID [--step M] [--pitch DEG] [--roll DEG]   depths and volumes at its sounding point
  diagnose FILE --lineup ID --readings R.json [--next 3]
                                   what may be wrong, in groups, and what to read next
  handover FILE --out DIR [--paper A4|Letter] [--provisional]
                                   the owner's document (PDF) and the job's file
  simulate FILE [--lineup ID] [--fault ID --size N] [--seed N] [--minutes N]
                                   what the gauges would say, as Signal K deltas
  work FILE [--from PLAN] [--people N]   the work order: steps with needs, holds, litres; ledger, hours, longest way
  parts FILE                       what to buy and for what, and what cannot be counted with its reason
  bleed FILE --lineup ID [--school PRIMING] [--content WORD]   how it is bled: steps, proof, air left, why not
  air FILE --lineup ID --actions A.json [--content WORD] [--every S]   hands at it: air, joints and pumps over time
  trend FILE --gauge ID [--element ID] [--by X]   readings of a gauge as its filter's loading, and when it is due
  calendar FILE                    what is due as an iCalendar file
  calc LAW [FILE]                  one law: ${Object.keys(laws).join(", ")}`;

function read(file = "-"): string {
  try {
    return readFileSync(file === "-" ? 0 : file, "utf8");
  } catch {
    throw new Stop([`${file}: cannot be read`], BAD_USE);
  }
}

const refuse = (file: string, faults: FileFault[]) =>
  new Stop(
    faults.map((fault) => `${file}: ${fault.path || "file"}: ${faultText(fault)}`),
    BAD_INPUT,
  );

function readFile(file: string | undefined): JobFile {
  const found = readJobFile(read(file));
  if (!found.ok) throw refuse(file ?? "-", found.faults);
  return found;
}
const readJob = (file: string | undefined): Job => readFile(file).job;

function calc(name: string | undefined, file: string | undefined): unknown {
  const law = name === undefined ? undefined : laws[name];
  if (!law) throw new Stop([`calc: no law '${name ?? ""}'`, usage], BAD_USE);
  const input = readJson(file, "input");
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

/** What stands behind flags that take a value, and the file: the first word that is neither. */
function flagged(args: readonly string[], flags: readonly string[]) {
  const value = (flag: string) => (args.includes(flag) ? args[args.indexOf(flag) + 1] : undefined);
  const file = args.find((arg, i) => !arg.startsWith("--") && !flags.includes(args[i - 1] ?? "")) ?? "-";
  return { value, file };
}

function lineUpOf(job: Job, id: string | undefined): LineUp {
  const { lineUps } = currentPlan(job);
  const lineUp = lineUps.find((one) => one.id === id);
  if (!lineUp) throw new Stop([`--lineup: one of ${lineUps.map((one) => one.id).join(", ")}`], BAD_USE);
  return lineUp;
}

function startContent(job: Job, word = "dry") {
  const content = contentOf(word);
  if (!content) throw new Stop(["--content: dry, ranDry, changed:FILTER or opened:PART.PORT"], BAD_USE);
  const missing = missingIn(currentPlan(job), content);
  if (missing !== null) throw new Stop([`--content: ${missing} is not in this plan`], BAD_USE);
  return content;
}

function readJson(file: string | undefined, name: string): unknown {
  const text = read(file);
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new Stop([`${name}: not JSON: ${(error as Error).message}`], BAD_INPUT);
  }
}

function bleed(args: string[]): unknown {
  const { value, file } = flagged(args, ["--lineup", "--school", "--content"]);
  const job = readJob(file);
  const school = value("--school");
  const priming = schoolChoices.priming.find((one) => one === school);
  if (school !== undefined && !priming)
    throw new Stop([`--school: one of ${schoolChoices.priming.join(", ")}`], BAD_USE);
  const schools = { ...job.schools, ...(priming ? { priming } : {}) };
  return bleedReport(job, lineUpOf(job, value("--lineup")), schools, startContent(job, value("--content")));
}

function air(args: string[]): unknown {
  const { value, file } = flagged(args, ["--lineup", "--actions", "--content", "--every"]);
  const job = readJob(file);
  const lineUp = lineUpOf(job, value("--lineup"));
  const every = Number(value("--every") ?? 5);
  if (!(every >= 0.1 && every <= 3600)) throw new Stop(["--every: a number from 0.1 to 3600"], BAD_USE);
  const from = value("--actions");
  if (from === undefined) throw new Stop(["--actions: a file with what is done"], BAD_USE);
  const parsed = airActionsSchema.safeParse(readJson(from, from));
  if (!parsed.success) throw refuse(from, faultsOf(parsed.error, "actions"));
  const report = airReport(
    job,
    lineUp,
    parsed.data.map(readAction),
    startContent(job, value("--content")),
    every,
  );
  if (!report) throw new Stop([`${lineUp.id}: nothing leads from a tank to a consumer in it`], BAD_INPUT);
  if (report.refused)
    throw new Stop(
      [`${from}: actions[${report.refused.action}]: ${airRefusalText(report.refused)}`],
      BAD_INPUT,
    );
  return report;
}

function calendar(path: string | undefined): string {
  const { job, book } = readFile(path);
  const [network, standing] = [buildNetwork(job), standingOf(book)];
  const due = dueOf(network, standing, trendsOf(network, standing));
  const days = calendarDays(job, due, (id) => nameOf(job, id));
  const last = book.map(({ at }) => Date.parse(at)).reduce((most, at) => Math.max(most, at), 0);
  return calendarText(job.name, days, new Date(last));
}

function trend(args: string[]): unknown {
  const { value, file: path } = flagged(args, ["--gauge", "--element", "--by"]);
  const { job, book } = readFile(path);
  const gauges = currentPlan(job).parts.filter(({ kind }) => kind === "gauge");
  const gauge = gauges.find(({ id }) => id === value("--gauge"));
  if (!gauge) throw new Stop([`--gauge: one of ${gauges.map(({ id }) => id).join(", ")}`], BAD_USE);
  const by = (["hours", "days", "litres"] as const).find((one) => one === value("--by"));
  if (value("--by") !== undefined && by === undefined)
    throw new Stop(["--by: hours, days or litres"], BAD_USE);
  const found = gaugeTrend(buildNetwork(job), standingOf(book), gauge.id, by);
  if (!found) throw new Stop([`${gauge.id}: no reading in the book that stands behind a filter`], BAD_INPUT);
  const element = found.filter.element?.id ?? null;
  const asked = value("--element");
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

function diagnose(args: string[]): unknown {
  const { value, file } = flagged(args, ["--lineup", "--readings", "--next"]);
  const job = readJob(file);
  const lineUp = lineUpOf(job, value("--lineup"));
  const from = value("--readings");
  if (from === undefined) throw new Stop(["--readings: a file with what was read"], BAD_USE);
  const most = Number(value("--next") ?? 3);
  if (!(most >= 0 && most <= 60)) throw new Stop(["--next: a number from 0 to 60"], BAD_USE);
  const parsed = careReadingsSchema.safeParse(readJson(from, from));
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
async function handOver(args: string[]): Promise<unknown> {
  const { value, file: path } = flagged(args, ["--out", "--paper"]);
  const file = readFile(path);
  const out = value("--out");
  if (out === undefined) throw new Stop(["--out: a folder to write into"], BAD_USE);
  const size = value("--paper") ?? "A4";
  if (size !== "A4" && size !== "Letter") throw new Stop(["--paper: A4 or Letter"], BAD_USE);
  const provisional = provisionalOf(file.job);
  if (provisional.length > 0 && !args.includes("--provisional"))
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

function simulate(args: string[]): unknown {
  const { value, file } = flagged(args, ["--lineup", "--fault", "--size", "--seed", "--minutes"]);
  const job = readJob(file);
  const diagnoser = diagnoserOf(job, lineUpOf(job, value("--lineup") ?? currentPlan(job).lineUps[0]?.id));
  const [id, seed, minutes] = [
    value("--fault"),
    Number(value("--seed") ?? 1),
    Number(value("--minutes") ?? 1),
  ];
  const fault = diagnoser.faults.find((one) => one.id === id);
  if (id !== undefined && !fault)
    throw new Stop([`--fault: one of ${diagnoser.faults.map((one) => one.id).join(", ")}`], BAD_USE);
  const size = Number(value("--size") ?? fault?.sizes[0] ?? 0);
  if (fault && !(size > 0)) throw new Stop(["--size: a number over 0"], BAD_USE);
  if (!(minutes > 0 && minutes <= 1440)) throw new Stop(["--minutes: a number over 0, to 1440"], BAD_USE);
  if (!Number.isInteger(seed)) throw new Stop(["--seed: a whole number"], BAD_USE);
  return deltasOf(new SimulatedSystem(diagnoser, fault ? { fault, size } : null, seed), minutes);
}

function inp(args: string[]): string {
  const { value, file } = flagged(args, ["--lineup"]);
  const job = readJob(file);
  const plan = currentPlan(job);
  const lineUp = lineUpOf(job, value("--lineup"));
  const { id } = lineUp;
  const result = new LineUpSolver(buildNetwork(job)).solve(lineUp, plan.conditions);
  if (result.outcome !== "solved")
    throw new Stop([`${id}: no solution to export: ${result.outcome}`], BAD_INPUT);
  return exportInp(result);
}

function dip(args: string[]): unknown {
  const { value, file } = flagged(args, ["--tank", "--step", "--pitch", "--roll"]);
  const number = (flag: string, fallback: number, least: number, most: number) => {
    const given = value(flag);
    if (given === undefined) return fallback;
    const read = Number(given);
    if (!(read >= least && read <= most))
      throw new Stop([`${flag}: a number from ${least} to ${most}`], BAD_USE);
    return read;
  };
  const job = readJob(file);
  const tank = job.tanks.find(({ id }) => id === value("--tank"));
  if (!tank) throw new Stop([`--tank: one of ${job.tanks.map(({ id }) => id).join(", ")}`], BAD_USE);
  const attitude = {
    pitchDeg: number("--pitch", 0, -STEEPEST_DEG, STEEPEST_DEG),
    rollDeg: number("--roll", 0, -STEEPEST_DEG, STEEPEST_DEG),
  };
  return {
    tank: tank.id,
    ...attitude,
    sounding: soundingOf(tank),
    capacityM3: capacityM3(tank),
    rows: dipTable(tank, attitude, number("--step", 0.02, 0.001, 1)),
  };
}

function run(args: string[]): unknown {
  const { value, file } = flagged(args, ["--ambient"]);
  const ambient = value("--ambient");
  const given = ambient === undefined ? undefined : Number(ambient);
  if (given !== undefined && !(given >= -60 && given <= 70))
    throw new Stop(["--ambient: a number from -60 to 70"], BAD_USE);
  const job = readJob(file);
  return runReport(job, given ?? currentPlan(job).conditions.fuelC);
}

function work(args: string[]): unknown {
  const { value, file: path } = flagged(args, ["--from", "--people"]);
  const file = readFile(path);
  const people = Number(value("--people") ?? 1);
  if (people !== 1 && people !== 2) throw new Stop(["--people: 1 or 2"], BAD_USE);
  const from = value("--from");
  if (from !== undefined && !file.job.plans.some(({ id }) => id === from))
    throw new Stop([`--from: one of ${file.job.plans.map(({ id }) => id).join(", ")}`], BAD_USE);
  return inWords(file.job, workReport(file.job, standingOf(file.book), from, people));
}

async function main(args: string[]): Promise<string> {
  const [verb, ...rest] = args;
  const json = (value: unknown) => `${JSON.stringify(value, null, 2)}\n`;
  switch (verb) {
    case "check": {
      const job = readJob(rest[0]);
      return json({ job: job.id, faults: [] });
    }
    case "solve":
      return json(rest.includes("--schema") ? solveReportJsonSchema() : solveReport(readJob(rest[0])));
    case "findings": {
      const { job, book } = readFile(rest[0]);
      return json(findingsOf(job, standingOf(book)));
    }
    case "dip":
      return json(dip(rest));
    case "bleed":
      return json(bleed(rest));
    case "air":
      return json(air(rest));
    case "calendar":
      return calendar(rest[0]);
    case "trend":
      return json(trend(rest));
    case "diagnose":
      return json(diagnose(rest));
    case "handover":
      return json(await handOver(rest));
    case "simulate":
      return json(simulate(rest));
    case "work":
      return json(work(rest));
    case "parts":
      return json(partsReport(readJob(rest[0])));
    case "run":
      return json(run(rest));
    case "export":
      if (rest[0] !== "inp") throw new Stop([`export: no format '${rest[0] ?? ""}'`, usage], BAD_USE);
      return inp(rest.slice(1));
    case "calc":
      return json(calc(rest[0], rest[1]));
    default:
      throw new Stop([usage], BAD_USE);
  }
}

try {
  process.stdout.write(await main(process.argv.slice(2)));
} catch (error) {
  if (!(error instanceof Stop)) throw error;
  process.stderr.write(`${error.lines.join("\n")}\n`);
  process.exitCode = error.status;
}
