/**
 * What a plan is built from, line by line: parts, hose, what seals and holds them, what carries their current, what is
 * spent, what breaks, and tools that are not in every box. Counted from the plan; what the box has is taken off.
 */
import { passageHoles, sawsOf } from "../boards/passages";
import { type BoxItem, cutsFromBox, sameName } from "../box/box";
import { circuitOf } from "../circuits/circuit";
import type { End } from "../ends/ends";
import { jointNeeds, looksOf, type PlanJoint, planJoints } from "../joints/joints";
import { elementsOf } from "../kinds/families";
import { kindOf, type Part } from "../kinds/index";
import type { Id } from "../kinds/record";
import { elementLifeH } from "../laws/elementLife";
import { differs } from "../plan/differs";
import { lyingRuns } from "../plan/lying";
import { openPorts } from "../plan/openPorts";
import { distanceM, placedPorts } from "../plan/ports";
import { goesByRoad } from "../plan/road";
import type { Job, Plan, Run, Tank, TankLine } from "../plan/types";
import { cutLengthM } from "../tanks/pickup";
import { clipCounts, clipLines } from "./clips";
import { hoseLines, type PartLine, partLines } from "./partsList";
import { isFlared, tubeEnds } from "./tubeEnds";

/** Where it is bought, as suppliers are parted. */
export const buyGroups = [
  "parts",
  "filters",
  "hose",
  "fittings",
  "electric",
  "consumables",
  "tools",
] as const;
export type BuyGroup = (typeof buyGroups)[number];

export type BuyWhat =
  | { kind: "part"; line: PartLine }
  | { kind: "element"; micron: number; of: Part["kind"] }
  /** Ring or gasket of a lid, bowl or drain: in hand before it is opened. */
  | { kind: "seal"; of: Part["kind"] }
  | { kind: "hose"; marking: string; boreM: number }
  | { kind: "adapter"; shape: string }
  /** On a port whose end nobody entered: what the school puts there. */
  | { kind: "tail"; boreM: number; isPushOn: boolean }
  /** Between two such ports. */
  | { kind: "nipple" }
  /** Of a flared tube: on it before the flare. */
  | ({ kind: "nut" } & End)
  /** Between a hose and a port of another bore whose ends nobody entered. */
  | { kind: "reducer"; hoseM: number; portM: number }
  /** For a port that nothing is on. */
  | { kind: "plug" }
  | { kind: "washer" }
  /** Screw or stud of a bracket that is undone: old ones shear. */
  | { kind: "fixing" }
  | { kind: "clamp"; outsideM: number }
  | { kind: "clip"; outsideM: number }
  | { kind: "grommet"; passM: number; wallM: number }
  | { kind: "threadSealant" | "antiSeize" | "epoxy" | "edgePaint" | "sleeve" }
  | { kind: "wire"; areaM2: number; pole: "positive" | "negative" }
  | { kind: "fuse"; amperes: number }
  /** Of what is wired as its own maker says. */
  | { kind: "makerFuse" }
  | { kind: "tank" | "consumer"; name: string }
  | { kind: "alarm" }
  | { kind: "fuel"; name: string; volumeM3: number }
  /** Tube in a tank from its top to its mouth. */
  | { kind: "dipTube"; name: string; boreM: number; cutM: number }
  /** Either side of a wall that a fitting goes through. */
  | { kind: "gasket" }
  | { kind: "fuseHolder" | "relay" }
  | { kind: "crimp"; areaM2: number }
  | { kind: "holeSaw"; diameterM: number; name: string }
  | { kind: "flareTool" | "bender" | "torqueSpanner" | "filterSpanner" | "crimpTool" };

export interface BuyLine {
  /** The same thing in every plan of the job: its price is kept by it. */
  key: string;
  group: BuyGroup;
  what: BuyWhat;
  /** Pieces; of hose and wire the pieces it is cut into. */
  count: number;
  lengthM: number | null;
  /** Of them spares: a common reserve, or what may break as it is undone. */
  spare: number;
  for: Id[];
}

/** One for each twenty, two at the least: rings, washers, clamps and clips that fall, tear or turn. Common practice, no source. */
const reserve = (count: number): number => (count === 0 ? 0 : Math.max(2, Math.ceil(count / 20)));
/** Each conductor is crimped at both its ends. */
const CRIMPS_A_CIRCUIT = 4;

const mm = (m: number): string => (m * 1000).toFixed(1);
const mm2 = (m2: number): string => (m2 * 1e6).toFixed(2);

