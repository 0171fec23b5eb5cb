/** A duty drawn as steps: a block as wide as its hours and as high as its load, worked on with hand, keys or fields. */
import { Plus, X } from "lucide-react";
import { type KeyboardEvent, type ReactNode, useState } from "react";
import styled from "styled-components";
import { newId } from "~/core/kinds/ids";
import type { Id } from "~/core/kinds/record";
import type { DutyStep } from "~/core/plan/types";
import { formatNumber } from "~/core/units/format";
import { QuantityField } from "~/fields/QuantityField";
import { sideWords } from "~/messages/sides";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import type { Inset } from "~/ui/chart";
import { Select } from "~/ui/fields";
import { gestureOf } from "~/ui/gesture";
import { useAhead } from "~/ui/useAhead";
import { useDrag } from "~/ui/useDrag";

const HEIGHT = 56;
const WIDTH = 1000;

const Strip = styled.svg`
  height: ${HEIGHT + 2}px; display: block; touch-action: pan-y;
  g { cursor: pointer; outline: none; } g:focus-visible .edge { stroke: var(--act); stroke-width: 3; }
  text { font-stretch: 78%; }
`;
const Fields = styled.div`
  display: grid; grid-template-columns: repeat(auto-fit, minmax(118px, 1fr)); gap: 4px 12px; margin-top: 6px; align-items: start;
`;

const stepOf = (lineUpId: Id): DutyStep => ({
  id: newId(),
  hours: 2,
  lineUpId,
  load: 0.5,
  pitchDeg: 0,
  rollDeg: 0,
});

const clampLoad = (load: number) => Math.round(Math.min(1, Math.max(0, load)) * 100) / 100;

