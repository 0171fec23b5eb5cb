/**
 * A manifold for given tanks and consumers: one outlet a tank with its shut-off and one return, teed to what runs; for
 * each engine a supply selector and a return selector without an 'off', to be turned by one handle; for each heater a
 * standpipe of its own and a dosing pump; one transfer pump between a bank that draws and a bank that fills, where fuel
 * is to be moved or polished, on outlets and returns of their own, or a lever left open would lead an engine's fuel to
 * another tank. With it the line-ups that were wished for, each in its valve table.
 */

import type { Command } from "../edit/command";
import { applyCommand } from "../edit/commands";
import { burnsAll } from "../kinds/consumer";
import type { DosingPump } from "../kinds/dosingPump";
import { isPowered } from "../kinds/families";
import { newId } from "../kinds/ids";
import type { Engine } from "../kinds/index";
import type { Id, Position } from "../kinds/record";
import { newLineUp, newPart, newPlan } from "../plan/blank";
import { currentPlan, distanceM, placedPorts } from "../plan/ports";
import type { Job, LineUp, Plan, PortRef, Tank, ValveSetting } from "../plan/types";
import { boundsOf } from "../tanks/shape";

export interface Wishes {
  /** Tanks that may feed each consumer, in the order of the handle. */
  feeds: { consumerId: Id; tankIds: Id[] }[];
  /** Fuel moved from one tank to another. */
  transfers: { fromId: Id; toId: Id }[];
  /** Tanks that are polished: drawn from and filled again through a fine filter. */
  polishIds: Id[];
}

export interface Proposal {
  plan: Plan;
  /** The job's tanks with the ports that the manifold needs and they had not. */
  tanks: Tank[];
  /** Selectors that one handle must turn together. */
  coupled: [Id, Id][];
}

const ref = (part: Id, port: Id): PortRef => ({ part, port });
const at = (xM: number, yM: number, zM: number): Position => ({ xM, yM, zM });
/** A shut-off stands this near the tank's outlet. Common practice, no source. */
const SHUT_OFF_AT_M = 0.1;

/** Mouths of one tank stand this far apart. Common practice, no source. */
const BESIDE_M = 0.05;

/** The step beside a mouth that leads furthest from the mouths of the other role, inside the tank. */
function clearStep({ shape, ports }: Tank, role: "outlet" | "return", from: Position): [number, number] {
  const { x, y } = boundsOf(shape);
  const others = ports.filter((port) => port.role !== role).map(({ mouth }) => mouth);
  const clear = ([dx, dy]: [number, number]) =>
    Math.min(Infinity, ...others.map(({ xM, yM }) => Math.hypot(from.xM + dx - xM, from.yM + dy - yM)));
  const steps = [
    [BESIDE_M, 0],
    [-BESIDE_M, 0],
    [0, BESIDE_M],
    [0, -BESIDE_M],
  ] as [number, number][];
  const inside = steps.filter(
    ([dx, dy]) => from.xM + dx > x[0] && from.xM + dx < x[1] && from.yM + dy > y[0] && from.yM + dy < y[1],
  );
  return inside.reduce(
    (best, step) => (clear(step) > clear(best) + 1e-9 ? step : best),
    inside[0] ?? [BESIDE_M, 0],
  );
}

/** Builds on a job, command by command. */
class Builder {
  constructor(public job: Job) {}

  do(...commands: Command[]): void {
    for (const command of commands) this.job = applyCommand(this.job, command).job;
  }

  get plan(): Plan {
    return currentPlan(this.job);
  }

  tank(id: Id): Tank {
    const tank = this.job.tanks.find((one) => one.id === id);
    if (!tank) throw new Error(`no tank ${id}`);
    return tank;
  }

