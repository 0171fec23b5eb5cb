/** The one walk over a network: what is reached from where, by what may be passed. */
import type { Topology } from "../solver/newton";

export interface Walked {
  /** 1 by node that was reached. */
  readonly seen: Uint8Array;
  /** In the order they were reached, nearest first. */
  readonly order: readonly number[];
  /** Link by which a node was first reached, or -1. */
  readonly by: Int32Array;
}

/** From `starts` over links that `opens` lets through from `node` to `next`, asked of every link at a node that is passed; tanks are reached and not passed, unless they are starts. */
export function walk(
  { from, to, unknowns, nodes, linkStart, linkAt }: Topology,
  starts: readonly number[],
  opens: (link: number, node: number, next: number) => boolean,
): Walked {
  const seen = new Uint8Array(nodes);
  const by = new Int32Array(nodes).fill(-1);
  const order = [...starts];
  for (const start of starts) seen[start] = 1;
  for (let i = 0; i < order.length; i++) {
    const node = order[i] as number;
    if (node >= unknowns && i >= starts.length) continue;
    for (let k = linkStart[node] as number; k < (linkStart[node + 1] as number); k++) {
      const link = linkAt[k] as number;
      const next = (from[link] === node ? to[link] : from[link]) as number;
      if (!opens(link, node, next) || seen[next]) continue;
      seen[next] = 1;
      by[next] = link;
      order.push(next);
    }
  }
  return { seen, order, by };
}