/** Lines of one kind put together by their key. */
class Lines {
  private readonly byKey = new Map<string, BuyLine>();

  add(
    group: BuyGroup,
    key: string,
    what: BuyWhat,
    count: number,
    ids: readonly Id[],
    more: { lengthM?: number; spare?: number } = {},
  ): void {
    if (count <= 0) return;
    const { lengthM = null, spare = 0 } = more;
    const line = this.byKey.get(key);
    if (!line) {
      this.byKey.set(key, { key, group, what, count, lengthM, spare, for: [...ids] });
      return;
    }
    line.count += count;
    line.spare += spare;
    if (lengthM !== null) line.lengthM = (line.lengthM ?? 0) + lengthM;
    line.for.push(...ids.filter((id) => !line.for.includes(id)));
  }

  get all(): BuyLine[] {
    return [...this.byKey.values()].sort((a, b) => buyGroups.indexOf(a.group) - buyGroups.indexOf(b.group));
  }
}

export const nutOf = (end: End): BuyWhat => ({ kind: "nut", ...end });

/** What the plan joins and the plan that it is made from does not: all of it where there is none before. */
function newHere(job: Job, plan: Plan): (id: Id) => boolean {
  const before = job.plans.find(({ id }) => id === plan.basedOn);
  const joined = (one: Plan, id: Id) =>
    [...one.runs, ...one.joints].some(({ from, to }) => from.part === id || to.part === id);
  return (id) => joined(plan, id) && !(before && joined(before, id));
}

/** Tanks and heaters that the plan brings, with what they cannot do without. What an engine is bought with is not asked. */
function addTanksAndHeaters(lines: Lines, job: Job, plan: Plan): void {
  const isNew = newHere(job, plan);
  for (const tank of job.tanks) addTank(lines, plan, tank, isNew(tank.id));
  const heaters = job.consumers.filter(({ id, kind }) => kind === "heater" && isNew(id));
  for (const { id, name } of heaters) {
    lines.add("parts", `consumer:${id}`, { kind: "consumer", name }, 1, [id]);
    lines.add("electric", "makerFuse:", { kind: "makerFuse" }, 2, [id], { spare: 1 });
    lines.add("electric", "fuseHolder:", { kind: "fuseHolder" }, 1, [id]);
    // No heater without one: practice 38.
    lines.add("parts", "alarm:", { kind: "alarm" }, 1, [id]);
  }
}

function addTank(lines: Lines, plan: Plan, tank: Tank, isNew: boolean): void {
  const { id, name, ports, pickupFit } = tank;
  const joined = new Set(
    [...plan.runs, ...plan.joints].flatMap(({ from, to }) =>
      [from, to].flatMap(({ part, port }) => (part === id ? [port] : [])),
    ),
  );
  const port = ports.find((one) => one.id === pickupFit?.portId && joined.has(one.id));
  if (pickupFit && port) {
    const what = {
      kind: "dipTube" as const,
      name: port.name,
      boreM: port.boreM,
      cutM: cutLengthM(pickupFit),
    };
    lines.add("hose", `dipTube:${id}.${port.id}`, what, 1, [`${id}.${port.id}`, id], { lengthM: what.cutM });
  }
  if (!isNew) return;
  lines.add("parts", `tank:${id}`, { kind: "tank", name }, 1, [id]);
  for (const { id: portId, fitting } of ports)
    if (fitting === "side") lines.add("fittings", "gasket:", { kind: "gasket" }, 2, [`${id}.${portId}`, id]);
  const volumeM3 = plan.conditions.aboardM3[id] ?? 0;
  if (volumeM3 > 0) lines.add("consumables", `fuel:${id}`, { kind: "fuel", name, volumeM3 }, 1, [id]);
}

function addParts(lines: Lines, plan: Plan, stays: Stays): void {
  const bought = { ...plan, parts: plan.parts.filter(({ id }) => !stays.parts.has(id)) };
  for (const line of partLines(bought)) {
    const key = `part:${line.kind} ${Object.values(line.detail).join(" ")} ${mm(line.boreM)}`;
    lines.add("parts", key.slice(0, 110), { kind: "part", line }, line.count, line.ids);
  }
  for (const part of plan.parts) {
    const elements = elementsOf([part]);
    for (const { part: filter } of elements) {
      const what = { kind: "element" as const, micron: filter.micron, of: filter.kind };
      // The one it runs on comes with it, or is there in what stays; one more is aboard.
      const count = stays.parts.has(part.id) ? 1 : 2;
      lines.add("filters", `element:${filter.kind} ${filter.micron}`, what, count, [part.id], { spare: 1 });
    }
    if (elements.length > 0)
      lines.add("filters", `seal:${part.kind}`, { kind: "seal", of: part.kind }, 1, [part.id], { spare: 1 });
  }
}

