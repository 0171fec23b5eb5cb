/** Lays the plumbing out in a worker of its own: layered, with hoses at right angles. Loaded only where it is drawn. */
import type { ElkExtendedEdge, ElkNode } from "elkjs/lib/elk-api";
import { isConsumerKind } from "~/core/kinds/families";
import type { PlumbingGraph } from "./graph";
import { BANK_HEAD_PX } from "./kinds/valves";

export interface Placed {
  width: number;
  height: number;
  nodes: Map<string, { x: number; y: number; width: number; height: number }>;
  ports: Map<string, { x: number; y: number; side: "WEST" | "EAST" }>;
  edges: Map<string, { x: number; y: number }[]>;
}

type Elk = { layout(graph: ElkNode): Promise<ElkNode>; terminateWorker(): void };
let elk: Promise<Elk> | null = null;
const LIMIT_MS = 20000;

async function engine(): Promise<Elk> {
  const [{ default: Engine }, { default: workerUrl }] = await Promise.all([
    import("elkjs/lib/elk-api.js"),
    import("elkjs/lib/elk-worker.min.js?url"),
  ]);
  return new Engine({ workerUrl }) as unknown as Elk;
}

/** As the layouter takes it: tanks in the first layer, but for those that another tank's hose leads to. */
export function toElk({ nodes, edges }: PlumbingGraph): ElkNode {
  const tanks = new Set(nodes.filter(({ kind }) => kind === "tank").map(({ id }) => id));
  const owner = (port: string) => port.split(".")[0] as string;
  const led = new Set(
    edges.flatMap(({ source, target }) =>
      tanks.has(owner(source)) && tanks.has(owner(target)) ? [owner(target)] : [],
    ),
  );
  return {
    id: "root",
    layoutOptions: {
      "elk.algorithm": "layered",
      "elk.direction": "RIGHT",
      "elk.edgeRouting": "ORTHOGONAL",
      "elk.layered.spacing.nodeNodeBetweenLayers": "24",
      "elk.layered.spacing.edgeNodeBetweenLayers": "14",
      "elk.layered.spacing.edgeEdgeBetweenLayers": "12",
      "elk.spacing.nodeNode": "22",
      "elk.spacing.labelNode": "0",
      "elk.spacing.edgeNode": "12",
      "elk.spacing.edgeEdge": "12",
      "elk.layered.nodePlacement.strategy": "NETWORK_SIMPLEX",
      "elk.layered.considerModelOrder.strategy": "NODES_AND_EDGES",
      "elk.layered.crossingMinimization.forceNodeModelOrder": "true",
      "elk.layered.thoroughness": "20",
      "elk.padding": "[top=24,left=12,bottom=24,right=12]",
    },
    children: nodes.map((node) => ({
      id: node.id,
      width: node.width,
      height: node.height,
      layoutOptions: {
        "elk.portConstraints": node.ports.every(({ y }) => y !== null) ? "FIXED_POS" : "FIXED_SIDE",
        "elk.spacing.portPort": node.kind === "bank" ? "36" : "18",
        ...(node.kind === "bank"
          ? { "elk.spacing.portsSurrounding": `[top=${BANK_HEAD_PX + 22},left=0,bottom=12,right=0]` }
          : {}),
        "elk.nodeLabels.placement": "OUTSIDE V_BOTTOM H_CENTER",
        ...(node.kind === "tank" && !led.has(node.id)
          ? { "elk.layered.layering.layerConstraint": "FIRST" }
          : {}),
        ...(node.kind !== "tank" && isConsumerKind(node.kind)
          ? { "elk.layered.layering.layerConstraint": "LAST" }
          : {}),
      },
      ...(node.label
        ? { labels: [{ text: node.id, width: node.label.width, height: node.label.height }] }
        : {}),
      ports: node.ports.map((port) => ({
        id: port.id,
        width: 0,
        height: 0,
        ...(port.y === null ? {} : { x: port.side === "WEST" ? 0 : node.width, y: port.y }),
        layoutOptions: { "elk.port.side": port.side },
      })),
    })),
    edges: edges.map(
      (edge): ElkExtendedEdge => ({ id: edge.id, sources: [edge.source], targets: [edge.target] }),
    ),
  };
}

function fromElk(graph: PlumbingGraph, laid: ElkNode): Placed {
  const sides = new Map(
    graph.nodes.flatMap(({ ports }) => ports.map((port) => [port.id, port.side] as const)),
  );
  const placed: Placed = {
    width: laid.width ?? 0,
    height: laid.height ?? 0,
    nodes: new Map(),
    ports: new Map(),
    edges: new Map(),
  };
  const names = new Map(graph.nodes.map(({ id, label }) => [id, label?.height ?? 0]));
  for (const { id, x = 0, y = 0, width = 0, height = 0, ports = [] } of laid.children ?? []) {
    placed.nodes.set(id, { x, y, width, height: height + (names.get(id) ?? 0) });
    for (const port of ports)
      placed.ports.set(port.id, {
        x: x + (port.x ?? 0),
        y: y + (port.y ?? 0),
        side: sides.get(port.id) ?? "EAST",
      });
  }
  for (const edge of laid.edges ?? []) {
    const [section] = edge.sections ?? [];
    if (section)
      placed.edges.set(edge.id, [section.startPoint, ...(section.bendPoints ?? []), section.endPoint]);
  }
  return placed;
}

/** Lays out a graph. A worker that dies or hangs is replaced, and the call rejects. */
export async function layOut(graph: PlumbingGraph): Promise<Placed> {
  elk ??= engine();
  const running = await elk;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error("the layout took too long")), LIMIT_MS);
  });
  try {
    return fromElk(graph, await Promise.race([running.layout(toElk(graph)), late]));
  } catch (error) {
    running.terminateWorker();
    elk = null;
    throw error;
  } finally {
    clearTimeout(timer);
  }
}