  /** An open port of a role; made beside the last of its role where all are taken. */
  port(tankId: Id, role: "outlet" | "return"): PortRef {
    const tank = this.tank(tankId);
    const taken = new Set(
      [...this.plan.runs, ...this.plan.joints].flatMap(({ from, to }) =>
        [from, to].map((r) => `${r.part}.${r.port}`),
      ),
    );
    const free = tank.ports.find((port) => port.role === role && !taken.has(`${tankId}.${port.id}`));
    if (free) return ref(tankId, free.id);
    const like = tank.ports.findLast((port) => port.role === role) ?? tank.ports[0];
    const id = newId();
    const from = like?.mouth ?? at(0, 0, 0.025);
    const [dx, dy] = clearStep(tank, role, from);
    const beside = (p: Position): Position => ({ ...p, xM: p.xM + dx, yM: p.yM + dy });
    const made = {
      id,
      name: role === "outlet" ? "supply" : "return",
      role,
      mouth: beside(from),
      outside: beside(like?.outside ?? at(0, 0, 0.025)),
      boreM: like?.boreM ?? 0.0095,
    };
    this.do({ name: "editTank", id: tankId, change: { ports: [...tank.ports, made] } });
    return ref(tankId, id);
  }

  connect(from: PortRef, to: PortRef): void {
    this.do({ name: "connect", id: newId(), from, to });
  }

  screw(from: PortRef, to: PortRef): void {
    this.do({ name: "join", id: newId(), from, to });
  }

  /** Amid the outlets of some tanks. */
  amid(tankIds: readonly Id[]): Position {
    return mean(
      tankIds.map((id) => {
        const { ports, origin } = this.tank(id);
        const outlet = ports.find(({ role }) => role === "outlet");
        return outlet ? this.spot(ref(id, outlet.id)) : origin;
      }),
    );
  }

  /** Where a port is, from the job's datum. */
  spot({ part, port }: PortRef): Position {
    const placed = placedPorts(this.job, this.plan).get(`${part}.${port}`);
    if (!placed) throw new Error(`no port ${part}.${port}`);
    return placed.position;
  }

  part(
    kind: Extract<Command, { name: "addPart" }>["kind"],
    name: string,
    position: Position,
    change = {},
  ): Id {
    const id = newId();
    this.do({ name: "addPart", id, kind, position }, { name: "editPart", id, change: { name, ...change } });
    return id;
  }
}

interface Fed {
  consumer: Engine;
  tankIds: Id[];
  supply: Id | null;
  back: Id | null;
  pump: Id;
}

const way = (i: number): Id => `w${i + 1}`;

/** Ways by tank, and no position that shuts. */
const selectorOf = (names: readonly string[]) => ({
  ways: Math.max(2, names.length),
  positions: names.map((name, i) => ({ id: `p${i + 1}`, name, joins: [["c", way(i)]] })),
  makesBeforeBreaks: true,
});

const mean = (spots: readonly Position[]): Position =>
  at(
    spots.reduce((sum, { xM }) => sum + xM, 0) / spots.length,
    spots.reduce((sum, { yM }) => sum + yM, 0) / spots.length,
    spots.reduce((sum, { zM }) => sum + zM, 0) / spots.length,
  );

/** Part of the way from one place to another, at the height of the first. */
const between = (from: Position, to: Position, share: number, upM = 0): Position =>
  at(from.xM + share * (to.xM - from.xM), from.yM + share * (to.yM - from.yM), from.zM + upM);

/** A place on the straight way from one to another, so far along it. */
function along(from: Position, to: Position, farM: number): Position {
  const wayM = distanceM(from, to);
  const share = wayM > 0 ? Math.min(1, farM / wayM) : 0;
  return at(
    from.xM + share * (to.xM - from.xM),
    from.yM + share * (to.yM - from.yM),
    from.zM + share * (to.zM - from.zM),
  );
}

/** What is to be joined to each tank: gathered first, so that a tank needs one outlet and one return. */
class Headers {
  private readonly outlets = new Map<Id, PortRef[]>();
  private readonly returns = new Map<Id, PortRef[]>();
  private readonly alone: { tankId: Id; name: string; to: PortRef }[] = [];

  constructor(private readonly builder: Builder) {}

  draw(tankId: Id, to: PortRef): void {
    this.outlets.set(tankId, [...(this.outlets.get(tankId) ?? []), to]);
  }

  fill(tankId: Id, from: PortRef): void {
    this.returns.set(tankId, [...(this.returns.get(tankId) ?? []), from]);
  }

  /** Draws from an outlet of which no other draws. */
  drawAlone(tankId: Id, name: string, to: PortRef): void {
    this.alone.push({ tankId, name, to });
  }

