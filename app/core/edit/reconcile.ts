/**
 * One job that was changed on two devices: what differs, by part and figure, and one job made of both, each difference
 * taken from one side.
 */
import { elementsOf, isPowered, isValve } from "../kinds/families";
import type { Id } from "../kinds/record";
import { placedPorts, portKey } from "../plan/ports";
import type { Job, Plan } from "../plan/types";
import { firstSetting } from "../plan/valves";
import { fitHoses } from "./hoses";

export type What =
  | "job"
  | "plan"
  | "tank"
  | "consumer"
  | "part"
  | "run"
  | "joint"
  | "lineUp"
  | "board"
  | "tankLine";

export interface Difference {
  key: string;
  what: What;
  /** Of the thing that differs; of its plan, where it stands in one. */
  id: Id;
  planId?: Id;
  name: string;
  /** The figure; null where the whole thing stands on one side alone. */
  field: string | null;
  here: unknown;
  there: unknown;
}

type Loose = Record<string, unknown>;
type Item = { id: Id } & Loose;

/** Lists whose items have ids and are told one by one. */
const jobLists = [
  ["tank", "tanks"],
  ["consumer", "consumers"],
] as const;
const planLists = [
  ["part", "parts"],
  ["run", "runs"],
  ["joint", "joints"],
  ["lineUp", "lineUps"],
  ["board", "boards"],
  ["tankLine", "tankLines"],
] as const;
/** Not told: ids, what goes with a figure or a part of its own, and where things stand on the drawing. */
const silent = new Set([
  "id",
  "given",
  "tanks",
  "consumers",
  "plans",
  "currentPlanId",
  "places",
  "sides",
  "basedOn",
]);
for (const [, list] of planLists) silent.add(list);

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
const listOf = (holder: object, key: string): Item[] => ((holder as Loose)[key] as Item[] | undefined) ?? [];
const nameIn = (item: Loose): string => (typeof item.name === "string" ? item.name : "");

/** Fields of two records that differ; of conditions each of its own. */
function fieldsOf(here: Loose, there: Loose): { field: string; here: unknown; there: unknown }[] {
  return [...new Set([...Object.keys(here), ...Object.keys(there)])].flatMap((field) => {
    if (silent.has(field) || same(here[field], there[field])) return [];
    if (field === "conditions")
      return fieldsOf(here[field] as Loose, there[field] as Loose).map((one) => ({
        ...one,
        field: `conditions.${one.field}`,
      }));
    return [{ field, here: here[field], there: there[field] }];
  });
}

function between(what: What, here: readonly Item[], there: readonly Item[], planId?: Id): Difference[] {
  const base = (id: Id) => ({ what, id, ...(planId === undefined ? {} : { planId }) });
  const [own, other] = [
    new Map(here.map((one) => [one.id, one])),
    new Map(there.map((one) => [one.id, one])),
  ];
  const key = (id: Id, field: string) => `${planId ?? ""}/${what}/${id}/${field}`;
  return [...new Set([...own.keys(), ...other.keys()])].flatMap((id): Difference[] => {
    const [a, b] = [own.get(id), other.get(id)];
    if (!a || !b || (what !== "job" && a.kind !== b.kind))
      return [
        { ...base(id), key: key(id, ""), name: nameIn(a ?? (b as Item)), field: null, here: a, there: b },
      ];
    return fieldsOf(a, b).map((one) => ({ ...base(id), ...one, key: key(id, one.field), name: nameIn(a) }));
  });
}

/** What differs between a job here and the same job from elsewhere. */
export function differencesOf(here: Job, there: Job): Difference[] {
  const self = (job: Job): Item => ({ ...(job as unknown as Loose), id: here.id });
  const planItem = (plan: Plan): Item => plan as unknown as Item;
  return [
    ...between("job", [self(here)], [self(there)]),
    ...jobLists.flatMap(([what, list]) => between(what, listOf(here, list), listOf(there, list))),
    ...between("plan", here.plans.map(planItem), there.plans.map(planItem)),
    ...here.plans.flatMap((plan) => {
      const other = there.plans.find(({ id }) => id === plan.id);
      if (!other) return [];
      return planLists.flatMap(([what, list]) =>
        between(what, listOf(plan, list), listOf(other, list), plan.id),
      );
    }),
  ];
}

/** A figure and how it is known go together. */
function takeField(record: Loose, from: Loose, field: string): void {
  const [group, inner] = field.startsWith("conditions.") ? ["conditions", field.slice(11)] : [null, field];
  const [to, source] = group === null ? [record, from] : [record[group] as Loose, from[group] as Loose];
  if (source[inner] === undefined) delete to[inner];
  else to[inner] = structuredClone(source[inner]);
  if (group !== null) return;
  const isOf = (key: string) => key === field || key.startsWith(`${field}.`);
  const given = { ...(record.given as Loose | undefined) };
  for (const key of Object.keys(given)) if (isOf(key)) delete given[key];
  for (const [key, value] of Object.entries((from.given as Loose | undefined) ?? {}))
    if (isOf(key)) given[key] = structuredClone(value);
  if (Object.keys(given).length > 0) record.given = given;
  else delete record.given;
}

