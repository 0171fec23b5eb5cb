/** What a work order leaves to be bled. */
import type { Content } from "../air/content";
import type { WorkStep } from "../order/facts";

/** What the lines hold when these steps are done: one filter's element or one joint; of more all is taken as dry. */
export function contentAfter(steps: readonly WorkStep[]): Content {
  const [opened, ...more] = steps.filter(({ verb }) => verb === "join" || verb === "element");
  const of = opened?.of[0];
  if (!opened || of === undefined || more.length > 0) return { kind: "dry" };
  if (opened.verb === "element") return { kind: "filterChanged", partId: of };
  return opened.port === undefined ? { kind: "dry" } : { kind: "opened", joint: `${of}.${opened.port}` };
}
