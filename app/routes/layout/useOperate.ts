import { isValve } from "~/core/kinds/families";
import type { Id } from "~/core/kinds/record";
import { neighbourSettings } from "~/core/plan/valves";
import { settingText } from "~/messages/settingText";
import { useJob } from "~/state/job";
import { say } from "~/ui/toast";

/** Moves a valve's handle to its next position in the chosen line-up, and says so. */
export function useOperate(): (id: Id) => void {
  const open = useJob();
  const { plan, lineUp, dispatch } = open;
  return (id) => {
    const part = plan.parts.find((one) => one.id === id);
    if (!part || !lineUp || !isValve(part)) return;
    const now = lineUp.valves[id] ?? { kind: "unset" };
    const next =
      part.kind === "bank"
        ? undefined
        : (neighbourSettings(part, now).at(-1) ?? neighbourSettings(part, now)[0]);
    if (!next) return;
    const last =
      part.kind === "selector" && now.kind === "position" && part.positions.at(-1)?.id === now.position
        ? part.positions[0]
        : undefined;
    const setting = last ? { kind: "position" as const, position: last.id } : next;
    void dispatch({ name: "setValve", lineUpId: lineUp.id, valveId: id, setting }).then((result) => {
      if (result.ok)
        say({
          text: `${part.name}: ${settingText(part, setting)} in ${lineUp.name}.`,
          action: { label: "Undo", run: () => void open.undo() },
        });
    });
  };
}
