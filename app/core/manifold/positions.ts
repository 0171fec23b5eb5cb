/**
 * Every position that the valves of a plan can stand in, solved and judged with all consumers running: which of them
 * return into another tank than they draw from, close a return, or join two tanks; and which settings together
 * are to blame whatever the others do. Practice 1, 2 and 14.
 */

import { LineUpSolver, type SolvedLineUp } from "../hydraulics/solve";
import { isPowered, isValve, type Valve } from "../kinds/families";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import { portKey } from "../plan/ports";
import type { Conditions, LineUp, ValveSetting } from "../plan/types";
import { positionsOf } from "../plan/valves";
import { Way } from "../solver/newton";

export type Danger = "returnElsewhere" | "returnClosed" | "tanksJoined";

/** One handle and how it stands: a valve in a position, or a branch of a manifold open or shut. */
export interface HandleSetting {
  valveId: Id;
  branchId?: Id;
  position: Id;
}

/** What stands behind dangerous positions whatever the other valves do: settings that must not meet, or one alone. */
export interface Cause {
  danger: Danger;
  consumerId: Id | null;
  settings: HandleSetting[];
  /** How many positions it accounts for. */
  count: number;
}

export interface Positions {
  /** How many there are, and how many are dangerous in some way. */
  count: number;
  safe: number;
  unfed: number;
  dangerous: Record<Danger, number>;
  causes: Cause[];
  /** Shut-offs at tank outlets that were taken as open, where there were too many positions with them. */
  heldIds: Id[];
}

interface Handle {
  valve: Valve;
  branchId?: Id;
  positions: Id[];
}

const OPEN = "open";
const SHUT = "shut";

/** Shut-offs on a tank's outlet: shut, they starve what they feed, and no return goes elsewhere for it. */
function outletShutOffs({ job, plan }: Network): Set<Id> {
  const outlets = new Set(
    job.tanks.flatMap((tank) =>
      tank.ports
        .filter(({ role }) => role === "outlet")
        .map(({ id }) => portKey({ part: tank.id, port: id })),
    ),
  );
  const beside = [...plan.runs, ...plan.joints].flatMap(({ from, to }) => [
    ...(outlets.has(portKey(from)) ? [to.part] : []),
    ...(outlets.has(portKey(to)) ? [from.part] : []),
  ]);
  return new Set(
    plan.parts.filter(({ id, kind }) => kind === "twoWay" && beside.includes(id)).map(({ id }) => id),
  );
}

const countOf = (handles: readonly Handle[]): number =>
  handles.reduce((product, { positions }) => product * positions.length, 1);

function handlesOf(network: Network): Handle[] {
  return network.plan.parts
    .filter(isValve)
    .flatMap((valve): Handle[] =>
      valve.kind === "bank"
        ? valve.branches.map(({ id }) => ({ valve, branchId: id, positions: [SHUT, OPEN] }))
        : [{ valve, positions: positionsOf(valve).map(({ id }) => id) }],
    );
}

/** How many positions a plan's valves have in all. */
export const countPositions = (network: Network): number => countOf(handlesOf(network));

/** Writes the settings of one position into a line-up's valves, kept between calls. */
function write(
  handles: readonly Handle[],
  digits: readonly number[],
  valves: Record<Id, ValveSetting>,
): void {
  for (const { valve } of handles)
    if (valve.kind === "bank") valves[valve.id] = { kind: "branches", open: [] };
  handles.forEach(({ valve, branchId, positions }, k) => {
    const position = positions[digits[k] as number] as Id;
    const setting = valves[valve.id];
    if (branchId === undefined) valves[valve.id] = { kind: "position", position };
    else if (setting?.kind === "branches" && position === OPEN) setting.open.push(branchId);
  });
}

/** Tanks met from a node against the flow (`up`) or with it, as bits by their order. */
function tanksFrom(solved: SolvedLineUp, start: number, up: boolean, seen: Uint8Array): number {
  const { from, to, unknowns, linkStart, linkAt } = solved.network.topology;
  seen.fill(0);
  seen[start] = 1;
  const stack = [start];
  let bits = 0;
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    for (let k = linkStart[node] as number; k < (linkStart[node + 1] as number); k++) {
      const link = linkAt[k] as number;
      const q = solved.flow[link] as number;
      if (q === 0) continue;
      const [tail, head] = q > 0 ? [from[link], to[link]] : [to[link], from[link]];
      const next = (up ? tail : head) as number;
      if ((up ? head : tail) !== node || seen[next]) continue;
      seen[next] = 1;
      if (next >= unknowns) bits |= 1 << (next - unknowns);
      else stack.push(next);
    }
  }
  return bits;
}

