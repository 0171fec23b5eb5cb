/**
 * A manifold for given tanks and consumers: for each consumer a supply selector and a return selector without an 'off',
 * to be turned by one handle; one transfer pump between a bank that draws and a bank that fills, where fuel is to be
 * moved or polished. With it the line-ups that were wished for, each in its valve table.
 */
import { applyCommand, type Command } from "../edit/commands";
import { newLineUp, newPlan } from "../plan/blank";
import { newId } from "../plan/ids";
import { currentPlan } from "../plan/ports";
import type { Engine, Id, Job, LineUp, Plan, PortRef, Position, Tank, ValveSetting } from "../plan/types";

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
    const beside = (p: Position): Position => ({ ...p, xM: p.xM + 0.05 });
    const made = {
      id,
      name: role === "outlet" ? "supply" : "return",
      role,
      mouth: beside(like?.mouth ?? at(0, 0, 0.025)),
      outside: beside(like?.outside ?? at(0, 0, 0.025)),
      boreM: like?.boreM ?? 0.0095,
    };
    this.do({ name: "editTank", id: tankId, change: { ports: [...tank.ports, made] } });
    return ref(tankId, id);
  }

  connect(from: PortRef, to: PortRef): void {
    this.do({ name: "connect", id: newId(), from, to });
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

/** Supply selector, separator, gauge and pump to a consumer; its return over a selector of its own. */
function feed(builder: Builder, consumer: Engine, tankIds: readonly Id[], row: number): Fed {
  const names = tankIds.map((id) => builder.tank(id).name);
  const y = 0.6 - row * 0.5;
  const isMany = tankIds.length > 1;
  const sep = builder.part("filter", `${consumer.name} separator`, at(1.3, y, 0.6));
  const gauge = builder.part("gauge", `${consumer.name} gauge`, at(1.1, y, 0.65));
  const pump = builder.part("liftPump", `${consumer.name} pump`, at(0.8, y, 0.5));
  let supply: Id | null = null;
  let back: Id | null = null;
  if (isMany) {
    supply = builder.part("selector", `${consumer.name} supply`, at(1.7, y, 0.6), selectorOf(names));
    tankIds.forEach((id, i) => {
      builder.connect(builder.port(id, "outlet"), ref(supply as Id, way(i)));
    });
    builder.connect(ref(supply, "c"), ref(sep, "in"));
  } else {
    const valve = builder.part("twoWay", `${names[0] ?? ""} valve`, at(1.7, y, 0.6));
    builder.connect(builder.port(tankIds[0] as Id, "outlet"), ref(valve, "a"));
    builder.connect(ref(valve, "b"), ref(sep, "in"));
  }
  builder.connect(ref(sep, "out"), ref(gauge, "a"));
  builder.connect(ref(gauge, "b"), ref(pump, "in"));
  builder.connect(ref(pump, "out"), ref(consumer.id, "feed"));
  if (consumer.kind === "heater") return { consumer, tankIds: [...tankIds], supply, back, pump };
  if (isMany) {
    back = builder.part("selector", `${consumer.name} return`, at(1.7, y - 0.2, 0.6), selectorOf(names));
    builder.connect(ref(consumer.id, "return"), ref(back, "c"));
    tankIds.forEach((id, i) => {
      builder.connect(ref(back as Id, way(i)), builder.port(id, "return"));
    });
  } else builder.connect(ref(consumer.id, "return"), builder.port(tankIds[0] as Id, "return"));
  return { consumer, tankIds: [...tankIds], supply, back, pump };
}

interface Moving {
  draw: Id;
  fill: Id;
  pump: Id;
  branch: Map<Id, Id>;
}

/** A bank that draws, a pump, a fine filter and a bank that fills: for transfers and polishing. */
function move(builder: Builder, tankIds: readonly Id[]): Moving {
  const branch = new Map(tankIds.map((id, i) => [id, `t${i + 1}`]));
  const branches = tankIds.map((id) => ({ id: branch.get(id) as Id, name: builder.tank(id).name }));
  const draw = builder.part("bank", "Transfer draws", at(1.8, -0.6, 0.55), { branches });
  const fill = builder.part("bank", "Transfer fills", at(1.2, -0.6, 0.65), { branches });
  const pump = builder.part("transferPump", "Transfer pump", at(1.6, -0.6, 0.45));
  const fine = builder.part("filter", "Polishing filter", at(1.4, -0.6, 0.6), {
    medium: "secondary",
    micron: 2,
    ratedFlowM3S: 900 / 3.6e6,
  });
  for (const id of tankIds) builder.connect(builder.port(id, "outlet"), ref(draw, branch.get(id) as Id));
  builder.connect(ref(draw, "c"), ref(pump, "in"));
  builder.connect(ref(pump, "out"), ref(fine, "in"));
  builder.connect(ref(fine, "out"), ref(fill, "c"));
  for (const id of tankIds) builder.connect(ref(fill, branch.get(id) as Id), builder.port(id, "return"));
  return { draw, fill, pump, branch };
}

/** Settings with every selector on its first tank, banks shut, pumps off, consumers stopped. */
function atRest(builder: Builder): Pick<LineUp, "valves" | "pumps" | "consumers"> {
  const valves: Record<Id, ValveSetting> = {};
  const pumps: LineUp["pumps"] = {};
  for (const part of builder.plan.parts) {
    if (part.kind === "selector") valves[part.id] = { kind: "position", position: "p1" };
    if (part.kind === "bank") valves[part.id] = { kind: "branches", open: [] };
    if (part.kind === "twoWay") valves[part.id] = { kind: "position", position: "open" };
    if (part.kind === "liftPump" || part.kind === "transferPump") pumps[part.id] = "off";
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
 * it is blown through back into the tank.
 */
function fills(builder: Builder, fed: readonly Fed[], name: "Prime" | "Purge"): LineUp[] {
  return fed.flatMap(({ consumer, tankIds, supply, back, pump }) =>
    tankIds.map((tankId, i) => {
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
  const fed = wishes.feeds.map(({ consumerId, tankIds }, row) => {
    const consumer = job.consumers.find(({ id }) => id === consumerId);
    if (!consumer || tankIds.length === 0) throw new Error(`consumer ${consumerId} is fed from nothing`);
    return feed(builder, consumer, tankIds, row);
  });
  const moved = [
    ...new Set([...wishes.transfers.flatMap(({ fromId, toId }) => [fromId, toId]), ...wishes.polishIds]),
  ];
  const moving = moved.length > 0 ? move(builder, moved) : null;
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
