/**
 * The plumbing as a graph to be laid out: tanks on the left, consumers on the right. Supply is drawn with its flow,
 * return against it, so that everything goes from left to right and no edge has to run back.
 */
import { returnLinks } from "~/core/hydraulics/derive";
import { LineUpSolver } from "~/core/hydraulics/solve";
import { isConsumer } from "~/core/kinds/families";
import type { Part } from "~/core/kinds/index";
import type { Id } from "~/core/kinds/record";
import type { Network } from "~/core/network/network";
import { partsOf, portKey, portsOf } from "~/core/plan/ports";
import type { Job, Plan, PortRef, Tank } from "~/core/plan/types";
import { heightsOf } from "~/core/tanks/tank";
import { drawingOf } from "./kinds/index";
import { BANK_HEAD_PX } from "./kinds/valves";
import { labelRoom } from "./labelRoom";

export interface GraphPort {
  id: string;
  side: "WEST" | "EAST";
  /** Fixed place on the node's edge, px from its top; null where the layout may order it. */
  y: number | null;
}

export interface GraphNode {
  id: Id;
  kind: Part["kind"] | "tank";
  width: number;
  /** Of the body alone, which hoses meet. */
  height: number;
  /** Room under the body for its name, px; it may be wider than the body. */
  label: { width: number; height: number } | null;
  ports: GraphPort[];
}

export interface GraphEdge {
  id: Id;
  source: string;
  target: string;
  isJoint: boolean;
}

export interface PlumbingGraph {
  nodes: GraphNode[];
  edges: GraphEdge[];
}

const tankSize = { width: 132, height: 104 };

const BRANCH_PX = 44;

interface Flows {
  /** Signed flow that is largest over all line-ups, by link. */
  largest: Float64Array;
  /** Links that carry an engine's return. */
  isReturn: Uint8Array;
}

function flowsOverLineUps(network: Network): Flows {
  const solver = new LineUpSolver(network);
  const count = network.links.length;
  const largest = new Float64Array(count);
  const isReturn = new Uint8Array(count);
  for (const lineUp of network.plan.lineUps) {
    const result = solver.solve(lineUp, network.plan.conditions);
    if (result.outcome !== "solved") continue;
    result.flow.forEach((q, i) => {
      if (Math.abs(q) > Math.abs(largest[i] as number)) largest[i] = q;
    });
    returnLinks(result).forEach((one, i) => {
      if (one) isReturn[i] = 1;
    });
  }
  return { largest, isReturn };
}

/** Steps from the nearest tank, over parts and hoses, for what never flows. */
function stepsFromTanks(network: Network): Int32Array {
  const steps = new Int32Array(network.nodes.length).fill(1e6);
  const queue: number[] = [];
  for (let i = network.topology.unknowns; i < network.nodes.length; i++) {
    steps[i] = 0;
    queue.push(i);
  }
  for (let node = queue.shift(); node !== undefined; node = queue.shift()) {
    for (const { from, to } of network.links) {
      const next = from === node ? to : to === node ? from : -1;
      if (next >= 0 && (steps[next] as number) > (steps[node] as number) + 1) {
        steps[next] = (steps[node] as number) + 1;
        queue.push(next);
      }
    }
  }
  return steps;
}

/** Does a hose between two ports run left to right as written? */
function isForward(
  network: Network,
  flows: Flows,
  steps: Int32Array,
  from: PortRef,
  to: PortRef,
  linkIndex: number | undefined,
): boolean {
  if (network.job.tanks.some(({ id }) => id === from.part)) return true;
  if (network.job.tanks.some(({ id }) => id === to.part)) return false;
  if (network.job.consumers.some(({ id }) => id === from.part)) return false;
  if (network.job.consumers.some(({ id }) => id === to.part)) return true;
  if (linkIndex !== undefined && flows.largest[linkIndex] !== 0) {
    const along = (flows.largest[linkIndex] as number) > 0;
    return flows.isReturn[linkIndex] ? !along : along;
  }
  const at = (ref: PortRef) => steps[network.nodeOf.get(portKey(ref)) ?? -1] ?? 0;
  return at(from) <= at(to);
}

/** Joints have no link of their own: they go as the way through the part behind them goes. */
function jointForward(
  network: Network,
  flows: Flows,
  steps: Int32Array,
  from: PortRef,
  to: PortRef,
): boolean {
  const node = network.nodeOf.get(portKey(from));
  for (const ref of [to, from]) {
    const index = network.links.findIndex(
      (link) =>
        link.id.split(".")[0] === ref.part &&
        (link.from === node || link.to === node) &&
        link.kind !== "tankPort",
    );
    const q = flows.largest[index] ?? 0;
    if (index < 0 || q === 0) continue;
    const link = network.links[index];
    const outOf = (q > 0 ? link?.from : link?.to) === node;
    const towards = ref === to ? outOf : !outOf;
    return flows.isReturn[index] ? !towards : towards;
  }
  return isForward(network, flows, steps, from, to, undefined);
}