  /** An outlet with its shut-off at the tank. */
  private outlet(tankId: Id, name: string, towards: Position): PortRef {
    const { builder } = this;
    const outlet = builder.port(tankId, "outlet");
    const spot = along(builder.spot(outlet), towards, SHUT_OFF_AT_M);
    const valve = builder.part("twoWay", `${name} shut-off`, spot);
    builder.connect(outlet, ref(valve, "a"));
    return ref(valve, "b");
  }

  /** Joins every port gathered to one: each tee but the last leads on to the next. */
  private tee(start: PortRef, spot: Position, ends: readonly PortRef[], name: string): void {
    let open = start;
    ends.slice(0, -1).forEach((end, i) => {
      const tee = this.builder.part("tee", `${name} tee${ends.length > 2 ? ` ${i + 1}` : ""}`, spot);
      if (i === 0) this.builder.connect(open, ref(tee, "a"));
      else this.builder.screw(open, ref(tee, "a"));
      this.builder.connect(ref(tee, "c"), end);
      open = ref(tee, "b");
    });
    this.builder.connect(open, ends.at(-1) as PortRef);
  }

  build(): void {
    const { builder } = this;
    for (const [tankId, ends] of this.outlets) {
      const { name } = builder.tank(tankId);
      const towards = mean(ends.map((end) => builder.spot(end)));
      const shut = this.outlet(tankId, name, towards);
      this.tee(shut, between(builder.spot(shut), towards, 0.5), ends, name);
    }
    for (const { tankId, name, to } of this.alone)
      builder.connect(this.outlet(tankId, name, builder.spot(to)), to);
    for (const [tankId, ends] of this.returns) {
      const port = builder.port(tankId, "return");
      const towards = mean(ends.map((end) => builder.spot(end)));
      this.tee(port, between(builder.spot(port), towards, 0.5), ends, `${builder.tank(tankId).name} return`);
    }
  }
}

/** Separator, gauge and pump to an engine over a selector where it has a choice; its return over one of its own. */
function feedEngine(builder: Builder, headers: Headers, consumer: Engine, tankIds: readonly Id[]): Fed {
  const names = tankIds.map((id) => builder.tank(id).name);
  const here = builder.spot(ref(consumer.id, "feed"));
  const tanks = builder.amid(tankIds);
  const put = (share: number, upM = 0) => between(here, tanks, share, upM);
  const separator = builder.part("filter", `${consumer.name} separator`, put(0.5));
  const gauge = builder.part("gauge", `${consumer.name} gauge`, put(0.4, 0.05));
  const pump = builder.part("liftPump", `${consumer.name} pump`, put(0.3, -0.1));
  builder.connect(ref(separator, "out"), ref(gauge, "a"));
  builder.connect(ref(gauge, "b"), ref(pump, "in"));
  builder.connect(ref(pump, "out"), ref(consumer.id, "feed"));
  if (tankIds.length === 1) {
    headers.draw(tankIds[0] as Id, ref(separator, "in"));
    headers.fill(tankIds[0] as Id, ref(consumer.id, "return"));
    return { consumer, tankIds: [...tankIds], supply: null, back: null, pump };
  }
  const supply = builder.part("selector", `${consumer.name} supply`, put(0.6), selectorOf(names));
  const back = builder.part("selector", `${consumer.name} return`, put(0.6, 0.1), selectorOf(names));
  builder.connect(ref(supply, "c"), ref(separator, "in"));
  builder.connect(ref(consumer.id, "return"), ref(back, "c"));
  tankIds.forEach((id, i) => {
    headers.draw(id, ref(supply, way(i)));
    headers.fill(id, ref(back, way(i)));
  });
  return { consumer, tankIds: [...tankIds], supply, back, pump };
}

/** A dosing pump to a heater from standpipes of its own, over a selector where it has a choice. */
/** A heater asks for less than the most of its pump. Common practice, no source. */
const PUMP_TO_SPARE = 1.1;

/** The blank pump's stroke, or the larger one that a heater needs. */
function strokeFor({ loads }: Engine): { strokeM3?: number } {
  const { strokeM3, mostHz } = newPart("dosingPump", "", at(0, 0, 0)) as DosingPump;
  const askedM3 = (PUMP_TO_SPARE * Math.max(...loads.map(({ burnM3S }) => burnM3S))) / mostHz;
  return askedM3 > strokeM3 ? { strokeM3: askedM3 } : {};
}

