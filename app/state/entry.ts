import { newId } from "~/core/plan/ids";
import { useJob } from "./job";

/** Makes what every entry of the book begins with: an id, the day's clock, and the plan and revision it cites. */
export function useEntry() {
  const { plan, revision } = useJob();
  return () => ({ id: newId(), at: new Date().toISOString(), planId: plan.id, revision });
}