/** Sets a thing of a list, or takes it out. */
function takeItem(holder: Loose, list: string, id: Id, item: unknown): void {
  const items = (holder[list] as Item[] | undefined) ?? [];
  const at = items.findIndex((one) => one.id === id);
  const next = [...items];
  if (item === undefined) {
    if (at >= 0) next.splice(at, 1);
  } else if (at >= 0) next[at] = structuredClone(item) as Item;
  else next.push(structuredClone(item) as Item);
  if (next.length > 0 || list in holder) holder[list] = next;
}

/** Hoses that end at what is there, one at each port: of two at one port the taken one stays. */
function tidyHoses(job: Job, plan: Plan, taken: ReadonlySet<Id>): void {
  const ports = placedPorts(job, plan);
  const used = new Set<string>();
  const order = [...plan.runs, ...plan.joints].sort(
    (a, b) => Number(taken.has(b.id)) - Number(taken.has(a.id)),
  );
  const stays = new Set<Id>();
  for (const { id, from, to } of order) {
    const keys = [portKey(from), portKey(to)];
    if (keys.some((key) => !ports.has(key) || used.has(key))) continue;
    for (const key of keys) used.add(key);
    stays.add(id);
  }
  plan.runs = plan.runs.filter(({ id }) => stays.has(id));
  plan.joints = plan.joints.filter(({ id }) => stays.has(id));
  // A hose that no longer reaches is as long as it must be.
  for (const id of new Set(plan.runs.flatMap(({ from, to }) => [from.part, to.part])))
    fitHoses(job, plan, id, { evenMeasured: true });
}

/** What came from there stands in each line-up and in the conditions as it stood there. */
function settle(job: Job, plan: Plan, there: Plan | undefined): void {
  const [parts, consumers] = [plan.parts, job.consumers].map((list) => new Set(list.map(({ id }) => id))) as [
    Set<Id>,
    Set<Id>,
  ];
  const keepOnly = (record: Record<Id, unknown>, known: ReadonlySet<Id>) => {
    for (const id of Object.keys(record)) if (!known.has(id)) delete record[id];
  };
  for (const lineUp of plan.lineUps) {
    keepOnly(lineUp.valves, parts);
    keepOnly(lineUp.pumps, parts);
    keepOnly(lineUp.consumers, consumers);
    const other = there?.lineUps.find(({ id }) => id === lineUp.id);
    for (const part of plan.parts) {
      if (isValve(part)) lineUp.valves[part.id] ??= other?.valves[part.id] ?? firstSetting(part);
      if (isPowered(part)) lineUp.pumps[part.id] ??= other?.pumps[part.id] ?? "off";
    }
    for (const { id } of job.consumers) lineUp.consumers[id] ??= other?.consumers[id] ?? "stopped";
  }
  const { aboardM3, loading, load } = plan.conditions;
  const known = there?.conditions;
  const fill = (own: Record<Id, number>, other: Record<Id, number> | undefined, ids: readonly Id[]) => {
    for (const id of ids) if (own[id] === undefined && other?.[id] !== undefined) own[id] = other[id];
  };
  fill(
    aboardM3,
    known?.aboardM3,
    job.tanks.map(({ id }) => id),
  );
  fill(
    loading,
    known?.loading,
    elementsOf(plan.parts).map(({ id }) => id),
  );
  fill(
    load,
    known?.load,
    job.consumers.map(({ id }) => id),
  );
}

/** The job here with the differences whose keys are taken as they are there. What names nothing any more is left to the command. */
export function reconciled(here: Job, there: Job, taken: ReadonlySet<string>): Job {
  const job = structuredClone(here);
  const all = differencesOf(here, there).filter(({ key }) => taken.has(key));
  const lists = new Map<What, string>([...jobLists, ...planLists]);
  for (const one of all) {
    const holder: Loose | undefined = (one.planId === undefined
      ? job
      : job.plans.find(({ id }) => id === one.planId)) as unknown as Loose | undefined;
    if (!holder) continue;
    if (one.what === "job" && one.field !== null) takeField(holder, there as unknown as Loose, one.field);
    else if (one.what === "plan") {
      if (one.field === null) takeItem(holder, "plans", one.id, one.there);
      else {
        const [plan, other] = [job, there].map(({ plans }) => plans.find(({ id }) => id === one.id));
        if (plan && other) takeField(plan as unknown as Loose, other as unknown as Loose, one.field);
      }
    } else {
      const list = lists.get(one.what) as string;
      if (one.field === null) takeItem(holder, list, one.id, one.there);
      else {
        const from = one.planId === undefined ? there : there.plans.find(({ id }) => id === one.planId);
        const record = listOf(holder, list).find(({ id }) => id === one.id);
        const other = from && listOf(from, list).find(({ id }) => id === one.id);
        if (record && other) takeField(record, other, one.field);
      }
    }
  }
  if (!job.plans.some(({ id }) => id === job.currentPlanId) && job.plans[0])
    job.currentPlanId = job.plans[0].id;
  const ids = new Set(all.map(({ id }) => id));
  for (const plan of job.plans) {
    if (plan.basedOn !== undefined && !job.plans.some(({ id }) => id === plan.basedOn)) delete plan.basedOn;
    tidyHoses(job, plan, ids);
    settle(
      job,
      plan,
      there.plans.find(({ id }) => id === plan.id),
    );
  }
  return job;
}
