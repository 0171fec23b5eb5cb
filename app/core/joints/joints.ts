/** Every joint of a plan: what meets there, whether it seals, and what goes between where it does not. */
import { type Chain, chainBetween, chainOfParts, gallsOf, type InBox } from "../ends/chain";
import { type End, endKey, type Joining, joining } from "../ends/ends";
import { type Dress, families } from "../ends/families";
import type { Id } from "../kinds/record";
import { type PlacedPort, placedPorts, portKey } from "../plan/ports";
import type { ChosenChain, Job, JointLook, Plan, PortRef, Run } from "../plan/types";

/**
 * `screws`: the two screw together and do not seal, the trap; a chain between them does. `adapters`: they do not even meet,
 * a chain does. `none`: nothing that is made does.
 */
export type JointState = "unknown" | "seals" | "adapters" | "screws" | "none";

export interface JointSide {
  /** Owner of the end: a part, tank or run; and the port, or the run's 'from' or 'to'. */
  id: Id;
  port: Id;
  name: string;
  end: End | null;
  /** Not entered, but what the run itself says: a cut end of hose of its bore. */
  isAssumed: boolean;
}

export interface PlanJoint {
  key: string;
  a: JointSide;
  b: JointSide;
  state: JointState;
  /** What the two make of each other; null where one is not known. */
  joined: Joining | null;
  chain: Chain | null;
  /** The chain is one that somebody chose; false too where the chosen one does not seal any more. */
  isChosen: boolean;
}

/** A bore this near to a size of hose is that size. */
const SAME_BORE_MM = 0.3;

/** The cut end of a hose of a bore; null where no size is near, or the line is rigid. */
export function hoseEnd({ boreM, make }: Run): End | null {
  if (make === "rigid") return null;
  const boreMm = boreM * 1000;
  const [best] = families.hose.sizes
    .map(([size, , , , bore]) => ({ size, off: Math.abs(bore - boreMm) }))
    .sort((a, b) => a.off - b.off);
  return best && best.off <= SAME_BORE_MM ? { family: "hose", size: best.size, form: "f" } : null;
}

const chains = new Map<string, Chain>();
const MOST_KEPT = 500;

/** A chain, what the box has first; of the generic catalogue alone the same two ends are asked of again and again. */
function chainOf(from: End, to: End, box: readonly InBox[]): Chain {
  if (box.length > 0) return chainBetween({ from, to, box });
  const key = `${endKey(from)} ${from.material ?? ""} > ${endKey(to)} ${to.material ?? ""}`;
  const known = chains.get(key);
  if (known) return known;
  const chain = chainBetween({ from, to });
  if (chains.size >= MOST_KEPT) chains.clear();
  chains.set(key, chain);
  return chain;
}

function judged(
  key: string,
  a: JointSide,
  b: JointSide,
  box: InBox[],
  chosen: ChosenChain | undefined,
): PlanJoint {
  const bare = { key, a, b, joined: null, chain: null, isChosen: false };
  if (!a.end || !b.end) return { ...bare, state: "unknown" };
  const joined = joining(a.end, b.end);
  if (joined.fit === "seals") return { ...bare, state: "seals", joined };
  const own = chosen ? chainOfParts(a.end, b.end, chosen.parts) : null;
  const chain = own ?? chainOf(a.end, b.end, box);
  // What one joint takes the next does not have.
  for (const id of chain.parts) {
    const taken = box.find((one) => one.id === id);
    if (taken) taken.count--;
    if (taken?.count === 0) box.splice(box.indexOf(taken), 1);
  }
  const needs = joined.fit === "screwsOnly" ? "screws" : "adapters";
  const state = chain.outcome === "chain" ? needs : "none";
  return { key, a, b, state, joined, chain, isChosen: own !== null };
}

/**
 * Joints of a plan: both ends of every run, and every two ports that are screwed together. In their order each takes
 * from the box what it needs: no best of all, but what a fitter does who begins at the first.
 */
