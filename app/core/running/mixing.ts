/**
 * Temperature of the fuel at every node of a solved line-up: what meets mixes, an engine warms what it sends back,
 * coolers and heaters change what passes them, and hoses are taken to keep it. Quasi-steady: no time is lost on the way.
 */
import type { SolvedLineUp } from "../hydraulics/solve";
import type { NetworkLink } from "../network/links/link";
import { engineHeat, specificHeatJKgK } from "../tanks/heat";

const SETTLED_K = 1e-6;
const MOST_SWEEPS = 200;

function throughLink(link: NetworkLink, tempC: number, flowM3S: number, densityKgM3: number): number {
  if (link.kind !== "rated") return tempC;
  const { part } = link;
  if (part.kind === "cooler") return tempC - part.effectiveness * (tempC - part.coolantC);
  if (part.kind !== "fuelHeater" || flowM3S === 0) return tempC;
  return tempC + part.powerW / (flowM3S * densityKgM3 * specificHeatJKgK(densityKgM3, tempC));
}

/** Mixes from the tanks on until nothing moves; `temps` holds the tanks' temperatures at its end and is filled in place. */
export function mixTemperatures(solved: SolvedLineUp, temps: Float64Array): void {
  const { network, flow, settings } = solved;
  const { unknowns } = network.topology;
  const density = settings.fuel.densityKgM3;
  const heat = new Float64Array(unknowns);
  const carried = new Float64Array(unknowns);
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
    heat.fill(0);
    carried.fill(0);
    for (let i = 0; i < flow.length; i++) {
      const q = flow[i] as number;
      if (q === 0) continue;
      const link = network.links[i] as NetworkLink;
      const [source, end] = q > 0 ? [link.from, link.to] : [link.to, link.from];
      if (end >= unknowns) continue;
      const size = Math.abs(q);
      heat[end] = (heat[end] as number) + size * throughLink(link, temps[source] as number, size, density);
      carried[end] = (carried[end] as number) + size;
    }
    for (const { part, feed, back } of network.engines) {
      const q = back === null ? 0 : -(settings.demand[back] as number);
      if (back === null || !(q > 0)) continue;
      const { tempC, share } = engineHeat(part, network.job.fuel);
      const fed = temps[feed] as number;
      heat[back] = (heat[back] as number) + q * (fed + share * (tempC - fed));
      carried[back] = (carried[back] as number) + q;
    }
    let moved = 0;
    for (let node = 0; node < unknowns; node++) {
      if (!((carried[node] as number) > 0)) continue;
      const next = (heat[node] as number) / (carried[node] as number);
      moved = Math.max(moved, Math.abs(next - (temps[node] as number)));
      temps[node] = next;
    }
    if (moved < SETTLED_K) return;
  }
}
