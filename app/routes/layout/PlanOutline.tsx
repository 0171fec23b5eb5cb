/*
 * Decides: where along the way something is wrong, on a screen too narrow for the drawing; and what an open port goes to.
 * Seen in three seconds: the chosen way from tank to engine and back, each station's state, pressure and fault.
 */
import styled from "styled-components";
import { isPowered, isValve } from "~/core/kinds/families";
import type { Id } from "~/core/kinds/record";
import { freePorts } from "~/core/plan/joining";
import { portKey } from "~/core/plan/ports";
import type { PortRef } from "~/core/plan/types";
import { tradeIn } from "~/core/units/trade";
import { findingText } from "~/messages/findings";
import { nameOf } from "~/messages/notes";
import { settingText } from "~/messages/settingText";
import { useExplored, useJob } from "~/state/job";
import { GradeGlyph } from "~/ui/glyphs";

const Outline = styled.div`
  display: none;
  @media (max-width: 600px) { display: block; }
  h2 { font-size: 15px; margin: 0; padding: 10px 14px 4px; }
  ol { list-style: none; margin: 0; padding: 0; }
  li { border-bottom: 1px solid var(--hairline); }
  .open { display: flex; flex-wrap: wrap; gap: 6px; padding: 0 14px 8px; align-items: center; font-size: 13px; color: var(--soft); }
  .open button { min-height: var(--finger, 36px); padding: 6px 12px; border: 1px dashed var(--act); border-radius: 2px; background: var(--raised); color: var(--ink); font-size: 14px; cursor: pointer; }
  .row { width: 100%; text-align: left; min-height: 48px; padding: 6px 14px; border: 0; background: none; display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 2px 12px; align-items: center; cursor: pointer; }
  .row[aria-pressed="true"] { background: color-mix(in srgb, var(--act) 12%, transparent); }
  small { color: var(--soft); font-size: 13px; }
  .row[aria-pressed="true"] small { color: var(--ink); }
  .state { text-align: right; font-variant-numeric: tabular-nums; }
  .wrong { grid-column: 1 / -1; display: flex; gap: 6px; align-items: baseline; font-size: 13px; }
  [data-side="return"] { border-left: 3px dashed var(--back); }
  [data-side="vacuum"] { border-left: 3px solid var(--vacuum); }
  [data-side="pressure"] { border-left: 3px solid var(--pressure); }
`;

interface Row {
  id: Id;
  name: string;
  state: string;
  gauge: string;
  side: string | undefined;
}

/** The plan along the flow of the chosen line-up, then what is not on its way. */
export function PlanOutline({
  onInspect,
  onPort,
}: {
  onInspect: (id: Id) => void;
  onPort: (port: PortRef) => void;
}) {
  const { job, plan, lineUp, selectedId, findings } = useJob();
  const { verdict } = useExplored();
  const trade = tradeIn(job.units);
  const solved = verdict?.result.outcome === "solved" ? verdict.result : null;
  const stateOf = (id: Id): string => {
    const part = plan.parts.find((one) => one.id === id);
    if (part && isValve(part)) return settingText(part, lineUp?.valves[id]);
    if (part && isPowered(part)) return lineUp?.pumps[id] ?? "off";
    if (job.consumers.some((one) => one.id === id)) return lineUp?.consumers[id] ?? "stopped";
    const aboardM3 = job.tanks.some((one) => one.id === id) ? (plan.conditions.aboardM3[id] ?? 0) : null;
    return aboardM3 === null ? "" : trade.volume(aboardM3);
  };
  const stations = verdict?.way?.stations ?? [];
  /** As it comes and as it goes on, as the Keel has it; once where a dial tells no difference. */
  const gaugeAt = (beforePa: number, afterPa: number): string => {
    const [before, after] = [trade.gauge(beforePa), trade.gauge(afterPa)];
    return before === after ? after : `${before} → ${after}`;
  };
  const onWay: Row[] = stations.map(({ id, name, beforePa, afterPa, side }) => ({
    id,
    name,
    state: stateOf(id),
    gauge: solved ? gaugeAt(beforePa, afterPa) : "",
    side: side === "return" || !solved ? side : beforePa < 0 ? "vacuum" : "pressure",
  }));
  const passed = new Set(stations.map(({ id }) => id));
  const others: Row[] = [...job.tanks, ...plan.parts, ...job.consumers]
    .filter(({ id }) => !passed.has(id))
    .map(({ id, name }) => ({ id, name, state: stateOf(id), gauge: "", side: undefined }));
  const hoses: Row[] = plan.runs.map(({ id }) => ({
    id,
    name: nameOf(job, id),
    state: "hose",
    gauge: "",
    side: undefined,
  }));
  const open = freePorts(job, plan);
  const said = new Set<Id>();
  const rows = (list: readonly Row[]) =>
    list.map(({ id, name, state, gauge, side }, i) => {
      const worst = findings.find(({ ids, setAside }) => !setAside && ids[0] === id);
      // What is passed there and back has two rows: its open ports stand under the first.
      const ports = said.has(id) ? [] : open.filter(({ ref }) => ref.part === id);
      said.add(id);
      return (
        <li key={`${id} ${i}`}>
          <button
            type="button"
            className="row"
            data-side={side}
            aria-pressed={selectedId === id}
            onClick={() => onInspect(id)}
          >
            <span>{name}</span>
            <small className="state">
              {state}
              {state && gauge && ", "}
              {gauge}
            </small>
            {worst && (
              <span className="wrong">
                <GradeGlyph grade={worst.grade} size={13} />
                {findingText(worst, job.units, (of) => nameOf(job, of)).title}
              </span>
            )}
          </button>
          {ports.length > 0 && (
            <div className="open">
              <span aria-hidden>Open</span>
              {ports.map(({ ref, name: port, ownerName }) => (
                <button
                  key={portKey(ref)}
                  type="button"
                  aria-label={`Open: ${ownerName}, ${port}`}
                  onClick={() => onPort(ref)}
                >
                  {port}
                </button>
              ))}
            </div>
          )}
        </li>
      );
    });
  return (
    <Outline>
      {onWay.length > 0 && (
        <>
          <h2>Along the way of {lineUp?.name}</h2>
          <ol aria-label="Plumbing as an outline">{rows(onWay)}</ol>
        </>
      )}
      {others.length > 0 && (
        <>
          <h2>{onWay.length > 0 ? "Not on this way" : "The plan"}</h2>
          <ol aria-label="What is not on this way">{rows(others)}</ol>
        </>
      )}
      {hoses.length > 0 && (
        <>
          <h2>Hoses</h2>
          <ol aria-label="Hoses">{rows(hoses)}</ol>
        </>
      )}
    </Outline>
  );
}
