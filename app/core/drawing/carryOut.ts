/** A command with what it does to the drawing: what stood stands, in the same step of undo. */
import { enablePatches, produceWithPatches } from "immer";
import type { Command } from "../edit/command";
import { type Applied, applyCommand } from "../edit/commands";
import type { Id } from "../kinds/record";
import { buildNetwork } from "../network/network";
import { neighbours } from "../plan/neighbours";
import { partsOf, portKey, portsOf } from "../plan/ports";
import type { Job, Plan } from "../plan/types";
import { placeNear, type Settled, settled } from "./settle";

enablePatches();

/** What a drawing is made of: bodies, their ports and what joins them. */
const shapeOf = (job: Job, plan: Plan): string =>
  JSON.stringify([
    job.tanks.map(({ id, ports }) => [id, ports.map((port) => port.id)]),
    partsOf(job, plan).map((part) => [part.id, part.kind, portsOf(part).map(({ id }) => id)]),
    [...plan.runs, ...plan.joints].map(({ id, from, to }) => [id, portKey(from), portKey(to)]),
  ]);

/** One record made as another, key by key: what does not change is not written. */
function keep<T>(record: Record<Id, T>, wanted: Record<Id, T>): void {
  for (const [id, value] of Object.entries(wanted))
    if (JSON.stringify(record[id]) !== JSON.stringify(value)) record[id] = value;
  for (const id of Object.keys(record)) if (!(id in wanted)) delete record[id];
}

const planNow = ({ plans, currentPlanId }: Job) => plans.find(({ id }) => id === currentPlanId);

/** Parts that hang together without a tank or an engine among them. */
function loosePieces(job: Job, plan: Plan): Set<Id>[] {
  const near = neighbours(job, plan);
  const fixed = new Set([...job.tanks, ...job.consumers].map(({ id }) => id));
  const seen = new Set<Id>();
  return [...near.keys()].flatMap((start) => {
    if (seen.has(start)) return [];
    const piece = new Set([start]);
    for (const id of piece) for (const next of near.get(id) ?? []) piece.add(next);
    for (const id of piece) seen.add(id);
    return [...piece].some((id) => fixed.has(id)) ? [] : [piece];
  });
}

/** A part whose hoses another one took over as it went leaves it its place, and its ports their sides. */
function takeOver(was: Plan, is: Plan, { places, sides }: Settled): Set<Id> {
  const heirs = new Set<Id>();
  const ends = (plan: Plan) =>
    new Map(
      [...plan.runs, ...plan.joints].flatMap(({ id, from, to }) => [
        [`${id} from`, from],
        [`${id} to`, to],
      ]),
    );
  const before = ends(was);
  const [had, has] = [was, is].map(({ parts }) => new Set(parts.map(({ id }) => id))) as [Set<Id>, Set<Id>];
  for (const [end, now] of ends(is)) {
    const then = before.get(end);
    const at = then && places[then.part];
    if (!at || has.has(then.part) || had.has(now.part) || !has.has(now.part)) continue;
    places[now.part] = at;
    heirs.add(now.part);
    const own = sides[now.part] ?? { west: [], east: [] };
    const side = sides[then.part]?.west.includes(then.port) ? "west" : "east";
    sides[now.part] = { ...own, [side]: [...own[side], now.port] };
  }
  return heirs;
}

/**
 * The places of a plan after an edit: what stood stands, what is new is placed, and a loose piece that was joined to
 * the rest goes to where it was joined.
 */
export function placeAfter(before: Job, after: Job): Settled | null {
  const [was, is] = [planNow(before), planNow(after)];
  if (!was || !is || was.id !== is.id) return null;
  const put = Object.entries(is.places ?? {}).filter(([id, cell]) => {
    const then = was.places?.[id];
    return was.places !== is.places && (then?.x !== cell.x || then.y !== cell.y);
  });
  if (put.length === 0 && shapeOf(before, was) === shapeOf(after, is)) return null;
  const old = settled(buildNetwork(before), was);
  const network = buildNetwork(after);
  const places = { ...old.places };
  const still = loosePieces(after, is);
  for (const piece of loosePieces(before, was)) {
    const isJoined = [...piece].every((id) => !still.some((one) => one.has(id)));
    if (isJoined) for (const id of piece) delete places[id];
  }
  const sides = { ...old.sides };
  const loosely = takeOver(was, is, { places, sides });
  const now = settled(network, { places, sides, loosely, makesRoom: true });
  for (const [id, cell] of put) now.places[id] = { ...cell, ...placeNear(network, now, id, cell) };
  return now;
}

/** Applies a command and keeps the drawing. Throws as {@link applyCommand} does. */
export function carryOut(job: Job, command: Command): Applied {
  const applied = applyCommand(job, command);
  // A whole job and a drawing laid out anew bring their own places.
  const placed =
    command.name === "replaceJob" || command.name === "tidy" ? null : placeAfter(job, applied.job);
  if (!placed) return applied;
  const [next, patches, inverse] = produceWithPatches(applied.job, (draft) => {
    const plan = planNow(draft as Job) as Plan;
    plan.places = plan.places ?? {};
    plan.sides = plan.sides ?? {};
    keep(plan.places, placed.places);
    keep(plan.sides, placed.sides);
  });
  return {
    ...applied,
    job: next,
    patches: [...applied.patches, ...patches],
    inverse: [...inverse, ...applied.inverse],
  };
}