function feedHeater(builder: Builder, headers: Headers, consumer: Engine, tankIds: readonly Id[]): Fed {
  const names = tankIds.map((id) => builder.tank(id).name);
  const here = builder.spot(ref(consumer.id, "feed"));
  const tanks = builder.amid(tankIds);
  const pump = builder.part(
    "dosingPump",
    `${consumer.name} dosing pump`,
    between(here, tanks, 0.75),
    strokeFor(consumer),
  );
  builder.connect(ref(pump, "out"), ref(consumer.id, "feed"));
  const supply =
    tankIds.length > 1
      ? builder.part("selector", `${consumer.name} supply`, between(here, tanks, 0.85), selectorOf(names))
      : null;
  if (supply !== null) builder.connect(ref(supply, "c"), ref(pump, "in"));
  tankIds.forEach((id, i) => {
    const to = supply === null ? ref(pump, "in") : ref(supply, way(i));
    headers.drawAlone(id, tankIds.length > 1 ? `${consumer.name} ${names[i]}` : consumer.name, to);
  });
  return { consumer, tankIds: [...tankIds], supply, back: null, pump };
}

interface Moving {
  draw: Id;
  fill: Id;
  pump: Id;
  branch: Map<Id, Id>;
}

/** A bank that draws, a pump, a fine filter and a bank that fills: for transfers and polishing. */
function move(builder: Builder, headers: Headers, tankIds: readonly Id[]): Moving {
  const branch = new Map(tankIds.map((id, i) => [id, `t${i + 1}`]));
  const branches = tankIds.map((id) => ({ id: branch.get(id) as Id, name: builder.tank(id).name }));
  const { xM, yM, zM } = builder.amid(tankIds);
  const put = (aftM: number, upM: number) => at(xM - 0.5 - aftM, yM, zM + upM);
  const draw = builder.part("bank", "Transfer draws", put(0, 0.1), { branches });
  const pump = builder.part("transferPump", "Transfer pump", put(0.2, 0));
  const fine = builder.part("filter", "Polishing filter", put(0.4, 0.15), {
    medium: "secondary",
    micron: 2,
    ratedFlowM3S: 900 / 3.6e6,
  });
  const fill = builder.part("bank", "Transfer fills", put(0.6, 0.2), { branches });
  builder.connect(ref(draw, "c"), ref(pump, "in"));
  builder.connect(ref(pump, "out"), ref(fine, "in"));
  builder.connect(ref(fine, "out"), ref(fill, "c"));
  for (const id of tankIds)
    headers.drawAlone(id, `${builder.tank(id).name} transfer`, ref(draw, branch.get(id) as Id));
  return { draw, fill, pump, branch };
}

/** Once engines have their returns: a tank's first is theirs. */
function fillFrom(builder: Builder, { fill, branch }: Moving): void {
  for (const [tankId, id] of branch) builder.connect(ref(fill, id), builder.port(tankId, "return"));
}

/** Settings with every selector on its first tank, banks shut, pumps off, consumers stopped. */
function atRest(builder: Builder): Pick<LineUp, "valves" | "pumps" | "consumers"> {
  const valves: Record<Id, ValveSetting> = {};
  const pumps: LineUp["pumps"] = {};
  for (const part of builder.plan.parts) {
    if (part.kind === "selector") valves[part.id] = { kind: "position", position: "p1" };
    if (part.kind === "bank") valves[part.id] = { kind: "branches", open: [] };
    if (part.kind === "twoWay") valves[part.id] = { kind: "position", position: "open" };
    if (isPowered(part)) pumps[part.id] = "off";
  }
  const consumers = Object.fromEntries(builder.job.consumers.map(({ id }) => [id, "stopped" as const]));
  return { valves, pumps, consumers };
}