export function Duty({
  stored,
  inset,
  children,
}: {
  stored: readonly DutyStep[];
  /** Of the chart that it stands over. */
  inset: Inset;
  children: (strip: ReactNode) => ReactNode;
}) {
  const { job, plan, dispatch } = useJob();
  const [ahead, hold] = useAhead<readonly DutyStep[]>();
  const duty = ahead ?? stored;
  const [chosenId, choose] = useState<Id | null>(duty[0]?.id ?? null);
  const chosen = duty.find(({ id }) => id === chosenId) ?? duty[0];
  const keep = (next: readonly DutyStep[]) => {
    hold(next, () => dispatch({ name: "editPlan", change: { duty: [...next] } }, gestureOf("duty")));
  };
  const edit = (id: Id, change: Partial<DutyStep>) =>
    keep(duty.map((step) => (step.id === id ? { ...step, ...change } : step)));
  const add = () => {
    const first = plan.lineUps[0];
    if (!first) return;
    const step = stepOf(chosen?.lineUpId ?? first.id);
    const at = duty.findIndex(({ id }) => id === chosen?.id) + 1;
    keep([...duty.slice(0, at), step, ...duty.slice(at)]);
    choose(step.id);
  };
  const hours = duty.reduce((sum, step) => sum + step.hours, 0);
  const nameOf = (id: Id) => plan.lineUps.find((one) => one.id === id)?.name ?? "no line-up";
  const startsH = duty.map((_, i) => duty.slice(0, i).reduce((sum, step) => sum + step.hours, 0));
  const blocks = duty.map((step, i) => ({
    step,
    x: ((startsH[i] as number) / hours) * WIDTH,
    width: (step.hours / hours) * WIDTH,
  }));
  const onKey = (step: DutyStep) => (event: KeyboardEvent) => {
    const change: Record<string, Partial<DutyStep>> = {
      ArrowUp: { load: clampLoad(step.load + 0.05) },
      ArrowDown: { load: clampLoad(step.load - 0.05) },
      ArrowRight: { hours: Math.round((step.hours + 0.25) * 100) / 100 },
      ArrowLeft: { hours: Math.max(0.25, Math.round((step.hours - 0.25) * 100) / 100) },
    };
    const own = change[event.key];
    if (event.key === "Enter" || event.key === " ") choose(step.id);
    else if (own) edit(step.id, own);
    else return;
    event.preventDefault();
  };
  /** A hand on a block sets its load by height; on its right edge, its hours. */
  const grip = useDrag<{ step: DutyStep; isEdge: boolean; hours: number }>(
    {
      press: ({ step }, { pointerType }) => {
        choose(step.id);
        return pointerType !== "touch";
      },
      move: ({ step, isEdge, hours: all }, by) =>
        edit(
          step.id,
          isEdge
            ? { hours: Math.max(0.25, Math.round((step.hours + (by.x / WIDTH) * all) * 4) / 4) }
            : { load: clampLoad(step.load - by.y / HEIGHT) },
        ),
    },
    4,
  );
  const strip = duty.length > 0 && (
    <Strip
      viewBox={`0 0 ${WIDTH} ${HEIGHT + 2}`}
      preserveAspectRatio="none"
      role="group"
      aria-label="Duty, step by step"
      style={{ marginLeft: inset.leftPx, width: `calc(100% - ${inset.leftPx + inset.rightPx}px)` }}
    >
      {blocks.map(({ step, x, width }) => {
        const top = HEIGHT * (1 - Math.max(0.04, step.load));
        const isChosen = step.id === chosen?.id;
        return (
          <g
            key={step.id}
            role="button"
            tabIndex={0}
            aria-pressed={isChosen}
            aria-label={`${nameOf(step.lineUpId)}, ${formatNumber(step.hours)} h at ${Math.round(step.load * 100)} % load. Arrow keys change load and hours.`}
            onKeyDown={onKey(step)}
            {...grip({ step, isEdge: false, hours })}
          >
            <rect x={x} y={0} width={width} height={HEIGHT} fill="var(--ground)" />
            <rect
              className="edge"
              x={x + 0.5}
              y={top}
              width={Math.max(1, width - 1)}
              height={HEIGHT - top}
              fill={isChosen ? "color-mix(in srgb, var(--act) 22%, var(--raised))" : "var(--raised)"}
              stroke={isChosen ? "var(--act)" : "var(--ink)"}
              strokeWidth={isChosen ? 2 : 1.2}
              vectorEffect="non-scaling-stroke"
            />
            <rect
              x={x + width - 6}
              y={0}
              width={8}
              height={HEIGHT}
              fill="transparent"
              style={{ cursor: "ew-resize" }}
              {...grip({ step, isEdge: true, hours })}
            />
          </g>
        );
      })}
      <line x1={0} x2={WIDTH} y1={HEIGHT} y2={HEIGHT} stroke="var(--ink)" strokeWidth={1.4} />
    </Strip>
  );
  return (
    <div>
      {children(strip)}
      {chosen && (
        <Fields>
          <Select
            label="Line-up of this step"
            value={chosen.lineUpId}
            options={plan.lineUps}
            onChange={(lineUpId) => edit(chosen.id, { lineUpId })}
          />
          <QuantityField
            label="For"
            dimension="hours"
            unit="h"
            value={chosen.hours}
            check={(si) => (si > 0 && si <= 1000 ? null : "More than nothing, at most 1000 h.")}
            onCommit={(h) => edit(chosen.id, { hours: h })}
          />
          <QuantityField
            label="Load"
            dimension="ratio"
            unit="%"
            value={chosen.load}
            check={(si) => (si >= 0 && si <= 1 ? null : "0 to 100 %.")}
            onCommit={(load) => edit(chosen.id, { load })}
          />
          <QuantityField
            label="Pitch, front up"
            dimension="angle"
            unit="deg"
            value={chosen.pitchDeg}
            check={(si) => (Math.abs(si) <= 45 ? null : "At most 45 degrees.")}
            onCommit={(pitchDeg) => edit(chosen.id, { pitchDeg })}
          />
          <QuantityField
            label={`Roll, ${sideWords(job.kind).starboard} down`}
            dimension="angle"
            unit="deg"
            value={chosen.rollDeg}
            check={(si) => (Math.abs(si) <= 45 ? null : "At most 45 degrees.")}
            onCommit={(rollDeg) => edit(chosen.id, { rollDeg })}
          />
        </Fields>
      )}
      <div style={{ display: "flex", gap: 6, marginTop: 4 }}>
        <Button onPress={add} isDisabled={plan.lineUps.length === 0}>
          <Plus size={14} aria-hidden /> Add a step
        </Button>
        {chosen && (
          <Button $quiet onPress={() => keep(duty.filter(({ id }) => id !== chosen.id))}>
            <X size={14} aria-hidden /> Take this step out
          </Button>
        )}
      </div>
    </div>
  );
}
