/** How a valve stands in a line-up, in words. */

import { isValve } from "~/core/kinds/families";
import type { Part } from "~/core/kinds/index";
import type { ValveSetting } from "~/core/plan/types";

export function settingText(part: Part, setting: ValveSetting | undefined): string {
  if (!isValve(part)) return "";
  if (!setting || setting.kind === "unset") return "not set";
  if (setting.kind === "branches") {
    const names =
      part.kind === "bank"
        ? part.branches.filter(({ id }) => setting.open.includes(id)).map(({ name }) => name)
        : [];
    return names.length > 0 ? `open: ${names.join(", ")}` : "all shut";
  }
  const position =
    part.kind === "selector"
      ? part.positions.find(({ id }) => id === setting.position)?.name
      : setting.position;
  return position ?? "not set";
}
