/** What still names a thing that is gone: keys of records, by the plan or part that they stand in. */
import { elementsOf } from "../kinds/families";
import type { PlanPart } from "../kinds/index";
import type { Id } from "../kinds/record";
import { portKey, portsOf } from "./ports";
import type { Job, Plan, Tank } from "./types";
import { positionsOf } from "./valves";

/** A key that names nothing, with the way to it from the job. */
export interface Stray {
  path: (string | number)[];
  id: Id;
}

const idsOf = (items: readonly { id: Id }[]) => new Set(items.map(({ id }) => id));

/** Ids of the filter elements in a plan; loading is kept by them. */
export const elementIds = (parts: readonly PlanPart[]): Id[] => elementsOf(parts).map(({ id }) => id);

function unknownKeys(record: Record<Id, unknown>, known: ReadonlySet<Id>, path: Stray["path"]): Stray[] {
  return Object.keys(record).flatMap((id) => (known.has(id) ? [] : [{ path: [...path, id], id }]));
}

/** The ports of parts and tanks that joints are at. */
const jointKeys = ({ runs, joints }: Plan): Set<string> =>
  new Set([
    ...runs.flatMap(({ from, to }) => [portKey(from), portKey(to)]),
    ...joints.map(({ from }) => portKey(from)),
  ]);

function straysOfPlan(job: Job, plan: Plan, path: Stray["path"]): Stray[] {
  const { conditions } = plan;
  const drawn = new Set([...idsOf(job.tanks), ...idsOf(job.consumers), ...idsOf(plan.parts)]);
  const held = plan.tankLines?.filter(({ tank }) => job.tanks.some(({ id }) => id === tank)) ?? [];
  const comes = (id: Id) => idsOf(plan.parts).has(id) || idsOf(plan.runs).has(id);
  const lying = new Set([...idsOf(plan.runs), ...idsOf(held)]);
  return [
    ...unknownKeys(conditions.aboardM3, idsOf(job.tanks), [...path, "conditions", "aboardM3"]),
    ...unknownKeys(conditions.loading, new Set(elementIds(plan.parts)), [...path, "conditions", "loading"]),
    ...unknownKeys(conditions.load, idsOf(job.consumers), [...path, "conditions", "load"]),
    ...unknownKeys(plan.places ?? {}, drawn, [...path, "places"]),
    ...unknownKeys(plan.sides ?? {}, idsOf(plan.parts), [...path, "sides"]),
    ...plan.parts.flatMap((part): Stray[] => {
      const own = plan.sides?.[part.id];
      const known = idsOf(portsOf(part));
      return (["west", "east"] as const).flatMap((side) =>
        (own?.[side] ?? []).flatMap((id, i): Stray[] =>
          known.has(id) ? [] : [{ path: [...path, "sides", part.id, side, i], id }],
        ),
      );
    }),
    ...(plan.awaited ?? []).flatMap((id, i): Stray[] =>
      comes(id) ? [] : [{ path: [...path, "awaited", i], id }],
    ),
    ...unknownKeys(plan.deliveries ?? {}, new Set(plan.awaited?.filter(comes)), [...path, "deliveries"]),
    ...unknownKeys(plan.jointLooks ?? {}, jointKeys(plan), [...path, "jointLooks"]),
    ...unknownKeys(plan.chains ?? {}, jointKeys(plan), [...path, "chains"]),
    ...(plan.passages ?? []).flatMap(({ runs }, i) =>
      runs.flatMap((id, k): Stray[] =>
        lying.has(id) ? [] : [{ path: [...path, "passages", i, "runs", k], id }],
      ),
    ),
    ...(plan.tanksDown ?? []).flatMap((tank, i): Stray[] =>
      job.tanks.some(({ id }) => id === tank) ? [] : [{ path: [...path, "tanksDown", i], id: tank }],
    ),
    ...(plan.covers ?? []).flatMap((cover, i): Stray[] =>
      "of" in cover &&
      !(cover.kind === "tankDown" ? job.tanks : job.consumers).some(({ id }) => id === cover.of)
        ? [{ path: [...path, "covers", i], id: cover.of }]
        : cover.hides.flatMap((id, k): Stray[] =>
            drawn.has(id) || lying.has(id) ? [] : [{ path: [...path, "covers", i, "hides", k], id }],
          ),
    ),
    ...(plan.tankLines ?? []).flatMap(({ tank }, i): Stray[] =>
      job.tanks.some(({ id }) => id === tank) ? [] : [{ path: [...path, "tankLines", i], id: tank }],
    ),
    ...unknownKeys(plan.mounted ?? {}, idsOf(plan.parts), [...path, "mounted"]),
    ...Object.entries(plan.mounted ?? {}).flatMap(([id, { boardId }]) =>
      plan.boards?.some((board) => board.id === boardId) || !plan.parts.some((part) => part.id === id)
        ? []
        : [{ path: [...path, "mounted", id], id: boardId }],
    ),
    ...plan.parts.flatMap((part): Stray[] => {
      const handle = plan.mounted?.[part.id]?.handle;
      if (!handle) return [];
      const positions = part.kind === "selector" || part.kind === "twoWay" ? positionsOf(part) : [];
      return positions.some(({ id }) => id === handle.position)
        ? []
        : [{ path: [...path, "mounted", part.id, "handle"], id: handle.position }];
    }),
    ...unknownKeys(plan.ends ?? {}, new Set([...drawn, ...idsOf(plan.runs)]), [...path, "ends"]),
    ...plan.parts.flatMap((part, i) =>
      part.ports ? unknownKeys(part.ports, idsOf(portsOf(part)), [...path, "parts", i, "ports"]) : [],
    ),
  ];
}

function straysOfTank({ pickupFit, ports, opening }: Tank, path: Stray["path"]): Stray[] {
  const known = idsOf(ports);
  const holes = (opening?.holes ?? []).flatMap(({ portId }, i): Stray[] =>
    portId === undefined || known.has(portId)
      ? []
      : [{ path: [...path, "opening", "holes", i, "portId"], id: portId }],
  );
  if (!pickupFit || known.has(pickupFit.portId)) return holes;
  return [...holes, { path: [...path, "pickupFit"], id: pickupFit.portId }];
}

/** Every key of a job that names nothing. */
export const straysOf = (job: Job): Stray[] => [
  ...job.tanks.flatMap((tank, i) => straysOfTank(tank, ["tanks", i])),
  ...job.consumers.flatMap((one, i) =>
    one.ports ? unknownKeys(one.ports, idsOf(portsOf(one)), ["consumers", i, "ports"]) : [],
  ),
  ...job.plans.flatMap((plan, i) => straysOfPlan(job, plan, ["plans", i])),
];
