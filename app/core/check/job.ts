/** Faults between records that each are well formed: what the shape of a file cannot say. */

import { isPowered, isValve } from "../kinds/families";
import { hosesOf } from "../plan/lying";
import { placedPorts, portKey, portsOf } from "../plan/ports";
import { isTooShort, runGeometry } from "../plan/route";
import { elementIds, straysOf } from "../plan/strays";
import type { Job, Plan } from "../plan/types";
import { positionsOf } from "../plan/valves";
import { checkTank, type ShapeFault } from "../tanks/check";
import { capacityM3 } from "../tanks/tank";
import { tankLineLengthM } from "../tanks/tankLine";

export interface PlanFault {
  path: string;
  code:
    | "duplicateId"
    | "noCurrentPlan"
    | ShapeFault["code"]
    | "overfull"
    | "missingPort"
    | "portTaken"
    | "tooShort"
    | "noLength"
    | "missingValve"
    | "missingPosition"
    | "missingWay"
    | "missingPart"
    | "missingPlan"
    | "basedRound"
    | "portTwice"
    | "missingLineUp";
  values?: Record<string, string | number>;
}

function duplicates(items: readonly { id: string }[], path: string) {
  const seen = new Set<string>();
  return items.flatMap(({ id }, i) => {
    if (!seen.has(id)) {
      seen.add(id);
      return [];
    }
    return [{ path: `${path}[${i}].id`, code: "duplicateId" as const, values: { id } }];
  });
}

function checkTanks(job: Job): PlanFault[] {
  return job.tanks.flatMap((tank, i) => {
    const path = `tanks[${i}]`;
    return [
      ...duplicates(tank.ports, `${path}.ports`),
      ...duplicates(tank.internals ?? [], `${path}.internals`),
      ...duplicates(tank.baffles ?? [], `${path}.baffles`),
      ...duplicates(tank.opening?.holes ?? [], `${path}.opening.holes`),
      ...checkTank(tank).map((fault) => ({ ...fault, path: `${path}.${fault.path}` })),
    ];
  });
}

/** Two runs on one port, runs to ports that are not there, hoses shorter than the way. */
function checkConnections(job: Job, plan: Plan, path: string): PlanFault[] {
  const ports = placedPorts(job, plan);
  const taken = new Map<string, string>();
  const faults: PlanFault[] = [];
  const use = (ref: Parameters<typeof portKey>[0], at: string, by: string) => {
    const key = portKey(ref);
    if (!ports.has(key)) faults.push({ path: at, code: "missingPort", values: { port: key } });
    const other = taken.get(key);
    if (other !== undefined) faults.push({ path: at, code: "portTaken", values: { port: key, by: other } });
    taken.set(key, by);
  };
  plan.runs.forEach((run, i) => {
    const at = `${path}.runs[${i}]`;
    use(run.from, `${at}.from`, run.id);
    use(run.to, `${at}.to`, run.id);
    const from = ports.get(portKey(run.from));
    const to = ports.get(portKey(run.to));
    if (!from || !to) return;
    const geometry = runGeometry(run, from, to);
    if (!(geometry.lengthM > 0)) faults.push({ path: `${at}.route`, code: "noLength" });
    else if (isTooShort(geometry)) {
      const values = { lengthM: geometry.lengthM, distanceM: geometry.straightM };
      faults.push({ path: `${at}.route`, code: "tooShort", values });
    }
  });
  plan.joints.forEach((joint, i) => {
    use(joint.from, `${path}.joints[${i}].from`, joint.id);
    use(joint.to, `${path}.joints[${i}].to`, joint.id);
  });
  return faults;
}

const named = (id: string) => ({ id });

/** Ids that stand twice inside a part, a run or a setting: whoever looks one up would find the first only. */
function checkLists(plan: Plan, path: string): PlanFault[] {
  return [
    ...duplicates(elementIds(plan.parts).map(named), `${path} filter elements`),
    ...duplicates(plan.duty ?? [], `${path}.duty`),
    ...duplicates(plan.boards ?? [], `${path}.boards`),
    ...duplicates(plan.passages ?? [], `${path}.passages`),
    ...duplicates((plan.tanksDown ?? []).map(named), `${path}.tanksDown`),
    ...duplicates(plan.covers ?? [], `${path}.covers`),
    ...(plan.covers ?? []).flatMap(({ hides }, i) =>
      duplicates(hides.map(named), `${path}.covers[${i}].hides`),
    ),
    ...(plan.tankLines ?? []).flatMap((line, i): PlanFault[] => [
      ...(tankLineLengthM(line) > 0
        ? []
        : [{ path: `${path}.tankLines[${i}].points`, code: "noLength" as const }]),
      ...duplicates(line.neighbours ?? [], `${path}.tankLines[${i}].neighbours`),
    ]),
    ...(plan.boards ?? []).flatMap(({ obstacles }, i) =>
      duplicates(obstacles, `${path}.boards[${i}].obstacles`),
    ),
    ...plan.parts.flatMap(({ plugs }, i) => duplicates(plugs ?? [], `${path}.parts[${i}].plugs`)),
    ...plan.parts.flatMap((part, i) => {
      const at = `${path}.parts[${i}]`;
      if (part.kind === "bank") return duplicates(part.branches, `${at}.branches`);
      if (part.kind !== "selector") return [];
      return [
        ...duplicates(part.positions, `${at}.positions`),
        ...part.positions.flatMap(({ joins }, j): PlanFault[] =>
          duplicates(joins.flat().map(named), "").map(({ values }) => ({
            path: `${at}.positions[${j}].joins`,
            code: "portTwice",
            values,
          })),
        ),
      ];
    }),
    ...plan.runs.flatMap((run, i) => duplicates(run.neighbours ?? [], `${path}.runs[${i}].neighbours`)),
    ...plan.lineUps.flatMap(({ valves }, i) =>
      Object.entries(valves).flatMap(([id, setting]) =>
        setting.kind === "branches"
          ? duplicates(setting.open.map(named), `${path}.lineUps[${i}].valves.${id}.open`)
          : [],
      ),
    ),
  ];
}

