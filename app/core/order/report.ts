/** The work order as scripts read it. Field names are the contract. */
import type { Book } from "../book/entries";
import type { Id } from "../kinds/record";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { LITRE_M3 } from "../units/factors";
import type { Fact, Verb } from "./facts";
import { interimOf } from "./interim";
import { overPan } from "./pans";
import { hoursLeft, makerOf, progressOf, startsFrom } from "./progress";

const holdCodes: readonly Verb[] = [
  "batteryOff",
  "extinguisher",
  "ventilate",
  "support",
  "eyes",
  "pan",
  "photograph",
  "shutOff",
  "drainTank",
];

/**
 * @param from the plan that the work starts from; by default what the current one is based on, else nothing
 * @returns steps in an order that keeps their needs; minutes, litres, ids
 */
export function workReport(job: Job, book: Book, from: Id | undefined, people: number) {
  const after = currentPlan(job);
  const before =
    from === undefined ? startsFrom(job, after) : (job.plans.find(({ id }) => id === from) ?? null);
  const progress = progressOf(job, before, after, book);
  const { steps, outcome, fault, done, ledger } = progress;
  const verbOf = new Map(steps.map(({ id, verb }) => [id, verb]));
  const text = ({ fact, value }: Fact) => `${fact}=${value}`;
  const hours = hoursLeft({ ...progress, done: new Set() }, people);
  const pans = new Map<string, number>();
  for (const { place, litresM3 } of steps) pans.set(place, (pans.get(place) ?? 0) + litresM3);
  return {
    outcome,
    from: before?.id ?? null,
    ...(fault ? { fault: fault.outcome === "neverTrue" ? fault.needs : fault.ids } : {}),
    steps: steps.map(
      ({ id, verb, of, port, place, needs, people: hands, workMin, waitMin, litresM3, pre, post }) => ({
        id,
        verb,
        of: port === undefined ? of : [...of, port],
        ...(port !== undefined && { port }),
        place,
        needs,
        // Steps of its needs that are there for safety alone.
        holds: needs.filter((need) => holdCodes.includes(verbOf.get(need) as Verb)),
        people: hands,
        workMin,
        waitMin,
        opens: pre.filter(({ fact, value }) => fact.startsWith("port.") && value === "joined").map(text),
        litres: litresM3 / LITRE_M3,
        undoes: post.map(text),
        redoneBy: post.flatMap((one) =>
          steps
            .filter(
              (other) =>
                other.id !== id &&
                other.pre.some((need) => need.fact === one.fact && need.value === one.value) &&
                other.post.some(({ fact }) => fact === one.fact),
            )
            .map((other) => other.id),
        ),
      }),
    ),
    done: [...done],
    ledger: ledger.map((one) => ({ ...one, redoneBy: one.redoneBy ?? makerOf(progress, one)?.id ?? null })),
    critical: [...hours.critical],
    schedule: { people, finishMin: hours.finishMin, slots: hours.slots },
    pans: Object.fromEntries(
      [...pans].filter(([, m3]) => m3 > 0).map(([place, m3]) => [place, m3 / LITRE_M3]),
    ),
    interim: interimOf(job, before, after, progress, people),
    notes: [
      ...progress.noLongerWanted.map((id) => `noLongerWanted:${id}`),
      ...overPan(steps, job.panM3).map(({ id }) => `overPan:${id}`),
    ],
  };
}
