/**
 * What can be wrong with a line-up that was fed once, each as a change of its settings: nothing of it is a plan. A fault has
 * sizes, from the least that is told at a gauge to the most that still runs; its prior is common practice, no source.
 */
import type { FaultKind } from "../book/entries";
import { gaugeAtPort } from "../hydraulics/derive";
import type { FuelWay } from "../hydraulics/route";
import type { SolvedLineUp } from "../hydraulics/solve";
import { isPushing } from "../kinds/families";
import type { Id } from "../kinds/record";
import { AIR_KG_M3 } from "../laws/bubbles";
import type { Network } from "../network/network";
import type { Settings } from "../network/settings";
import { portKey } from "../plan/ports";
import type { LineUp } from "../plan/types";
import { Way } from "../solver/newton";

export interface CareFault {
  id: string;
  kind: FaultKind;
  /** Part, run or tank where it is; the line-up for a wrong one. */
  at: Id;
  /** How far along the way, m. */
  atM: number;
  /** Faults that no gauge parts have one group: kind and stretch. */
  group: string;
  sizes: readonly number[];
  prior: number;
  /** Writes the fault of a size into the settings. */
  apply(settings: Settings, size: number): void;
  /** The port at which air comes in. */
  airInAt?: string;
  /** The line-up that stands in fact. */
  lineUp?: LineUp;
}

/** Losses of a square restriction at full load, Pa: from what a dial tells to what stops an engine. */
const SQUARE_PA = [3000, 7000, 15000, 30000] as const;
/** Times the clean drop. */
const LOADED = [2, 4, 8, 16] as const;
/** Vacuum over the fuel of a tank whose vent is blocked, Pa. */
const VENT_PA = [3000, 7000, 14000, 25000] as const;
/** Share of its rise that a worn pump still gives. */
const WORN = [0.75, 0.5, 0.25, 0.1] as const;
/** Orifices that let air in, m; thinner lines draw through finer ones. */
const LEAK_M = [0.15e-3, 0.25e-3, 0.35e-3, 0.5e-3] as const;
const HEATER_LEAK_M = [0.02e-3, 0.04e-3, 0.06e-3, 0.08e-3] as const;
const HEATER_BORE_M = 0.004;
/** Times the viscosity, near the cloud point. */
const WAXED = [2, 4, 8, 16] as const;
const ONCE = [1] as const;
/** Of a sharp orifice, handbook figure from memory. */
const DISCHARGE = 0.6;
/** Of what is drawn: beyond it the line runs on air alone and no gauge tells of it. */
const MOST_AIR = 0.5;

/** How often each is the cause where something is wrong. Common practice, no source: a shop's own finds turn them. */
export const priors: Readonly<Record<FaultKind, number>> = {
  filterLoaded: 0.3,
  airLeak: 0.2,
  restricted: 0.12,
  pickupBlocked: 0.1,
  weakPump: 0.08,
  wayShut: 0.05,
  ventBlocked: 0.05,
  returnRestricted: 0.03,
  waxing: 0.03,
  airAtPickup: 0.02,
  wrongLineUp: 0.02,
};

/** Waxing is likely where the fuel is near its cloud point, and else all but out of the question. */
const WAX_NEAR_K = 3;
const FAR_FROM_WAX = 0.05;

/** Links that fuel passes on the way, each by its index, with what it is and where gauges part it from the next. */
interface Passed {
  index: number;
  id: Id;
  side: "feed" | "return";
  stretch: number;
  kind: string;
  flowM3S: number;
  boreM: number;
  atM: number;
}

function passedOf({ network, flow }: SolvedLineUp, way: FuelWay): Passed[] {
  const legs = way.legs.map((leg) => ({ ...leg, fromM: leg.points[0]?.atM ?? 0 }));
  const gauges = way.stations.filter(({ kind }) => kind === "gauge" || kind === "pump" || kind === "engine");
  const stretchAt = (atM: number) => gauges.filter((one) => one.atM <= atM + 1e-9).length;
  const onWay = new Map(legs.map((leg) => [leg.id, leg]));
  return network.links.flatMap((link, index): Passed[] => {
    const owner =
      link.kind === "run"
        ? link.id
        : link.kind === "valve"
          ? link.valve.id
          : "part" in link
            ? link.part.id
            : "";
    const leg = onWay.get(owner);
    const flowM3S = flow[index] ?? 0;
    if (!leg || flowM3S === 0) return [];
    const { side, boreM } = leg;
    return [
      {
        index,
        id: owner,
        side,
        stretch: stretchAt(leg.fromM),
        kind: link.kind,
        flowM3S,
        boreM,
        atM: leg.fromM,
      },
    ];
  });
}

