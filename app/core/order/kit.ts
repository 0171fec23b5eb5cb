/** What a step uses up: laid out before it is begun. Counted from the joint, the run or the part that it is done to. */
import { passageHoles, sawsOf } from "../boards/passages";
import { circuitOf } from "../circuits/circuit";
import { jointNeeds, looksOf, type PlanJoint } from "../joints/joints";
import { elementsOf } from "../kinds/families";
import { type BuyWhat, nutOf } from "../parts/buying";
import type { ClipLine } from "../parts/clips";
import { tubeEnds } from "../parts/tubeEnds";
import type { Job, Plan } from "../plan/types";
import type { WorkStep } from "./facts";

export interface KitItem {
  what: BuyWhat;
  count: number;
}

/** What is the same for every step of a plan: worked out once. */
export interface KitSource {
  job: Job;
  plan: Plan;
  joints: readonly PlanJoint[];
  clips: readonly ClipLine[];
}

function ofJoint({ joints, plan }: KitSource, key: string): KitItem[] {
  const joint = joints.find(({ a, b }) => [a, b].some(({ id, port }) => `${id}.${port}` === key));
  if (!joint) return [];
  const { adapters, washers, clamps } = jointNeeds([joint]);
  const looks = looksOf(joint);
  const run = plan.runs.find(({ id }) => id === joint.b.id);
  const items: KitItem[] = adapters.map(({ id, count }) => ({ what: { kind: "adapter", shape: id }, count }));
  if (washers > 0) items.push({ what: { kind: "washer" }, count: washers });
  if (clamps > 0 && run)
    items.push({ what: { kind: "clamp", outsideM: run.product.outerDiameterM }, count: clamps });
  if (looks.includes("clocked")) items.push({ what: { kind: "threadSealant" }, count: 1 });
  if (looks.includes("antiSeize")) items.push({ what: { kind: "antiSeize" }, count: 1 });
  return items;
}

function ofPart({ plan }: KitSource, { verb, of: [id] }: WorkStep): KitItem[] {
  const part = plan.parts.find((one) => one.id === id);
  if (!part) return [];
  if (verb === "element")
    return elementsOf([part]).flatMap(({ part: { micron, kind } }): KitItem[] => [
      { what: { kind: "element", micron, of: kind }, count: 1 },
      { what: { kind: "seal", of: kind }, count: 1 },
    ]);
  const circuit = circuitOf(part);
  if (!circuit) return [];
  const { fuseA, hasRelay, wireAreaM2: areaM2 } = circuit;
  return [
    { what: { kind: "fuse", amperes: fuseA }, count: 1 },
    { what: { kind: "fuseHolder" }, count: 1 },
    ...(hasRelay ? [{ what: { kind: "relay" as const }, count: 1 }] : []),
    { what: { kind: "wire", areaM2, pole: "positive" }, count: 1 },
    { what: { kind: "wire", areaM2, pole: "negative" }, count: 1 },
  ];
}

/** @returns nothing for a step that uses nothing up */
export function kitOf(source: KitSource, step: WorkStep): KitItem[] {
  const { job, plan } = source;
  const [id = ""] = step.of;
  switch (step.verb) {
    case "join":
      return ofJoint(source, `${id}.${step.port}`);
    case "element":
    case "wire":
      return ofPart(source, step);
    case "clip": {
      const line = source.clips.find(({ runId }) => runId === id);
      return line ? [{ what: { kind: "clip", outsideM: line.outsideM }, count: line.clips.length }] : [];
    }
    case "cutTube":
    case "cutHose": {
      const run = [...plan.runs, ...(plan.tankLines ?? [])].find((one) => one.id === id);
      return run
        ? [{ what: { kind: "hose", marking: run.product.marking, boreM: run.boreM }, count: 1 }]
        : [];
    }
    case "formEnds": {
      const run = plan.runs.find((one) => one.id === id);
      return (run ? tubeEnds(plan, run) : []).map(({ end }) => ({ what: nutOf(end), count: 1 }));
    }
    case "cutHole":
    case "careEdge": {
      const hole = passageHoles(plan, sawsOf(job.units), []).find(({ passage }) => passage.id === id);
      if (!hole) return [];
      if (step.verb === "cutHole")
        return hole.saw.saw ? [{ what: { kind: "holeSaw", ...hole.saw.saw }, count: 1 }] : [];
      const { passage, passM, edge } = hole;
      const care = edge === "deburrPaint" ? "edgePaint" : edge === "deburr" ? null : "epoxy";
      return [
        ...(care ? [{ what: { kind: care } as const, count: 1 }] : []),
        ...(passage.grommetM === undefined
          ? []
          : [{ what: { kind: "grommet" as const, passM, wallM: passage.wallM }, count: 1 }]),
      ];
    }
    default:
      return [];
  }
}