/** Tanks whose fuel can pass to one another over open ways alone: neither a pump, a check nor an arrow between. */
function joined(solved: SolvedLineUp, seen: Uint8Array): boolean {
  const { topology, links } = solved.network;
  const { from, to, unknowns, nodes, linkStart, linkAt } = topology;
  const { way } = solved.settings.laws;
  for (let tank = unknowns; tank < nodes; tank++) {
    seen.fill(0);
    seen[tank] = 1;
    const stack = [tank];
    for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
      for (let k = linkStart[node] as number; k < (linkStart[node + 1] as number); k++) {
        const link = linkAt[k] as number;
        const kind = links[link]?.kind;
        if (way[link] !== Way.open || kind === "pump" || kind === "dosing") continue;
        const next = (from[link] === node ? to[link] : from[link]) as number;
        if (seen[next]) continue;
        if (next >= unknowns) return true;
        seen[next] = 1;
        stack.push(next);
      }
    }
  }
  return false;
}

interface Judged {
  danger: Danger;
  consumer: number;
}

/** Which dangers a solved position holds, and which consumers are not fed; -1 stands for the plan as a whole. */
function judge(solved: SolvedLineUp, seen: Uint8Array, into: Judged[], unfed: boolean[]): void {
  into.length = 0;
  solved.network.engines.forEach(({ part, feed, back }, k) => {
    const outcome = solved.consumers.get(part.id);
    if (outcome?.outcome === "noPath") {
      if (outcome.side === "return") into.push({ danger: "returnClosed", consumer: k });
      unfed[k] = outcome.side === "feed";
      return;
    }
    unfed[k] = outcome?.outcome === "starved" || outcome?.outcome === "air";
    if (back === null) return;
    const drawn = tanksFrom(solved, feed, true, seen);
    const filled = tanksFrom(solved, back, false, seen);
    if ((filled & ~drawn) !== 0) into.push({ danger: "returnElsewhere", consumer: k });
  });
  if (joined(solved, seen)) into.push({ danger: "tanksJoined", consumer: -1 });
}

const NOT = 0;
const DANGEROUS = 1;
/** Nothing is fed, so nothing is returned, or a tank is shut off: it says nothing of what the other handles do. */
const UNFED = 2;

/**
 * What is behind dangerous positions: for each that no cause covers yet, settings are let go one by one as long as
 * every position with what is left is dangerous or unfed. What remains is to blame whatever else is set.
 */
class Blame {
  private readonly weights: number[];
  /** Handles in the order in which they are let go: shut-offs first, what chooses a tank last. */
  private readonly order: number[];

  constructor(
    private readonly handles: readonly Handle[],
    private readonly count: number,
  ) {
    let weight = count;
    this.weights = handles.map(({ positions }) => {
      weight /= positions.length;
      return weight;
    });
    const rank = ({ valve }: Handle) => (valve.kind === "twoWay" ? 0 : valve.kind === "bank" ? 1 : 2);
    this.order = handles
      .map((_, k) => k)
      .sort((a, b) => rank(handles[a] as Handle) - rank(handles[b] as Handle));
  }

  private digit(position: number, k: number): number {
    const size = (this.handles[k] as Handle).positions.length;
    return Math.floor(position / (this.weights[k] as number)) % size;
  }

  /** Calls back for every position in which the fixed handles stand as in `position`; ends early on false. */
  private each(position: number, fixed: readonly boolean[], visit: (at: number) => boolean): boolean {
    const free = this.handles.flatMap((_, k) => (fixed[k] ? [] : [k]));
    const base = this.handles.reduce(
      (sum, _, k) => (fixed[k] ? sum + this.digit(position, k) * (this.weights[k] as number) : sum),
      0,
    );
    const walk = (level: number, at: number): boolean => {
      const k = free[level];
      if (k === undefined) return visit(at);
      const { positions } = this.handles[k] as Handle;
      for (let digit = 0; digit < positions.length; digit++)
        if (!walk(level + 1, at + digit * (this.weights[k] as number))) return false;
      return true;
    };
    return walk(0, base);
  }

  private setting(position: number, k: number): HandleSetting {
    const { valve, branchId, positions } = this.handles[k] as Handle;
    return {
      valveId: valve.id,
      ...(branchId === undefined ? {} : { branchId }),
      position: positions[this.digit(position, k)] as Id,
    };
  }