/** Ports of a way by their distance along it, m: those that its runs lead from and to. */
export function portPlaces({ network, flow }: SolvedLineUp, { legs }: FuelWay): Map<string, number> {
  return new Map(
    legs.flatMap(({ id, kind, points }) => {
      const run = kind === "run" ? network.plan.runs.find((one) => one.id === id) : undefined;
      if (!run) return [];
      const isForward = (flow[network.linkOf.get(id) ?? -1] ?? 0) >= 0;
      const [start, end] = isForward ? [run.from, run.to] : [run.to, run.from];
      return [
        [portKey(start), points[0]?.atM ?? 0] as const,
        [portKey(end), points.at(-1)?.atM ?? 0] as const,
      ];
    }),
  );
}

/** Adds a square loss that takes so many Pa at the flow that passes when nothing is wrong. */
const square =
  ({ index, flowM3S }: { index: number; flowM3S: number }) =>
  ({ laws }: Settings, pa: number): void => {
    laws.square[index] = (laws.square[index] as number) + pa / flowM3S ** 2;
  };

/** Air that comes in at a node under vacuum: fuel gives way to it from there on, less passes before it. */
function airIn(solved: SolvedLineUp, key: string) {
  const node = solved.network.nodeOf.get(key) ?? -1;
  const vacuumPa = Math.max(0, -gaugeAtPort(solved, key));
  return ({ demand }: Settings, orificeM: number): void => {
    if (node < 0 || node >= demand.length) return;
    const speedMS = Math.sqrt((2 * vacuumPa) / AIR_KG_M3);
    const airM3S = DISCHARGE * (Math.PI / 4) * orificeM ** 2 * speedMS;
    // A little of what is drawn; never all of it.
    const drawn = Math.max(
      0,
      ...[...solved.consumers.values()].map((one) => ("feedM3S" in one ? one.feedM3S : 0)),
    );
    demand[node] = (demand[node] as number) - Math.min(airM3S, MOST_AIR * drawn);
  };
}

/** Of what is drawn, the air that a clear mouth gives before the engine dies of it. Common practice, no source. */
const CLEAR_MOUTH_AIR = 0.25;

/** A leak lets air in only where the line stands under so much vacuum, Pa. */
const DRAWS_PA = 300;

function leaks(solved: SolvedLineUp, network: Network, passed: readonly Passed[]): CareFault[] {
  const feed = passed.filter(({ side, kind }) => side === "feed" && kind === "run");
  const seen = new Set<string>();
  return feed.flatMap(({ id, stretch, boreM, atM }): CareFault[] => {
    const run = network.plan.runs.find((one) => one.id === id);
    if (!run) return [];
    return [run.from, run.to].flatMap((ref): CareFault[] => {
      const key = portKey(ref);
      if (seen.has(key) || !(-gaugeAtPort(solved, key) > DRAWS_PA)) return [];
      seen.add(key);
      return [
        {
          id: `airLeak:${key}`,
          kind: "airLeak",
          at: ref.part,
          atM,
          airInAt: key,
          group: `airLeak ${stretch}`,
          sizes: boreM <= HEATER_BORE_M ? HEATER_LEAK_M : LEAK_M,
          prior: 0,
          apply: airIn(solved, key),
        },
      ];
    });
  });
}

