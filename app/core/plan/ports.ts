import { kindOf, type Part } from "../kinds/index";
import type { Port, PortRole } from "../kinds/kind";
import type { Position } from "../kinds/record";
import type { Job, Plan, PortRef, Tank, TankPort } from "./types";

/** Ports of a part: stable ids by kind. */
export const portsOf = (part: Part): readonly Port[] => kindOf(part).ports(part);

/** Parts with an arrow cast on them: flow out to in is against it. */
export const hasArrow = (part: Part): boolean => kindOf(part).hasArrow;

export const partsOf = (job: Job, plan: Plan): Part[] => [...plan.parts, ...job.consumers];

export function currentPlan(job: Job): Plan {
  const plan = job.plans.find(({ id }) => id === job.currentPlanId);
  if (!plan) throw new Error(`job ${job.id} has no plan ${job.currentPlanId}`);
  return plan;
}

/** From the tank's frame to the job's. */
export function fromTank(tank: Tank, at: Position): Position {
  const yaw = (tank.yawDeg * Math.PI) / 180;
  return {
    xM: tank.origin.xM + at.xM * Math.cos(yaw) - at.yM * Math.sin(yaw),
    yM: tank.origin.yM + at.xM * Math.sin(yaw) + at.yM * Math.cos(yaw),
    zM: tank.origin.zM + at.zM,
  };
}

export interface PlacedPort {
  ref: PortRef;
  name: string;
  ownerName: string;
  role: PortRole | TankPort["role"];
  position: Position;
  boreM: number;
}

/** Every port of a plan with its place in the job's frame, by `part.port`. */
export function placedPorts(job: Job, plan: Plan): Map<string, PlacedPort> {
  const placed = new Map<string, PlacedPort>();
  for (const tank of job.tanks) {
    for (const { id, name, role, outside, boreM } of tank.ports) {
      const ref = { part: tank.id, port: id };
      placed.set(portKey(ref), {
        ref,
        name,
        ownerName: tank.name,
        role,
        position: fromTank(tank, outside),
        boreM,
      });
    }
  }
  for (const part of partsOf(job, plan)) {
    for (const { id, name, role } of portsOf(part)) {
      const own = part.ports?.[id];
      const { xM, yM, zM } = part.position;
      const offset = own?.offset ?? { xM: 0, yM: 0, zM: 0 };
      const position = { xM: xM + offset.xM, yM: yM + offset.yM, zM: zM + offset.zM };
      const ref = { part: part.id, port: id };
      placed.set(portKey(ref), {
        ref,
        name,
        ownerName: part.name,
        role,
        position,
        boreM: own?.boreM ?? part.boreM,
      });
    }
  }
  return placed;
}

/** Name of a port in the network, at most 31 characters. */
export const portKey = ({ part, port: id }: PortRef): string => `${part}.${id}`;

/** Keys of ports that a hose or joint of the plan meets. */
export const joinedPorts = ({ runs, joints }: Pick<Plan, "runs" | "joints">): Set<string> =>
  new Set([...runs, ...joints].flatMap(({ from, to }) => [portKey(from), portKey(to)]));

export const samePort = (a: PortRef, b: PortRef) => a.part === b.part && a.port === b.port;

export const distanceM = (a: Position, b: Position): number =>
  Math.hypot(a.xM - b.xM, a.yM - b.yM, a.zM - b.zM);
