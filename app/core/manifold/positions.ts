/**
 * Every position that the valves of a plan can stand in, solved and judged with all consumers running: which of them
 * return into another tank than they draw from, close a return, or join two tanks; and which settings, alone or in
 * pairs, are to blame whatever the others do. Practice 1, 2 and 14.
 */
import { Way } from "../hydraulics/newton";
import { LineUpSolver, type SolvedLineUp } from "../hydraulics/solve";
import type { Network } from "../network/network";
import { isPowered } from "../plan/families";
import type { Conditions, Id, LineUp, ValveSetting } from "../plan/types";
import { isValve, positionsOf, type Valve } from "../plan/valves";

export type Danger = "returnElsewhere" | "returnClosed" | "tanksJoined";

/** One handle and how it stands: a valve in a position, or a branch of a manifold open or shut. */
export interface HandleSetting {
  valveId: Id;
  branchId?: Id;
  position: Id;
}

/** What stands behind dangerous positions whatever the other valves do: one setting, or two that must not meet. */
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
}

interface Handle {
  valve: Valve;
  branchId?: Id;
  positions: Id[];
}

const OPEN = "open";
const SHUT = "shut";

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
export const countPositions = (network: Network): number =>
  handlesOf(network).reduce((product, { positions }) => product * positions.length, 1);

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

/** Which dangers a solved position holds; -1 stands for the plan as a whole. */
function judge(solved: SolvedLineUp, seen: Uint8Array, into: Judged[]): boolean {
  into.length = 0;
  let fed = true;
  solved.network.engines.forEach(({ part, feed, back }, k) => {
    const outcome = solved.consumers.get(part.id);
    if (outcome?.outcome === "noPath") {
      if (outcome.side === "return") into.push({ danger: "returnClosed", consumer: k });
      else fed = false;
      return;
    }
    if (outcome?.outcome === "starved") fed = false;
    if (back === null) return;
    const drawn = tanksFrom(solved, feed, true, seen);
    const filled = tanksFrom(solved, back, false, seen);
    if ((filled & ~drawn) !== 0) into.push({ danger: "returnElsewhere", consumer: k });
  });
  if (joined(solved, seen)) into.push({ danger: "tanksJoined", consumer: -1 });
  return fed;
}

/** Counts how often settings, alone and in pairs, meet each danger. */
class Blame {
  private readonly starts: number[] = [];
  private readonly size: number;
  private readonly hits = new Map<
    string,
    { danger: Danger; consumer: number; single: Int32Array; pair: Int32Array }
  >();

  constructor(private readonly handles: readonly Handle[]) {
    let at = 0;
    for (const { positions } of handles) {
      this.starts.push(at);
      at += positions.length;
    }
    this.size = at;
  }

  add(digits: readonly number[], { danger, consumer }: Judged): void {
    const key = `${danger}:${consumer}`;
    let hit = this.hits.get(key);
    if (!hit) {
      hit = { danger, consumer, single: new Int32Array(this.size), pair: new Int32Array(this.size ** 2) };
      this.hits.set(key, hit);
    }
    for (let k = 0; k < digits.length; k++) {
      const a = (this.starts[k] as number) + (digits[k] as number);
      hit.single[a] = (hit.single[a] as number) + 1;
      for (let l = k + 1; l < digits.length; l++) {
        const pair = a * this.size + (this.starts[l] as number) + (digits[l] as number);
        hit.pair[pair] = (hit.pair[pair] as number) + 1;
      }
    }
  }

  private setting(k: number, digit: number): HandleSetting {
    const { valve, branchId, positions } = this.handles[k] as Handle;
    return {
      valveId: valve.id,
      ...(branchId === undefined ? {} : { branchId }),
      position: positions[digit] as Id,
    };
  }

  /** Settings that are always to blame: alone first, then pairs of settings that are not to blame alone. */
  causes(count: number, consumers: readonly Id[]): Cause[] {
    const { handles, starts, size } = this;
    return [...this.hits.values()].flatMap(({ danger, consumer, single, pair }) => {
      const consumerId = consumers[consumer] ?? null;
      const found: Cause[] = [];
      const alone = new Uint8Array(size);
      handles.forEach(({ positions }, k) =>
        positions.forEach((_, digit) => {
          const a = (starts[k] as number) + digit;
          const hit = single[a] as number;
          if (hit === 0 || hit !== count / positions.length) return;
          alone[a] = 1;
          found.push({ danger, consumerId, settings: [this.setting(k, digit)], count: hit });
        }),
      );
      for (let k = 0; k < handles.length; k++) {
        for (let l = k + 1; l < handles.length; l++) {
          const [m, n] = [(handles[k] as Handle).positions.length, (handles[l] as Handle).positions.length];
          for (let i = 0; i < m; i++) {
            for (let j = 0; j < n; j++) {
              const [a, b] = [(starts[k] as number) + i, (starts[l] as number) + j];
              const hit = pair[a * size + b] as number;
              if (hit === 0 || alone[a] || alone[b] || hit !== count / (m * n)) continue;
              found.push({
                danger,
                consumerId,
                settings: [this.setting(k, i), this.setting(l, j)],
                count: hit,
              });
            }
          }
        }
      }
      return found;
    });
  }
}

/** More positions than this are not gone through one by one. */
export const MOST_POSITIONS = 20000;

/** Goes through every position; null where there are more than can be. All consumers run and all pumps are on. */
export function judgePositions(
  network: Network,
  conditions: Conditions,
  onProgress?: (done: number, of: number) => void,
): Positions | null {
  const count = countPositions(network);
  if (count > MOST_POSITIONS) return null;
  const handles = handlesOf(network);
  const solver = new LineUpSolver(network);
  const lineUp: LineUp = {
    id: "every",
    name: "every",
    purpose: "run",
    valves: {},
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
  const blame = new Blame(handles);
  const dangerous: Record<Danger, number> = { returnElsewhere: 0, returnClosed: 0, tanksJoined: 0 };
  let safe = 0;
  let unfed = 0;
  for (let done = 0; done < count; done++) {
    write(handles, digits, lineUp.valves);
    const result = solver.solveInPlace(lineUp, conditions);
    if (result.outcome === "solved") {
      const fed = judge(result, seen, judged);
      if (!fed) unfed++;
      for (const one of judged) {
        if (judged.findIndex(({ danger }) => danger === one.danger) === judged.indexOf(one))
          dangerous[one.danger]++;
        blame.add(digits, one);
      }
      if (judged.length === 0 && fed) safe++;
    } else unfed++;
    for (let k = handles.length - 1; k >= 0; k--) {
      const next = (digits[k] as number) + 1;
      digits[k] = next < (handles[k] as Handle).positions.length ? next : 0;
      if (digits[k] !== 0) break;
    }
    if (done % 256 === 255) onProgress?.(done + 1, count);
  }
  const causes = blame.causes(
    count,
    network.engines.map(({ part }) => part.id),
  );
  return { count, safe, unfed, dangerous, causes };
}