export function planJoints(job: Job, plan: Plan, inBox: readonly InBox[] = []): readonly PlanJoint[] {
  if (inBox.length > 0) return workedOut(job, plan, inBox);
  const known = kept.get(plan);
  if (known?.job === job) return known.joints;
  const joints = workedOut(job, plan, inBox);
  kept.set(plan, { job, joints });
  return joints;
}

/** Of a plan as it stands: findings and lists ask for the same joints. */
const kept = new WeakMap<Plan, { job: Job; joints: readonly PlanJoint[] }>();

function workedOut(job: Job, plan: Plan, inBox: readonly InBox[]): PlanJoint[] {
  const box = inBox.map((one) => ({ ...one }));
  const ports = placedPorts(job, plan);
  const side = (ref: PortRef): JointSide => {
    const port = ports.get(portKey(ref)) as PlacedPort | undefined;
    return {
      id: ref.part,
      port: ref.port,
      name: port ? `${port.ownerName}, ${port.name}` : portKey(ref),
      end: plan.ends?.[ref.part]?.[ref.port] ?? null,
      isAssumed: false,
    };
  };
  const runs = plan.runs.flatMap((run) =>
    (["from", "to"] as const).map((which) => {
      const entered = plan.ends?.[run.id]?.[which] ?? null;
      const own: JointSide = {
        id: run.id,
        port: which,
        name: run.make === "rigid" ? "tube" : "hose",
        end: entered ?? hoseEnd(run),
        isAssumed: entered === null,
      };
      const key = portKey(run[which]);
      return judged(key, side(run[which]), own, box, plan.chains?.[key]);
    }),
  );
  const screwed = plan.joints.map(({ from, to }) =>
    judged(portKey(from), side(from), side(to), box, plan.chains?.[portKey(from)]),
  );
  return [...runs, ...screwed];
}

/** What the joints need: adapters by shape, washers, and clamps. */
export interface JointNeeds {
  adapters: { id: string; count: number; joints: string[] }[];
  washers: number;
  clamps: number;
}

/** An eye on a bolt has one on either side: practice 32. Any other face has its own. */
const washersOf = (joined: Joining, { end }: JointSide): number =>
  end?.family === "eye" && joined.washers > 0 ? 2 : joined.washers;

export function jointNeeds(joints: readonly PlanJoint[]): JointNeeds {
  const adapters = new Map<string, { id: string; count: number; joints: string[] }>();
  let [washers, clamps] = [0, 0];
  for (const { key, a, chain, joined, state } of joints) {
    if (state === "seals" && joined) {
      washers += washersOf(joined, a);
      clamps += joined.dress === "clamp" ? 1 : 0;
    }
    if ((state !== "adapters" && state !== "screws") || !chain) continue;
    washers += chain.washers;
    clamps += chain.dress.filter((dress) => dress === "clamp").length;
    for (const id of chain.parts) {
      const line = adapters.get(id) ?? { id, count: 0, joints: [] };
      line.count++;
      line.joints.push(key);
      adapters.set(id, line);
    }
  }
  return { adapters: [...adapters.values()].sort((a, b) => b.count - a.count), washers, clamps };
}

/** What a person looks at of a joint as it is made; each only where the joint has it. */
export type JointLookFor = Exclude<keyof JointLook, "outOfReach">;

/** What must be looked at of a joint: washers, grease, clamp, and where a taper thread comes to stand. Practice 32 to 34, 52. */
export function looksOf({ state, joined, chain, a, b }: PlanJoint): JointLookFor[] {
  const made = state === "seals" ? joined : chain?.outcome === "chain" ? chain : null;
  if (!made) return [];
  const dress: readonly (Dress | null)[] = "parts" in made ? made.dress : [made.dress];
  const metals =
    "parts" in made
      ? [a.end?.material, ...made.materials, b.end?.material]
      : [a.end?.material, b.end?.material];
  return [
    ...(made.washers > 0 ? (["newWashers"] as const) : []),
    ...(gallsOf(metals) ? (["antiSeize"] as const) : []),
    ...(dress.includes("clamp") ? (["clampPlaced"] as const) : []),
    ...(dress.includes("sealant") ? (["clocked"] as const) : []),
  ];
}