/** A line-up a tank that all who may draw from it do; those who may not stay on their first. */
function runs(builder: Builder, fed: readonly Fed[]): LineUp[] {
  const tankIds = [...new Set(fed.flatMap((one) => one.tankIds))];
  return tankIds.map((tankId) => {
    const rest = atRest(builder);
    for (const { consumer, tankIds: own, supply, back, pump } of fed) {
      const position = `p${Math.max(0, own.indexOf(tankId)) + 1}`;
      for (const id of [supply, back]) if (id !== null) rest.valves[id] = { kind: "position", position };
      rest.pumps[pump] = "on";
      rest.consumers[consumer.id] = "running";
    }
    return { ...newLineUp(newId(), `Run on ${builder.tank(tankId).name}`), ...rest };
  });
}

/**
 * Engine stopped, the way open from a tank to it: with the pump on it fills and primes the line, with the pump off
 * it is blown through back into the tank. A heater's line is filled by hand and by its own starts.
 */
function fills(builder: Builder, fed: readonly Fed[], name: "Prime" | "Purge"): LineUp[] {
  return fed.flatMap(({ consumer, tankIds, supply, back, pump }) =>
    (burnsAll(consumer) ? [] : tankIds).map((tankId, i) => {
      const rest = atRest(builder);
      for (const id of [supply, back])
        if (id !== null) rest.valves[id] = { kind: "position", position: `p${i + 1}` };
      rest.pumps[pump] = name === "Prime" ? "on" : "off";
      const way = name === "Prime" ? "from" : "into";
      const whole = `${name} ${consumer.name} ${way} ${builder.tank(tankId).name}`;
      return { ...newLineUp(newId(), whole), ...rest, purpose: "prime" as const };
    }),
  );
}

function moves(builder: Builder, moving: Moving, { transfers, polishIds }: Wishes): LineUp[] {
  const line = (name: string, fromId: Id, toId: Id, purpose: "transfer" | "polish"): LineUp => {
    const rest = atRest(builder);
    rest.valves[moving.draw] = { kind: "branches", open: [moving.branch.get(fromId) as Id] };
    rest.valves[moving.fill] = { kind: "branches", open: [moving.branch.get(toId) as Id] };
    rest.pumps[moving.pump] = "on";
    return { ...newLineUp(newId(), name), ...rest, purpose, intendedTransfer: purpose === "transfer" };
  };
  const nameOf = (id: Id) => builder.tank(id).name;
  return [
    ...transfers.map(({ fromId, toId }) =>
      line(`Transfer ${nameOf(fromId)} to ${nameOf(toId)}`, fromId, toId, "transfer"),
    ),
    ...polishIds.map((id) => line(`Polish ${nameOf(id)}`, id, id, "polish")),
  ];
}

/** Proposes a plan beside the others. Throws on wishes that name what the job has not, or feed a consumer from nothing. */
export function proposeManifold(job: Job, wishes: Wishes, planId: Id = newId(), name = "Manifold"): Proposal {
  const plan: Plan = {
    ...newPlan(planId, name),
    conditions: { ...currentPlan(job).conditions },
    basedOn: job.currentPlanId,
  };
  const builder = new Builder({ ...job, plans: [...job.plans, plan], currentPlanId: planId });
  const headers = new Headers(builder);
  const fed = wishes.feeds.map(({ consumerId, tankIds }) => {
    const consumer = job.consumers.find(({ id }) => id === consumerId);
    if (!consumer || tankIds.length === 0) throw new Error(`consumer ${consumerId} is fed from nothing`);
    return (consumer.kind === "heater" ? feedHeater : feedEngine)(builder, headers, consumer, tankIds);
  });
  const moved = [
    ...new Set([...wishes.transfers.flatMap(({ fromId, toId }) => [fromId, toId]), ...wishes.polishIds]),
  ];
  const moving = moved.length > 0 ? move(builder, headers, moved) : null;
  headers.build();
  if (moving) fillFrom(builder, moving);
  const lineUps = [
    ...runs(builder, fed),
    ...(moving ? moves(builder, moving, wishes) : []),
    ...fills(builder, fed, "Prime"),
    ...fills(builder, fed, "Purge"),
  ];
  return {
    plan: { ...builder.plan, lineUps },
    tanks: builder.job.tanks,
    coupled: fed.flatMap(({ supply, back }) =>
      supply !== null && back !== null ? [[supply, back] as [Id, Id]] : [],
    ),
  };
}
