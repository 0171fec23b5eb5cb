/** What goes with a part besides the way of its fuel (practice 49 and 57), and what of it another part takes on. */
import { isFiltering } from "../kinds/families";
import { finestMicron } from "../kinds/filtering";
import type { PlanPart } from "../kinds/index";
import type { Plan } from "../plan/types";
import type { Carried, Note } from "./command";

const finestOf = (part: PlanPart): number =>
  isFiltering(part) ? finestMicron(part) : Number.POSITIVE_INFINITY;

const warnsOfWater = (part: PlanPart): boolean =>
  part.kind === "waterSensor" ||
  (isFiltering(part) && part.sensorHeldM3 !== undefined) ||
  (part.kind === "block" && part.carriesOn.waterSensor);

const hasCircuit = (part: PlanPart): boolean => "circuit" in part && part.circuit !== undefined;

/** Told where a part is taken out, or another put in its place. */
export function carriedLost(plan: Plan, part: PlanPart, next: PlanPart | null = null): Note[] {
  const others = [...plan.parts.filter(({ id }) => id !== part.id), ...(next ? [next] : [])];
  const isOwnReturnUsed = [...plan.runs, ...plan.joints].some(({ from, to }) =>
    [from, to].some((ref) => ref.part === part.id && ref.port === "back"),
  );
  const lost: Carried[] = [];
  if (hasCircuit(part) && !(next && hasCircuit(next))) lost.push("circuit");
  if (warnsOfWater(part) && !others.some(warnsOfWater)) lost.push("waterSensor");
  if (finestOf(part) < Math.min(Infinity, ...others.map(finestOf))) lost.push("finest");
  if (part.kind === "pumpFilterUnit" && isOwnReturnUsed && next?.kind !== "pumpFilterUnit")
    lost.push("ownReturn");
  return lost.length > 0 ? [{ code: "carriedLost", ids: [part.id], lost }] : [];
}