const nodeSize = (part: Part, east: number, west: number) => {
  const { width, height } = drawingOf(part);
  const rows = Math.max(east, west);
  if (part.kind === "bank")
    return { width, height: Math.max(height, rows * BRANCH_PX + BANK_HEAD_PX + 10), label: null };
  const label = labelRoom(part);
  return { width, height: label?.top ?? height, label };
};

/** Least distance between two hoses at a tank, px. */
const TANK_PORT_PX = 15;

/** A tank with many hoses is drawn higher, so that all of them meet it. */
const tankHeight = ({ ports }: Tank): number =>
  Math.max(tankSize.height, 24 + TANK_PORT_PX * Math.max(0, ports.length - 1));

/** Where the hose really goes on: high or low on the tank, kept apart enough to be seen. */
function tankPorts(tank: Tank, height: number): GraphPort[] {
  const { lowM, highM } = heightsOf(tank);
  const wanted = tank.ports.map((port) => {
    const share = Math.min(1, Math.max(0, (port.outside.zM - lowM) / (highM - lowM)));
    return { id: `${tank.id}.${port.id}`, y: 12 + (1 - share) * (height - 24) };
  });
  wanted.sort((a, b) => a.y - b.y);
  wanted.forEach((port, i) => {
    const before = wanted[i - 1];
    if (before) port.y = Math.max(port.y, before.y + TANK_PORT_PX);
  });
  // Pushed off the foot they go up again, as far as they must.
  wanted.reduceRight((below, port) => {
    port.y = Math.min(port.y, below);
    return port.y - TANK_PORT_PX;
  }, height - 12);
  return wanted.map(({ id, y }) => ({ id, side: "EAST", y }));
}

const consumerPorts = (part: Part, height: number): GraphPort[] =>
  portsOf(part).map(({ id }) => ({
    id: `${part.id}.${id}`,
    side: "WEST",
    y: id === "feed" ? 30 : height - 30,
  }));

export function plumbingGraph(job: Job, plan: Plan, network: Network): PlumbingGraph {
  const flows = flowsOverLineUps(network);
  const steps = stepsFromTanks(network);
  const edges: GraphEdge[] = [
    ...plan.runs.map((run) => ({
      ...run,
      isJoint: false,
      forward: isForward(network, flows, steps, run.from, run.to, network.linkOf.get(run.id)),
    })),
    ...plan.joints.map((joint) => ({
      ...joint,
      isJoint: true,
      forward: jointForward(network, flows, steps, joint.from, joint.to),
    })),
  ]
    .filter(({ from, to }) => network.ports.has(portKey(from)) && network.ports.has(portKey(to)))
    .map(({ id, from, to, isJoint, forward }) => ({
      id,
      source: portKey(forward ? from : to),
      target: portKey(forward ? to : from),
      isJoint,
    }));
  const sources = new Set(edges.map(({ source }) => source));
  const targets = new Set(edges.map(({ target }) => target));
  const sideOf = (key: string, fallback: "WEST" | "EAST") =>
    targets.has(key) ? "WEST" : sources.has(key) ? "EAST" : fallback;

  // A tank that this plan leaves alone and another uses is the other's business.
  const uses = (one: Plan, id: Id) =>
    [...one.runs, ...one.joints].some(({ from, to }) => from.part === id || to.part === id);
  const shown = job.tanks.filter(
    ({ id }) => uses(plan, id) || !job.plans.some((one) => one.id !== plan.id && uses(one, id)),
  );
  const tanks: GraphNode[] = shown.map((tank) => ({
    id: tank.id,
    kind: "tank",
    width: tankSize.width,
    height: tankHeight(tank),
    label: null,
    ports: tankPorts(tank, tankHeight(tank)),
  }));
  const parts: GraphNode[] = partsOf(job, plan).map((part) => {
    const keys = portsOf(part).map(({ id }, i) => ({
      key: `${part.id}.${id}`,
      fallback: i === 0 ? ("WEST" as const) : ("EAST" as const),
    }));
    const ports = keys.map(({ key, fallback }) => ({
      id: key,
      side: sideOf(key, fallback),
      y: drawingOf(part).portY,
    }));
    const west = ports.filter(({ side }) => side === "WEST").length;
    const size = nodeSize(part, ports.length - west, west);
    return {
      id: part.id,
      kind: part.kind,
      ...size,
      ports: isConsumer(part) ? consumerPorts(part, size.height) : ports,
    };
  });
  // Order in the list is order from top to bottom: supply above, return below.
  const returnOnly = new Set(
    plan.parts.flatMap(({ id }) => {
      const own = network.links.flatMap((link, i) =>
        ("part" in link && link.part.id === id) || ("valve" in link && link.valve.id === id) ? [i] : [],
      );
      return own.length > 0 &&
        own.every((i) => flows.isReturn[i] || flows.largest[i] === 0) &&
        own.some((i) => flows.isReturn[i])
        ? [id]
        : [];
    }),
  );
  const supply = parts.filter(({ id }) => !returnOnly.has(id));
  return { nodes: [...tanks, ...supply, ...parts.filter(({ id }) => returnOnly.has(id))], edges };
}
