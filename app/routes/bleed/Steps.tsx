/** The steps of a bleed in their order; for real each is ticked with what came. */

import { Check, Timer } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";
import { stepKey } from "~/core/air/bled";
import type { Procedure, ProcedureStep } from "~/core/air/procedure";
import type { BledStep } from "~/core/book/entries";
import type { Id } from "~/core/kinds/record";
import { Term } from "~/fields/Term";
import { jointName, stepDetail, stepTitle } from "~/messages/bleeding";
import { useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Sheet } from "~/ui/place";

const List = styled.ol`
  list-style: none; margin: 0; padding: 0;
  > li { display: grid; grid-template-columns: 34px minmax(0, 1fr) 92px 92px; gap: 4px 10px; padding: 7px 4px; border-bottom: 1px solid var(--hairline); align-items: start; }
  > li[data-now="true"] { border-left: 5px solid var(--ink); padding-left: 6px; background: color-mix(in srgb, var(--act) 6%, transparent); }
  > li[data-done="true"] b { color: var(--soft); font-weight: 550; }
  .n { text-align: right; font-variant-numeric: tabular-nums; }
  small { display: block; color: var(--soft); font-size: 13.5px; }
  .ticks { grid-column: 2 / -1; display: flex; flex-wrap: wrap; gap: 6px; align-items: center; }
  .ticks button { min-height: 48px; }
  .title { padding: 0; text-align: left; min-height: max(24px, var(--finger)); }
  @media (max-width: 600px) { > li { grid-template-columns: 28px minmax(0, 1fr) 76px; } > li > :nth-child(3) { display: none; } }
`;
const cameTexts: Record<BledStep["came"], string> = {
  begun: "begun",
  solid: "solid",
  foam: "foam",
  air: "air",
  done: "done",
};

interface Props {
  procedure: Procedure;
  nameOf: (id: Id) => string;
  /** What was ticked of it; null where it is only read. */
  ticked: ReadonlyMap<string, BledStep> | null;
  onTick: (step: ProcedureStep, key: string, came: BledStep["came"], seconds?: number) => void;
  /** A joint that no hand gets to, so that another way is looked for. */
  onOutOfReach: (key: string) => void;
  onChoose: (step: ProcedureStep) => void;
}

const fillsOf = (step: ProcedureStep): number | null => {
  if (step.kind === "fill") return step.vessels.reduce((sum, { pouredM3 }) => sum + pouredM3, 0);
  return step.kind === "bleed" || step.kind === "runOn" ? step.fillsM3 : null;
};

export function Steps({ procedure, nameOf, ticked, onTick, onChoose, onOutOfReach }: Props) {
  const trade = useTrade();
  const { pan } = trade;
  const [since, setSince] = useState<{ step: string; at: number } | null>(null);
  const keys = procedure.steps.map(stepKey);
  const now = ticked ? keys.findIndex((key) => !ticked.has(key)) : -1;
  return (
    <Sheet>
      <List aria-label="Steps of the bleed">
        <li style={{ color: "var(--soft)", fontSize: 13 }}>
          <span />
          <span>
            {procedure.steps.some(({ kind }) => kind === "bleed") ? (
              <>
                Open, move, shut when it has run <Term of="solid" /> for 3 s: no <Term of="foam" />
              </>
            ) : (
              "Every joint stays closed"
            )}
          </span>
          <span className="n">Fills</span>
          <span className="n">Into the pan</span>
        </li>
        {procedure.steps.map((step, i) => {
          const key = keys[i] as string;
          const entry = ticked?.get(key);
          const fills = fillsOf(step);
          const runs = since?.step === key;
          const tick = (came: BledStep["came"]) => {
            const seconds = runs && since ? (Date.now() - since.at) / 1000 : undefined;
            setSince(null);
            onTick(step, key, came, seconds);
          };
          return (
            <li
              key={key}
              data-now={i === now}
              data-done={entry !== undefined}
              aria-current={i === now ? "step" : undefined}
            >
              <span className="n">{entry ? <Check size={18} aria-label="done" /> : i + 1}</span>
              <div>
                <Button $quiet className="title" onPress={() => onChoose(step)}>
                  <b style={{ fontSize: i === now ? 19 : 15 }}>{stepTitle(step, nameOf)}</b>
                </Button>
                <small>{stepDetail(step, nameOf, trade)}</small>
                {ticked === null && step.kind === "bleed" && !step.joint.key.endsWith(".lid") && (
                  <Button
                    $quiet
                    aria-label={`${jointName(step.joint)} cannot be reached`}
                    style={{ padding: "0 4px", fontSize: 13 }}
                    onPress={() => onOutOfReach(step.joint.key)}
                  >
                    No hand gets there
                  </Button>
                )}
                {entry && (
                  <small>
                    {cameTexts[entry.came]}
                    {entry.seconds !== undefined && ` after ${entry.seconds.toFixed(0)} s`}
                  </small>
                )}
              </div>
              <span className="n">{fills === null ? "" : pan(fills)}</span>
              <span className="n">{step.kind === "bleed" ? pan(step.panM3) : ""}</span>
              {i === now && (
                <div className="ticks">
                  {step.kind === "bleed" ? (
                    <>
                      <Button isDisabled={runs} onPress={() => setSince({ step: key, at: Date.now() })}>
                        <Timer size={16} aria-hidden /> {runs ? "It runs" : "Opened"}
                      </Button>
                      <Button $main onPress={() => tick("solid")}>
                        Solid: shut
                      </Button>
                      <Button onPress={() => tick("foam")}>Foam still</Button>
                      <Button onPress={() => tick("air")}>Only air</Button>
                    </>
                  ) : (
                    <Button $main onPress={() => tick("done")}>
                      Done
                    </Button>
                  )}
                </div>
              )}
            </li>
          );
        })}
      </List>
    </Sheet>
  );
}