function addFittings(lines: Lines, job: Job, plan: Plan, joints: readonly PlanJoint[], stays: Stays): void {
  const { adapters, washers } = jointNeeds(joints);
  const idsOf = (keys: readonly string[]) => [...new Set(keys.map((key) => key.split(".")[0] as string))];
  for (const { id, count, joints: at } of adapters)
    lines.add("fittings", `adapter:${id}`, { kind: "adapter", shape: id }, count, idsOf(at));
  addAssumedEnds(lines, job, plan, joints);
  const more = reserve(washers);
  const washed = joints
    .filter((joint) => jointNeeds([joint]).washers > 0)
    .flatMap(({ a, b }) => [a.id, b.id]);
  lines.add("fittings", "washer:", { kind: "washer" }, washers + more, [...new Set(washed)], { spare: more });
  for (const run of plan.runs.filter(({ id }) => !stays.runs.has(id)))
    for (const { end } of tubeEnds(plan, run))
      lines.add("fittings", `nut:${end.family} ${end.size}`, nutOf(end), 1, [run.id]);
  for (const { outsideM, ids, count } of clampsOf(job, plan, joints)) {
    const spare = reserve(count);
    lines.add("fittings", `clamp:${mm(outsideM)}`, { kind: "clamp", outsideM }, count + spare, ids, {
      spare,
    });
  }
  for (const { outsideM, count, runs } of clipCounts(
    clipLines(job, plan).filter(({ runId }) => !stays.runs.has(runId)),
  )) {
    const spare = reserve(count);
    lines.add("fittings", `clip:${mm(outsideM)}`, { kind: "clip", outsideM }, count + spare, runs, { spare });
  }
  const looks = joints.flatMap((joint) => looksOf(joint).map((look) => ({ look, id: joint.a.id })));
  const at = (wanted: string) => [
    ...new Set(looks.filter(({ look }) => look === wanted).map(({ id }) => id)),
  ];
  const [tapers, galling] = [at("clocked"), at("antiSeize")];
  if (tapers.length > 0) lines.add("consumables", "threadSealant:", { kind: "threadSealant" }, 1, tapers);
  if (galling.length > 0) lines.add("consumables", "antiSeize:", { kind: "antiSeize" }, 1, galling);
  if (washers > 0 || joints.some(({ joined }) => joined?.dress === "newWasher"))
    lines.add("tools", "torqueSpanner:", { kind: "torqueSpanner" }, 1, []);
}

/** Joints of a hose at a port whose end nobody entered: counted by the school in force, marked assumed. */
const assumedEnds = (plan: Plan, joints: readonly PlanJoint[]) =>
  joints.flatMap(({ a, b, state }) => {
    const run = state === "unknown" ? plan.runs.find(({ id }) => id === b.id) : undefined;
    return run && run.make !== "rigid" ? [{ run, key: `${a.id}.${a.port}` }] : [];
  });

/** A hose is pushed on its own barb where the school says so; the others are held by clamps. */
const isPushedOn = ({ schools }: Job): boolean =>
  schools.joints === "pushOnBarb" || schools.joints === "pushToConnect";

/** Bores this near go by one name in the trade: 7.9 and 8 mm, 3/8 in and 9.5 mm. */
const SAME_BORE = 0.06;

function addAssumedEnds(lines: Lines, job: Job, plan: Plan, joints: readonly PlanJoint[]): void {
  const isPushOn = isPushedOn(job);
  const ports = placedPorts(job, plan);
  for (const { run, key } of assumedEnds(plan, joints)) {
    const what = { kind: "tail" as const, boreM: run.boreM, isPushOn };
    lines.add("fittings", `tail:${mm(run.boreM)}${isPushOn ? " push" : ""}`, what, 1, [key, run.id]);
    const portM = ports.get(key)?.boreM;
    if (portM !== undefined && Math.abs(portM - run.boreM) > SAME_BORE * portM)
      lines.add(
        "fittings",
        `reducer:${mm(run.boreM)} ${mm(portM)}`,
        { kind: "reducer", hoseM: run.boreM, portM },
        1,
        [key, run.id],
      );
  }
  for (const { a, b, state } of joints)
    if (state === "unknown" && !plan.runs.some(({ id }) => id === b.id))
      lines.add("fittings", "nipple:", { kind: "nipple" }, 1, [`${a.id}.${a.port}`, `${b.id}.${b.port}`]);
  for (const { key, count } of openPortKeys(job, plan))
    lines.add("fittings", `plug:${key}`.slice(0, 110), { kind: "plug" }, count, [key]);
}

