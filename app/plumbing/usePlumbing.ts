import { useMemo } from "react";
import { drawnHoses, drawnNodes } from "~/core/drawing/nodes";
import { type Placed, placedOf } from "~/core/drawing/placed";
import type { Network } from "~/core/network/network";

/** Drawings by what they are made from, the last few: a plan is drawn in several places, and a slider changes none. */
const kept = new Map<string, Placed>();
const MOST = 6;

/** The drawing of a network; it stays the same while nothing that is drawn changes. */
export function usePlumbing(network: Network): Placed {
  return useMemo(() => drawing(network), [network]);
}

function drawing(network: Network): Placed {
  const { plan } = network;
  const nodes = drawnNodes(network, plan.sides ?? {});
  const key = JSON.stringify([plan.id, plan.places, plan.sides, nodes, drawnHoses(network, nodes)]);
  const known = kept.get(key);
  if (known) return known;
  const placed = placedOf(network);
  kept.set(key, placed);
  const [oldest] = kept.keys();
  if (kept.size > MOST && oldest !== undefined) kept.delete(oldest);
  return placed;
}