  causes(marks: Uint8Array, danger: Danger, consumerId: Id | null): Cause[] {
    const covered = new Uint8Array(this.count);
    const found: Cause[] = [];
    for (let position = 0; position < this.count; position++) {
      if (marks[position] !== DANGEROUS || covered[position]) continue;
      const fixed = this.handles.map(() => true);
      for (const k of this.order) {
        fixed[k] = false;
        if (!this.each(position, fixed, (at) => marks[at] !== NOT)) fixed[k] = true;
      }
      let count = 0;
      this.each(position, fixed, (at) => {
        if (marks[at] === DANGEROUS) count++;
        covered[at] = 1;
        return true;
      });
      const settings = this.handles.flatMap((_, k) => (fixed[k] ? [this.setting(position, k)] : []));
      found.push({ danger, consumerId, settings, count });
    }
    return found.sort((one, other) => one.settings.length - other.settings.length || other.count - one.count);
  }
}

/** More positions than this are not gone through one by one. */
export const MOST_POSITIONS = 20000;

/**
 * Goes through every position, with all consumers running and all pumps on but those for transfer. Where there are
 * more than `most`, shut-offs at tank outlets are taken as open; null where even then there are more.
 */
export function judgePositions(
  network: Network,
  conditions: Conditions,
  onProgress?: (done: number, of: number) => void,
  most: number = MOST_POSITIONS,
): Positions | null {
  const every = handlesOf(network);
  const shutOffs = outletShutOffs(network);
  const held = countOf(every) > most ? shutOffs : new Set<Id>();
  const handles = every.filter(({ valve }) => !held.has(valve.id));
  const count = countOf(handles);
  if (count > most) return null;
  const solver = new LineUpSolver(network);
  const lineUp: LineUp = {
    id: "every",
    name: "every",
    purpose: "run",
    valves: Object.fromEntries([...held].map((id) => [id, { kind: "position", position: OPEN }])),
    pumps: Object.fromEntries(
      network.plan.parts
        .filter(isPowered)
        .map(({ id, kind }) => [id, kind === "transferPump" ? "off" : "on"]),
    ),
    consumers: Object.fromEntries(network.engines.map(({ part }) => [part.id, "running"])),
    intendedTransfer: false,
  };
  const digits = handles.map(() => 0);
  const seen = new Uint8Array(network.nodes.length);
  const judged: Judged[] = [];
  const unfedNow: boolean[] = [];
  const marks = new Map<string, { danger: Danger; consumer: number; at: Uint8Array }>();
  for (const danger of ["returnElsewhere", "returnClosed"] as const)
    network.engines.forEach((_, consumer) =>
      marks.set(`${danger}:${consumer}`, { danger, consumer, at: new Uint8Array(count) }),
    );
  marks.set("tanksJoined:-1", { danger: "tanksJoined", consumer: -1, at: new Uint8Array(count) });
  const dangerous: Record<Danger, number> = { returnElsewhere: 0, returnClosed: 0, tanksJoined: 0 };
  let safe = 0;
  let unfed = 0;
  for (let done = 0; done < count; done++) {
    write(handles, digits, lineUp.valves);
    const result = solver.solveInPlace(lineUp, conditions);
    if (result.outcome === "solved") {
      judge(result, seen, judged, unfedNow);
      const fed = !unfedNow.includes(true);
      if (!fed) unfed++;
      judged.forEach(({ danger, consumer }, i) => {
        if (judged.findIndex((one) => one.danger === danger) === i) dangerous[danger]++;
        (marks.get(`${danger}:${consumer}`)?.at ?? seen)[done] = DANGEROUS;
      });
      const isCut = handles.some(
        ({ valve, positions }, k) => shutOffs.has(valve.id) && positions[digits[k] as number] !== OPEN,
      );
      for (const { danger, consumer, at } of marks.values())
        if (danger === "tanksJoined" ? isCut && at[done] === NOT : unfedNow[consumer]) at[done] = UNFED;
      if (judged.length === 0 && fed) safe++;
    } else {
      unfed++;
      for (const { at } of marks.values()) at[done] = UNFED;
    }
    for (let k = handles.length - 1; k >= 0; k--) {
      const next = (digits[k] as number) + 1;
      digits[k] = next < (handles[k] as Handle).positions.length ? next : 0;
      if (digits[k] !== 0) break;
    }
    if (done % 256 === 255) onProgress?.(done + 1, count);
  }
  const blame = new Blame(handles, count);
  const causes = [...marks.values()].flatMap(({ danger, consumer, at }) =>
    blame.causes(at, danger, network.engines[consumer]?.part.id ?? null),
  );
  return { count, safe, unfed, dangerous, causes, heldIds: [...held] };
}
