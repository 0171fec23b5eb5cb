/**
 * Old hoses that are blown through as one way: from the opened end nearest the tank, through what lets gas by, a pump
 * that is off by its own bypass.
 */
import { isPlainThrough, isPushing, isRated } from "../kinds/families";
import { kindOf, type Part } from "../kinds/index";
import type { Id } from "../kinds/record";
import { portsOf } from "../plan/ports";
import type { Plan, PortRef, Run } from "../plan/types";

export interface OldWay {
  /** In the way that the gas takes; a run that is passed from its `to` end is turned. */
  legs: { run: Run; isTurned: boolean }[];
  /** What it passes between them. */
  through: Id[];
}

/** Lets gas from its first port to its second while nothing runs. A filter does so only where its bowl is emptied for the work. */
function letsBy(part: Part, emptied: ReadonlySet<Id>): boolean {
  if (portsOf(part).length !== 2) return false;
  if (isPushing(part) && part.off.kind === "blocked") return false;
  if (isPushing(part) || isRated(part) || isPlainThrough(part)) return true;
  if (part.kind === "filter") return emptied.has(part.id);
  return part.kind === "check" || part.kind === "antiSiphon" || part.kind === "bulb";
}

/** Of hoses that come off, which are passed one after the other: each in one way, alone where it has no neighbour. */
export function oldWays(plan: Plan, runs: readonly Run[], emptied: ReadonlySet<Id>): OldWay[] {
  const endAt = ({ part, port }: PortRef) =>
    runs.find(({ from, to }) => [from, to].some((ref) => ref.part === part && ref.port === port));
  const next = new Map<Id, { run: Run; part: Part }>();
  const follows = new Set<Id>();
  for (const part of plan.parts) {
    if (!letsBy(part, emptied)) continue;
    const ports = kindOf(part).through(part);
    if (!ports) continue;
    const [a, b] = ports.map((port) => endAt({ part: part.id, port }));
    if (!a || !b || a === b) continue;
    // What has no right direction is passed as its hoses are drawn.
    const isTurned = isPlainThrough(part) && a.to.part !== part.id;
    const [first, second] = isTurned ? [b, a] : [a, b];
    if (next.has(first.id) || follows.has(second.id)) continue;
    next.set(first.id, { run: second, part });
    follows.add(second.id);
  }
  const seen = new Set<Id>();
  const waysFrom = (starts: readonly Run[]) =>
    starts.flatMap((start): OldWay[] => {
      const way: OldWay = { legs: [], through: [] };
      let into: Id | undefined;
      for (let run: Run | undefined = start; run && !seen.has(run.id); ) {
        seen.add(run.id);
        const on: { run: Run; part: Part } | undefined = next.get(run.id);
        const isTurned: boolean =
          into === undefined ? on !== undefined && run.from.part === on.part.id : run.to.part === into;
        way.legs.push({ run, isTurned });
        if (!on || seen.has(on.run.id)) break;
        way.through.push(on.part.id);
        into = on.part.id;
        run = on.run;
      }
      return way.legs.length > 0 ? [way] : [];
    });
  // A ring of hoses has no first: it is begun anywhere.
  return [...waysFrom(runs.filter(({ id }) => !follows.has(id))), ...waysFrom(runs)];
}

/** The ends at which a way is opened. */
export function endsOf({ legs }: OldWay): [PortRef, PortRef] {
  const first = legs[0] as OldWay["legs"][number];
  const last = legs.at(-1) as OldWay["legs"][number];
  return [first.isTurned ? first.run.to : first.run.from, last.isTurned ? last.run.from : last.run.to];
}
