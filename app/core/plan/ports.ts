import { kindOf, type Part } from "../kinds/index";
import type { Port, PortRole } from "../kinds/kind";
import type { Id, Position } from "../kinds/record";
import { DEGREE_RAD } from "../units/factors";
import type { Job, Plan, PortRef, Tank, TankPort } from "./types";

/** Ports of a part: stable ids by kind, called as its kind says or as somebody named them. */
export function portsOf(part: Part): readonly Port[] {
  const ports = kindOf(part).ports(part);
  const own = part.ports;
  if (!own) return ports;
  return ports.map((port) => {
    const name = own[port.id]?.name;
    return name === undefined ? port : { ...port, name };
  });
}

/** A part's own record of its ports with one called otherwise; as its kind says where it is called nothing, or that. */
export function portsNamed(part: Part, id: Id, said: string): NonNullable<Part["ports"]> {
  const usual = kindOf(part)
    .ports(part)
    .find((port) => port.id === id)?.name;
  const { name: _, ...own } = part.ports?.[id] ?? {};
  const name = said.trim();
  return { ...part.ports, [id]: name === "" || name === usual ? own : { ...own, name } };
}

/** Parts with an arrow cast on them: flow out to in is against it. */
export const hasArrow = (part: Part): boolean => kindOf(part).hasArrow;

export const partsOf = (job: Job, plan: Plan): Part[] => [...plan.parts, ...job.consumers];

export function currentPlan(job: Job): Plan {
  const plan = job.plans.find(({ id }) => id === job.currentPlanId);
  if (!plan) throw new Error(`job ${job.id} has no plan ${job.currentPlanId}`);
  return plan;
}

type Vector = readonly [x: number, y: number, z: number];
type Lying = { yawDeg?: number; installed?: { pitchDeg: number; rollDeg: number } };

/**
 * The tank's axes in the vehicle's: rolled (starboard down), pitched (front up) as it is fitted, then turned by its yaw.
 * Rows are the vehicle's x, y and z.
 */
function axesOf({ yawDeg = 0, installed }: Lying): [Vector, Vector, Vector] {
  const [p, r, w] = [installed?.pitchDeg ?? 0, installed?.rollDeg ?? 0, yawDeg].map(
    (deg) => deg * DEGREE_RAD,
  ) as [number, number, number];
  const [sp, cp, sr, cr, sw, cw] = [p, r, w].flatMap((angle) => [Math.sin(angle), Math.cos(angle)]) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const x: Vector = [cp, -sp * sr, -sp * cr];
  const y: Vector = [0, cr, -sr];
  const turned = (a: number, b: number): Vector => [
    a * x[0] + b * y[0],
    a * x[1] + b * y[1],
    a * x[2] + b * y[2],
  ];
  return [turned(cw, -sw), turned(sw, cw), [sp, cp * sr, cp * cr]];
}

/** A direction of the vehicle in the axes of a tank. */
export function intoTank(tank: Lying, [x, y, z]: Vector): Vector {
  const [a, b, c] = axesOf(tank);
  const along = (i: 0 | 1 | 2) => x * a[i] + y * b[i] + z * c[i];
  return [along(0), along(1), along(2)];
}

/** From the tank's frame to the job's. */
export function fromTank(tank: Tank, { xM, yM, zM }: Position): Position {
  const [x, y, z] = axesOf(tank).map(([a, b, c]) => a * xM + b * yM + c * zM) as [number, number, number];
  return { xM: tank.origin.xM + x, yM: tank.origin.yM + y, zM: tank.origin.zM + z };
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
