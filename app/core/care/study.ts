/** A search for a fault as plain questions and answers, for whoever is apart from the one that reckons. */
import { fuelWay, type Leg } from "../hydraulics/route";
import type { LineUpResult } from "../hydraulics/solve";
import type { Id } from "../kinds/record";
import type { CareReading, Diagnoser, Diagnosis, ReadState, Visit } from "./diagnose";
import type { CareFault } from "./faults";
import { drawnFault, SimulatedSystem, type Trial, trial } from "./simulate";
import { type PlainVisit, visitsOf } from "./visits";

/** So many visits the method itself is given against who practises. */
const VISITS_OF_METHOD = 5;
/** So many suspects are drawn. */
const MOST_DRAWN = 3;

export interface StudyAsked {
  readings: readonly CareReading[];
  /** Ids of visits that were made. */
  done: readonly string[];
  /** A hidden fault by its seed: what is read comes of it, visit by visit; `isOver` asks for what it was. */
  practice?: { seed: number; isOver: boolean };
}

export interface StudyVisit extends Visit {
  /** What is read on it, and what the plan says there. */
  places: { port: string; state: ReadState; healthyPa: number }[];
}

export interface SuspectLine {
  kind: CareFault["kind"];
  ids: Id[];
  /** Of the feed. */
  legs: Leg[];
}

export interface Study {
  readings: CareReading[];
  /** Everything that it could be, as it is told apart. */
  groups: { group: string; kind: CareFault["kind"]; ids: Id[] }[];
  found: Diagnosis | null;
  /** Of the visits that were made. */
  minutes: number;
  /** Visits that are left, by what they are likely to tell for their minutes. */
  next: StudyVisit[];
  /** At full load: the healthy line, and the suspects' own. */
  healthy: Leg[];
  suspects: SuspectLine[];
  practised: { truth: string | null; own: Trial } | null;
}

function groupsOf({ faults }: Diagnoser): Study["groups"] {
  const groups = new Map<string, CareFault[]>();
  for (const fault of faults) groups.set(fault.group, [...(groups.get(fault.group) ?? []), fault]);
  return [...groups].map(([group, mine]) => {
    const along = mine.toSorted((a, b) => a.atM - b.atM);
    return { group, kind: (along[0] as CareFault).kind, ids: along.map(({ at }) => at) };
  });
}

const feedOf = (result: LineUpResult | null): Leg[] =>
  result?.outcome === "solved" ? (fuelWay(result)?.legs ?? []).filter(({ side }) => side === "feed") : [];

/** @returns null where nothing is fed, so that nothing can be told */
export function study(diagnoser: Diagnoser, { readings, done, practice }: StudyAsked): Study | null {
  if (!diagnoser.isReady) return null;
  const visits = visitsOf(diagnoser);
  const made = done.flatMap((id) => visits.find((one) => one.id === id) ?? []);
  const truth = practice ? drawnFault(diagnoser, practice.seed) : null;
  const known = practice ? readOf(diagnoser, truth, practice.seed, made) : [...readings];
  const found = known.length > 0 ? diagnoser.diagnose(known) : null;
  const left = visits.filter(({ id }) => !done.includes(id));
  const isDrawn = !practice && found && found.outcome !== "nothingShows";
  return {
    readings: known,
    groups: groupsOf(diagnoser),
    found,
    minutes: made.reduce((sum, { minutes }) => sum + minutes, 0),
    next: diagnoser.next(known, left).map((visit) => ({ ...visit, places: placesOf(diagnoser, visit) })),
    healthy: feedOf(diagnoser.solvedHealthy()),
    suspects: isDrawn
      ? found.ranked.slice(0, MOST_DRAWN).flatMap(({ kind, ids, faultIds, size }) => {
          const legs = feedOf(diagnoser.solvedWith(faultIds[0] ?? "", size));
          return legs.length > 0 ? [{ kind, ids, legs }] : [];
        })
      : [],
    practised: practice?.isOver
      ? {
          truth: truth?.fault.group ?? null,
          own: trial(diagnoser, visits, truth, practice.seed + 1, VISITS_OF_METHOD),
        }
      : null,
  };
}

/** What its owner tells and what each visit read, the same for the same seed and visits. */
function readOf(
  diagnoser: Diagnoser,
  truth: SimulatedSystem["fault"],
  seed: number,
  visits: readonly PlainVisit[],
): CareReading[] {
  const system = new SimulatedSystem(diagnoser, truth, seed + 1);
  return [...system.told(), ...visits.flatMap((visit) => system.visit(visit))];
}

const placesOf = (diagnoser: Diagnoser, visit: PlainVisit): StudyVisit["places"] =>
  visit.kind === "look"
    ? []
    : diagnoser
        .placesOf(visit)
        .map(({ port, state }) => ({ port, state, healthyPa: diagnoser.healthyPa(port, state) }));