/** Ports that stand open in a plan, and spare ports of a head: each wants a plug, bought once however it is said. */
function openPortKeys(job: Job, plan: Plan): { key: string; count: number }[] {
  return [
    ...openPorts(job, plan).flatMap(({ owner, ports }) =>
      ports.map(({ id }) => ({ key: `${owner.id}.${id}`, count: 1 })),
    ),
    ...plan.parts.flatMap((part) =>
      part.kind === "filter" && part.sparePorts && part.sparePorts.count > 0
        ? [{ key: part.id, count: part.sparePorts.count }]
        : [],
    ),
  ];
}

/** Two at each end of a fill hose, one at each of another. ABYC and 33 CFR 183.560 kind, from memory. */
const clampsOfLine = ({ use, make }: TankLine): number => (make === "rigid" ? 0 : use === "fill" ? 4 : 2);

/** On an end that nobody entered: two afloat, one on the road. Shops' habit, common practice, no source. */
const clampsAssumed = (job: Job): number => (isPushedOn(job) ? 0 : goesByRoad(job.kind) ? 1 : 2);

/** Clamps by the outside of the hose that they hold. */
function clampsOf(job: Job, plan: Plan, joints: readonly PlanJoint[]) {
  const counts = new Map<string, { outsideM: number; count: number; ids: Id[] }>();
  const add = (run: Run | TankLine, count: number) => {
    if (count === 0) return;
    const key = mm(run.product.outerDiameterM);
    const line = counts.get(key) ?? { outsideM: run.product.outerDiameterM, count: 0, ids: [] };
    line.count += count;
    if (!line.ids.includes(run.id)) line.ids.push(run.id);
    counts.set(key, line);
  };
  for (const { b, joined, chain, state } of joints) {
    const dress = state === "seals" ? [joined?.dress] : (chain?.dress ?? []);
    const count = dress.filter((one) => one === "clamp").length;
    const run = plan.runs.find(({ id }) => id === b.id);
    if (run) add(run, count);
  }
  for (const { run } of assumedEnds(plan, joints)) add(run, clampsAssumed(job));
  for (const line of plan.tankLines ?? []) add(line, clampsOfLine(line));
  return [...counts.values()];
}

function addHoles(lines: Lines, job: Job, plan: Plan, items: readonly BoxItem[]): void {
  for (const { passage, passM, saw, isOwned, edge } of passageHoles(plan, sawsOf(job.units), sawsIn(items))) {
    if (passage.grommetM !== undefined) {
      const what = { kind: "grommet" as const, passM, wallM: passage.wallM };
      lines.add("fittings", `grommet:${mm(passM)} ${mm(passage.wallM)}`, what, 1, passage.runs);
    }
    if (passage.sleeveM !== undefined) lines.add("fittings", "sleeve:", { kind: "sleeve" }, 1, passage.runs);
    const care = edge === "deburrPaint" ? "edgePaint" : edge === "deburr" ? null : "epoxy";
    if (care) lines.add("consumables", `${care}:`, { kind: care }, 1, passage.runs);
    if (saw.saw && !isOwned) {
      const { diameterM, name } = saw.saw;
      lines.add("tools", `holeSaw:${mm(diameterM)}`, { kind: "holeSaw", diameterM, name }, 1, passage.runs);
    }
  }
}

function addElectric(lines: Lines, plan: Plan, stays: Stays): void {
  for (const part of plan.parts) {
    const circuit = circuitOf(part);
    if (!circuit || stays.parts.has(part.id)) continue;
    const { wireAreaM2: areaM2, wireLengthM, fuseA, hasRelay } = circuit;
    for (const pole of ["positive", "negative"] as const)
      lines.add("electric", `wire:${mm2(areaM2)} ${pole}`, { kind: "wire", areaM2, pole }, 1, [part.id], {
        lengthM: wireLengthM / 2,
      });
    lines.add("electric", `fuse:${fuseA}`, { kind: "fuse", amperes: fuseA }, 2, [part.id], { spare: 1 });
    lines.add("electric", "fuseHolder:", { kind: "fuseHolder" }, 1, [part.id]);
    if (hasRelay) lines.add("electric", "relay:", { kind: "relay" }, 1, [part.id]);
    lines.add("electric", `crimp:${mm2(areaM2)}`, { kind: "crimp", areaM2 }, CRIMPS_A_CIRCUIT, [part.id]);
    lines.add("tools", "crimpTool:", { kind: "crimpTool" }, 1, []);
  }
}

