/**
 * What each joint is under in each state of the system: running, pump alone, stopped overnight with the tanks' static
 * head, pump alone with the returns blanked at their tanks. A leak shows where it is under pressure, and draws air where it is under vacuum: the states in which it is seen
 * say which joints it can be. A pressure that falls after switch-off through an open return is no leak.
 */
import { figuresAt, gaugeAtPort } from "../hydraulics/derive";
import { LineUpSolver } from "../hydraulics/solve";
import type { Id } from "../kinds/record";
import type { Network } from "../network/network";
import { portKey } from "../plan/ports";
import type { Conditions, LineUp, PortRef } from "../plan/types";
import { Way } from "../solver/newton";

export const leakStates = ["running", "pumpOnly", "overnight", "blanked"] as const;
export type LeakState = (typeof leakStates)[number];
/** `unknown`: shut in between closed valves. */
export type Under = "pressure" | "vacuum" | "rest" | "unknown";

/** Under this a joint neither weeps nor draws: 20 mm of fuel. */
const AT_REST_PA = 160;

export interface JointStates {
  key: string;
  joint: PortRef;
  partId: Id;
  partName: string;
  portName: string;
  gaugePa: Record<LeakState, number | null>;
  under: Record<LeakState, Under>;
}

const stopped = (lineUp: LineUp, pumps: boolean): LineUp => ({
  ...lineUp,
  consumers: Object.fromEntries(Object.keys(lineUp.consumers).map((id) => [id, "stopped"])),
  pumps: pumps ? lineUp.pumps : Object.fromEntries(Object.keys(lineUp.pumps).map((id) => [id, "off"])),
});

/** With a blank in every return where it enters its tank: nothing goes back, and what pushes holds its pressure. */
function solveBlanked(solver: LineUpSolver, lineUp: LineUp, conditions: Conditions) {
  const returns = solver.network.links.flatMap((link, i) =>
    link.kind === "tankPort" && link.port.role === "return" ? [i] : [],
  );
  const result = solver.solveWith(lineUp, conditions, ({ laws }) => {
    for (const i of returns) laws.way[i] = Way.shut;
  });
  return result.outcome === "solved" ? result : null;
}

const underOf = (gaugePa: number | null): Under =>
  gaugePa === null
    ? "unknown"
    : gaugePa > AT_REST_PA
      ? "pressure"
      : gaugePa < -AT_REST_PA
        ? "vacuum"
        : "rest";

/** Every end of a hose and every screwed joint of the plan, with what it is under in each state of a line-up. */
export function jointStates(network: Network, lineUp: LineUp, conditions: Conditions): JointStates[] {
  const solver = new LineUpSolver(network);
  const solve = (one: LineUp) => {
    const result = solver.solve(one, conditions);
    return result.outcome === "solved" ? result : null;
  };
  const states = {
    running: solve(lineUp),
    pumpOnly: solve(stopped(lineUp, true)),
    overnight: solve(stopped(lineUp, false)),
    blanked: solveBlanked(solver, stopped(lineUp, true), conditions),
  };
  const { plan, ports } = network;
  const refs = [...plan.runs.flatMap(({ from, to }) => [from, to]), ...plan.joints.map(({ from }) => from)];
  return refs.flatMap((joint): JointStates[] => {
    const key = portKey(joint);
    const port = ports.get(key);
    if (!port) return [];
    const at = (state: LeakState): number | null => {
      const solved = states[state];
      const gauge = solved ? gaugeAtPort(solved, key) : Number.NaN;
      return solved && Number.isFinite(gauge) ? figuresAt(solved, gauge).gaugePa : null;
    };
    const of = <T>(make: (state: LeakState) => T) =>
      Object.fromEntries(leakStates.map((state) => [state, make(state)])) as Record<LeakState, T>;
    const gaugePa = of(at);
    const under = of((state) => underOf(gaugePa[state]));
    return [
      { key, joint, partId: joint.part, partName: port.ownerName, portName: port.name, gaugePa, under },
    ];
  });
}

/** What was seen in a state: fuel that weeps, air that comes in, or nothing of either. */
export type Seen = "weeps" | "air" | "dry";

export interface Suspect extends JointStates {
  /** Share of what was seen that this joint explains, 0 to 1. */
  fit: number;
}

const explains = (under: Under, seen: Seen): number => {
  if (under === "unknown") return 0.5;
  const would: Seen = under === "pressure" ? "weeps" : under === "vacuum" ? "air" : "dry";
  return would === seen ? 1 : 0;
};

/** Joints by how well a leak at each explains what was seen, best first; among equals the one under the most. */
export function rankLeaks(joints: readonly JointStates[], seen: Partial<Record<LeakState, Seen>>): Suspect[] {
  const looked = leakStates.filter((state) => seen[state] !== undefined);
  if (looked.length === 0) return [];
  const most = (one: JointStates) => Math.max(...looked.map((state) => Math.abs(one.gaugePa[state] ?? 0)));
  return joints
    .map((one) => ({
      ...one,
      fit:
        looked.reduce((sum, state) => sum + explains(one.under[state], seen[state] as Seen), 0) /
        looked.length,
    }))
    .sort((a, b) => b.fit - a.fit || most(b) - most(a));
}