/** Every fault of a line-up that is fed, from its solution at full load; priors are shared out within a kind. */
export function faultsOf(solved: SolvedLineUp, way: FuelWay, otherLineUps: readonly LineUp[]): CareFault[] {
  const { network, settings } = solved;
  const { plan, job } = network;
  const passed = passedOf(solved, way);
  const found: CareFault[] = [];
  const put = (fault: Omit<CareFault, "prior" | "id" | "atM"> & { atM?: number }, key = fault.at) =>
    found.push({ atM: 0, ...fault, id: `${fault.kind}:${key}`, prior: 0 });
  const tanks = network.sorted.tankPorts.filter(({ index }) => (solved.flow[index] ?? 0) < 0);
  const stretchOfTank = 0;
  for (const { index, link } of tanks) {
    const flowM3S = solved.flow[index] as number;
    const at = link.tank.id;
    put(
      {
        kind: "pickupBlocked",
        at,
        group: `restricted feed ${stretchOfTank}`,
        sizes: SQUARE_PA,
        apply: square({ index, flowM3S }),
      },
      link.id,
    );
    const node = link.to - network.topology.unknowns;
    const blocked = (one: Settings, pa: number) => {
      one.fixed[node] = (one.fixed[node] as number) - pa;
    };
    put({ kind: "ventBlocked", at, group: `ventBlocked ${at}`, sizes: VENT_PA, apply: blocked });
    const clear = link.from;
    const air = (one: Settings) => {
      one.demand[clear] = (one.demand[clear] as number) - CLEAR_MOUTH_AIR * Math.abs(flowM3S);
    };
    put({ kind: "airAtPickup", at, group: `airAtPickup ${at}`, sizes: ONCE, apply: air }, link.id);
  }
  for (const one of passed) {
    const { id, side, stretch, index, kind, atM } = one;
    if (side === "return") {
      put({
        kind: "returnRestricted",
        at: id,
        atM,
        group: `returnRestricted ${stretch}`,
        sizes: SQUARE_PA,
        apply: square(one),
      });
      continue;
    }
    if (kind === "filter") {
      const loaded = ({ laws }: Settings, times: number) => {
        laws.linear[index] = (laws.linear[index] as number) * times;
      };
      put({ kind: "filterLoaded", at: id, atM, group: `filterLoaded ${id}`, sizes: LOADED, apply: loaded });
    } else if (kind === "pump") {
      const curve = settings.laws.curve[index] as number;
      const worn = ({ laws }: Settings, share: number) => {
        const curves = laws.curves.map((own, k) =>
          k === curve ? { ...own, drop: own.drop.map((pa) => (pa < 0 ? pa * share : pa)) } : own,
        );
        Object.assign(laws, { curves });
      };
      if (curve >= 0)
        put({ kind: "weakPump", at: id, atM, group: `weakPump ${id}`, sizes: WORN, apply: worn });
    } else
      put({
        kind: "restricted",
        at: id,
        atM,
        group: `restricted ${side} ${stretch}`,
        sizes: SQUARE_PA,
        apply: square(one),
      });
    if (kind === "valve" || kind === "check") {
      const shut = ({ laws }: Settings) => {
        laws.way[index] = Way.shut;
      };
      put({ kind: "wayShut", at: id, atM, group: `wayShut ${stretch}`, sizes: ONCE, apply: shut });
    }
  }
  found.push(...leaks(solved, network, passed));
  const waxed = ({ laws }: Settings, times: number) => {
    for (const { index } of passed) {
      laws.linear[index] = (laws.linear[index] as number) * times;
      laws.reynoldsPerFlow[index] = (laws.reynoldsPerFlow[index] as number) / times;
    }
  };
  put({ kind: "waxing", at: job.id, group: "waxing", sizes: WAXED, apply: waxed });
  for (const lineUp of otherLineUps)
    found.push({
      id: `wrongLineUp:${lineUp.id}`,
      kind: "wrongLineUp",
      at: lineUp.id,
      atM: 0,
      group: `wrongLineUp ${lineUp.id}`,
      sizes: ONCE,
      prior: 0,
      lineUp,
      apply: () => undefined,
    });
  const isCold =
    job.fuel.cloudPointC !== undefined && settings.conditions.fuelC <= job.fuel.cloudPointC + WAX_NEAR_K;
  const counts = new Map<FaultKind, number>();
  for (const { kind } of found) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  const weight = (kind: FaultKind) =>
    (priors[kind] * (kind === "waxing" && !isCold ? FAR_FROM_WAX : 1)) / (counts.get(kind) ?? 1);
  const all = found.reduce((sum, { kind }) => sum + weight(kind), 0);
  const pushes = new Set(plan.parts.filter(isPushing).map(({ id }) => id));
  return found
    .filter(({ kind, at }) => kind !== "weakPump" || pushes.has(at))
    .map((fault) => ({ ...fault, prior: weight(fault.kind) / all }));
}