/** Screws a bracket is undone by, of which one is taken to break. Common practice, no source. */
const FIXINGS_A_PART = 2;

/** For parts that come off or move: by the plan that this one is made from. */
function addFixings(lines: Lines, job: Job, plan: Plan): void {
  const before = job.plans.find(({ id }) => id === plan.basedOn);
  const undone = (before?.parts ?? []).filter((old) => {
    const now = plan.parts.find(({ id }) => id === old.id);
    return !now || distanceM(now.position, old.position) > 0;
  });
  const count = FIXINGS_A_PART * undone.length;
  lines.add(
    "fittings",
    "fixing:",
    { kind: "fixing" },
    count,
    undone.map(({ id }) => id),
    { spare: count },
  );
}

function addTools(lines: Lines, job: Job, plan: Plan, joints: readonly PlanJoint[]): void {
  const rigid = lyingRuns(job, plan).flatMap(({ run }) => (run.make === "rigid" ? [run] : []));
  const isBent = rigid.some(({ route }) =>
    route.kind === "traced" ? route.points.length > 0 : route.bends.some(({ count }) => count > 0),
  );
  const flared = joints.some(
    ({ b }) => b.end !== null && isFlared.has(b.end.family) && rigid.some(({ id }) => id === b.id),
  );
  if (flared) lines.add("tools", "flareTool:", { kind: "flareTool" }, 1, []);
  if (isBent) lines.add("tools", "bender:", { kind: "bender" }, 1, []);
  if (plan.parts.some((part) => elementsOf([part]).length > 0 && kindOf(part).volumeM3(part) !== null))
    lines.add("tools", "filterSpanner:", { kind: "filterSpanner" }, 1, []);
}

/** Hole saws that the shop owns, m. */
export const sawsIn = (items: readonly BoxItem[]): number[] =>
  items.flatMap((item) => (item.kind === "saw" ? [item.diameterM] : []));

/** Parts and runs that the plan takes over from the one that it is made from. */
export interface Stays {
  parts: ReadonlySet<Id>;
  runs: ReadonlySet<Id>;
}

const NOTHING_STAYS: Stays = { parts: new Set(), runs: new Set() };

export function staysOf(job: Job, plan: Plan): Stays {
  const before = job.plans.find(({ id }) => id === plan.basedOn) ?? null;
  const { mine, was, isSameRun } = differs(job, before, plan);
  return {
    parts: new Set(mine.flatMap(({ id, kind }) => (was.get(id)?.kind === kind ? [id] : []))),
    runs: new Set(plan.runs.flatMap((run) => (isSameRun(run) ? [run.id] : []))),
  };
}

/** Hose and tube that is bought for a plan: what lies already is not. */
export const boughtHose = (job: Job, plan: Plan, { runs }: Stays) =>
  hoseLines(job, { ...plan, runs: plan.runs.filter(({ id }) => !runs.has(id)) });

/** Everything a plan needs that the one before has not, with what of it the box has not. */
export function buyLines(
  job: Job,
  plan: Plan,
  allJoints: readonly PlanJoint[],
  items: readonly BoxItem[] = [],
  stays: Stays = staysOf(job, plan),
): BuyLine[] {
  const lines = new Lines();
  // A joint of a hose that stays is not undone.
  const joints = allJoints.filter(({ b }) => !stays.runs.has(b.id));
  addParts(lines, plan, stays);
  addTanksAndHeaters(lines, job, plan);
  for (const { marking, boreM, cutsM, totalM, ids } of boughtHose(job, plan, stays))
    lines.add(
      "hose",
      `hose:${mm(boreM)} ${marking}`.slice(0, 110),
      { kind: "hose", marking, boreM },
      cutsM.length,
      ids,
      {
        lengthM: totalM,
      },
    );
  addFittings(lines, job, plan, joints, stays);
  addFixings(lines, job, plan);
  addHoles(lines, job, plan, items);
  addElectric(lines, plan, stays);
  addTools(lines, job, plan, joints);
  return lines.all.map((line) => (SINGLE.has(line.what.kind) ? { ...line, count: 1 } : line));
}