/** Plans that are based on one that is not there, or on themselves by a round about way. */
function checkBasedOn(job: Job): PlanFault[] {
  const based = new Map(job.plans.map(({ id, basedOn }) => [id, basedOn]));
  return job.plans.flatMap(({ id, basedOn }, i): PlanFault[] => {
    if (basedOn === undefined) return [];
    const path = `plans[${i}].basedOn`;
    if (!based.has(basedOn)) return [{ path, code: "missingPlan", values: { id: basedOn } }];
    const passed = new Set([id]);
    for (let next: string | undefined = basedOn; next !== undefined; next = based.get(next)) {
      if (passed.has(next)) return [{ path, code: "basedRound", values: { id } }];
      passed.add(next);
    }
    return [];
  });
}

const pathText = (path: readonly (string | number)[]) =>
  path.map((key, i) => (typeof key === "number" ? `[${key}]` : `${i === 0 ? "" : "."}${key}`)).join("");

function checkSelectors(plan: Plan, path: string): PlanFault[] {
  return plan.parts.flatMap((part, i) => {
    if (part.kind !== "selector") return [];
    const known = new Set(portsOf(part).map(({ id }) => id));
    return part.positions.flatMap((position, j) =>
      position.joins.flat().flatMap((port) =>
        known.has(port)
          ? []
          : [
              {
                path: `${path}.parts[${i}].positions[${j}].joins`,
                code: "missingWay" as const,
                values: { port },
              },
            ],
      ),
    );
  });
}

function checkLineUps(job: Job, plan: Plan, path: string): PlanFault[] {
  const parts = new Map(plan.parts.map((part) => [part.id, part]));
  const consumers = new Set(job.consumers.map(({ id }) => id));
  return plan.lineUps.flatMap((lineUp, i) => {
    const at = `${path}.lineUps[${i}]`;
    const faults: PlanFault[] = [];
    for (const [id, setting] of Object.entries(lineUp.valves)) {
      const valve = parts.get(id);
      if (!valve || !isValve(valve)) {
        faults.push({ path: `${at}.valves.${id}`, code: "missingValve", values: { id } });
      } else if (setting.kind !== "unset") {
        const isBank = valve.kind === "bank";
        const known = valve.kind === "bank" ? valve.branches : positionsOf(valve);
        const wanted = setting.kind === "branches" ? setting.open : [setting.position];
        if (
          isBank !== (setting.kind === "branches") ||
          wanted.some((id) => !known.some((one) => one.id === id))
        ) {
          faults.push({ path: `${at}.valves.${id}`, code: "missingPosition", values: { id } });
        }
      }
    }
    for (const id of Object.keys(lineUp.pumps)) {
      const pump = parts.get(id);
      if (!pump || !isPowered(pump))
        faults.push({ path: `${at}.pumps.${id}`, code: "missingPart", values: { id } });
    }
    for (const id of Object.keys(lineUp.consumers)) {
      if (!consumers.has(id))
        faults.push({ path: `${at}.consumers.${id}`, code: "missingPart", values: { id } });
    }
    return faults;
  });
}

/** Every fault of a job, with the path of what is wrong. An incomplete plan is no fault. */
export function checkJob(job: Job): PlanFault[] {
  const faults: PlanFault[] = [
    ...duplicates(job.plans, "plans"),
    ...checkTanks(job),
    ...checkBasedOn(job),
    ...straysOf(job).map(({ path, id }) => ({
      path: pathText(path),
      code: "missingPart" as const,
      values: { id },
    })),
  ];
  if (!job.plans.some(({ id }) => id === job.currentPlanId))
    faults.push({ path: "currentPlanId", code: "noCurrentPlan" });
  // What a tank holds is asked only of shapes that can be tanks.
  const sound = new Set(job.tanks.filter((tank) => checkTank(tank).length === 0).map(({ id }) => id));
  job.plans.forEach((plan, i) => {
    const path = `plans[${i}]`;
    faults.push(
      ...duplicates(
        [
          ...job.tanks,
          ...job.tanks.flatMap(({ attachments = [] }) => attachments),
          ...job.consumers,
          ...plan.parts,
          ...hosesOf(plan),
          ...plan.joints,
        ],
        `${path} and tanks`,
      ),
      ...duplicates(plan.lineUps, `${path}.lineUps`),
      ...checkConnections(job, plan, path),
      ...checkSelectors(plan, path),
      ...checkLists(plan, path),
      ...checkLineUps(job, plan, path),
      ...(plan.duty ?? []).flatMap(({ lineUpId }, j) =>
        plan.lineUps.some(({ id }) => id === lineUpId)
          ? []
          : [
              {
                path: `${path}.duty[${j}].lineUpId`,
                code: "missingLineUp" as const,
                values: { id: lineUpId },
              },
            ],
      ),
    );
    for (const tank of job.tanks) {
      if (!sound.has(tank.id)) continue;
      const aboard = plan.conditions.aboardM3[tank.id] ?? 0;
      if (aboard > capacityM3(tank) * (1 + 1e-9)) {
        faults.push({
          path: `${path}.conditions.aboardM3.${tank.id}`,
          code: "overfull",
          values: { aboardM3: aboard, capacityM3: capacityM3(tank) },
        });
      }
    }
  });
  return faults;
}
