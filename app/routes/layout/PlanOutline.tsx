import styled from "styled-components";
import { isConsumer, isValve } from "~/core/kinds/families";
import type { Id } from "~/core/kinds/record";
import { nameOf } from "~/messages/notes";
import { settingText } from "~/messages/settingText";
import { useJob } from "~/state/job";

const Outline = styled.ol`
  display: none; list-style: none; margin: 0; padding: 0;
  @media (max-width: 600px) { display: block; }
  button { width: 100%; text-align: left; min-height: 48px; padding: 6px 14px; border: 0; border-bottom: 1px solid var(--hairline); background: none; display: flex; justify-content: space-between; gap: 12px; cursor: pointer; }
  button[aria-pressed="true"] { background: color-mix(in srgb, var(--act) 12%, transparent); }
  small { color: var(--soft); font-size: 13px; }
`;

/** The plan as a list, where the screen is too narrow for a drawing. */
export function PlanOutline({ onInspect }: { onInspect: (id: Id) => void }) {
  const { job, plan, lineUp, selectedId } = useJob();
  return (
    <Outline aria-label="Plumbing as an outline">
      {[...job.tanks, ...plan.parts, ...job.consumers].map((item) => (
        <li key={item.id}>
          <button type="button" aria-pressed={selectedId === item.id} onClick={() => onInspect(item.id)}>
            <span>{item.name}</span>
            <small>
              {"kind" in item && !isConsumer(item) && isValve(item)
                ? settingText(item, lineUp?.valves[item.id])
                : ""}
            </small>
          </button>
        </li>
      ))}
      {plan.runs.map((run) => (
        <li key={run.id}>
          <button type="button" aria-pressed={selectedId === run.id} onClick={() => onInspect(run.id)}>
            <span>{nameOf(job, run.id)}</span>
            <small>hose</small>
          </button>
        </li>
      ))}
    </Outline>
  );
}