const RISKY: ReadonlySet<BuyWhat["kind"]> = new Set(["seal", "fixing"]);

/** What tears or shears as things are undone: in hand before the step. */
export const riskSpares = (job: Job, plan: Plan): { what: BuyWhat; count: number }[] =>
  buyLines(job, plan, []).filter(({ what }) => RISKY.has(what.kind));

/** Once is enough, however many need it. */
const SINGLE: ReadonlySet<BuyWhat["kind"]> = new Set([
  "threadSealant",
  "antiSeize",
  "epoxy",
  "edgePaint",
  "holeSaw",
  "flareTool",
  "bender",
  "torqueSpanner",
  "filterSpanner",
  "crimpTool",
]);

export interface Short {
  inBox: number;
  /** Pieces still to buy; of hose and wire metres. */
  toBuy: number;
}

/**
 * A line against the box. Things are known there by the name they were given, as the list writes it.
 * @param name of the line, as it is written
 * @param cutsM what hose of this line is cut into, m
 */
export function shortOf(
  line: BuyLine,
  items: readonly BoxItem[],
  name: string,
  cutsM: readonly number[] = [],
): Short {
  const { what, count, lengthM } = line;
  if (what.kind === "hose") {
    const { toBuyM } = cutsFromBox(items, { ...what, lengthsM: cutsM });
    return { inBox: Math.max(0, (lengthM ?? 0) - toBuyM), toBuy: toBuyM };
  }
  const inBox = items.reduce((sum, item) => {
    if (item.kind === "adapter")
      return sum + (what.kind === "adapter" && item.shape === what.shape ? item.count : 0);
    return sum + (item.kind === "thing" && sameName(item.name, name) ? item.count : 0);
  }, 0);
  if (lengthM !== null) return { inBox, toBuy: lengthM };
  return { inBox, toBuy: Math.max(0, count - inBox) };
}

export interface Costs {
  /** Of what is priced; and how many lines are not. */
  first: number;
  unpriced: number;
}

/** First cost of what is still to buy, by the user's own prices each or a metre. */
export function costOf(
  lines: readonly { key: string; toBuy: number }[],
  prices: Readonly<Record<string, number>>,
): Costs {
  return lines.reduce(
    ({ first, unpriced }, { key, toBuy }) => {
      const price = prices[key];
      if (toBuy === 0) return { first, unpriced };
      return price === undefined
        ? { first, unpriced: unpriced + 1 }
        : { first: first + price * toBuy, unpriced };
    },
    { first: 0, unpriced: 0 },
  );
}

/** Elements that a thousand hours take at a feed, by their rated flow. */
export function elementCost1000h(
  lines: readonly BuyLine[],
  plan: Plan,
  prices: Readonly<Record<string, number>>,
  feedM3S: number,
): number {
  return lines.reduce((sum, line) => {
    const price = prices[line.key];
    if (line.what.kind !== "element" || price === undefined) return sum;
    return plan.parts.reduce(
      (all, part) =>
        line.for.includes(part.id)
          ? all +
            elementsOf([part]).reduce(
              (n, { part: filter }) => n + (1000 / elementLifeH(filter.ratedFlowM3S, feedM3S)) * price,
              0,
            )
          : all,
      sum,
    );
  }, 0);
}

/** What the job's consumers are fed at full load, the most of them, m3/s. */
export const fullFeedM3S = ({ consumers }: Job): number =>
  Math.max(0, ...consumers.flatMap(({ loads }) => loads.map((one) => one.feedM3S)));

export interface PlanCost extends Costs {
  /** Elements that a thousand hours take; 0 where none is priced. */
  elements1000h: number;
}

/** A plan at the user's own prices, from nothing in the box; null where no price was given. */
export function planCost(job: Job, plan: Plan): PlanCost | null {
  const { prices = {} } = job;
  if (Object.keys(prices).length === 0) return null;
  const lines = buyLines(job, plan, planJoints(job, plan), [], NOTHING_STAYS);
  const feedM3S = fullFeedM3S(job);
  return {
    ...costOf(
      lines.map(({ key, lengthM, count }) => ({ key, toBuy: lengthM ?? count })),
      prices,
    ),
    elements1000h: feedM3S > 0 ? elementCost1000h(lines, plan, prices, feedM3S) : 0,
  };
}
