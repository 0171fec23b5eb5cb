/*
 * Decides: whether each line-up feeds at its worst moment, and what to change if it does not.
 * Seen in three seconds: how far the pressure line is from the limit, and which part costs most.
 */
import { lazy, memo, Suspense, useCallback, useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";
import {
  casesWithin,
  defaultSweep,
  judgeAll,
  type LineUpVerdict,
  worstConditions,
} from "~/core/hydraulics/worst";
import { engineFlows } from "~/core/network/settings";
import type { Conditions } from "~/core/plan/types";
import { capacityM3 } from "~/core/tanks/tank";
import { formatNumber, formatQuantity } from "~/core/units/format";
import { explainVacuum } from "~/messages/explain";
import { nameOf } from "~/messages/notes";
import { outcomeText } from "~/messages/outcomes";
import { useExplored, useJob } from "~/state/job";
import { useSweep } from "~/state/work";
import { Button } from "~/ui/button";
import { Quantity, Slider } from "~/ui/fields";
import { PlaceHead, Sheet } from "~/ui/place";
import { Figure } from "../job/Figure";

const PumpChart = lazy(() => import("./PumpChart"));

export const meta = () => [{ title: "Prove · Iron Keel" }];

const Sliders = styled.div`
  display: grid; grid-template-columns: repeat(auto-fit, minmax(170px, 1fr)); gap: 2px 20px; padding: 0 16px 4px;
`;
const Explored = styled.div`
  display: flex; align-items: center; gap: 10px; padding: 0 16px 8px; min-height: 44px; flex-wrap: wrap;
  strong { font-stretch: 84%; }
`;
const Row = styled.tr<{ $chosen: boolean }>`
  cursor: pointer; background: ${({ $chosen }) => ($chosen ? "color-mix(in srgb, var(--act) 9%, transparent)" : "none")};
  button { border: 0; background: none; cursor: pointer; text-align: left; padding: 2px 0; font-weight: 600; min-height: 28px; }
`;

const MOST_LOADING = 10;
const ends = {
  loading: ["clean", `${MOST_LOADING} ×`],
  temperature: ["coldest", "hot return"],
  level: ["empty", "full"],
  load: ["idle", "full"],
} as const;

export default function Prove() {
  const open = useJob();
  const { job, plan, network, lineUp, dispatch } = open;
  const { conditions, overlay, explore, verdict } = useExplored();
  const [chart, setChart] = useState(false);
  const { units } = job;
  const filters = plan.parts.filter(
    (part) => part.kind === "filter" && part.medium === "separator" && part.element,
  );
  const elements = filters.flatMap((part) =>
    part.kind === "filter" && part.element ? [part.element.id] : [],
  );
  const loading = Math.max(1, ...elements.map((id) => conditions.loading[id] ?? 1));
  const tankId = verdict?.way?.stations[0]?.id ?? job.tanks[0]?.id;
  const tank = job.tanks.find(({ id }) => id === tankId);
  const engine = verdict?.way?.consumer ?? job.consumers[0];
  const load = engine ? (conditions.load[engine.id] ?? 1) : 1;
  const elementKey = elements.join();
  const engineId = engine?.id ?? "";
  const { setLoading, setFuelC, setLevel, setLoad } = useMemo(() => {
    const change = (part: (now: Conditions) => Partial<Conditions>) =>
      explore((overlay) => {
        const now = overlay ?? plan.conditions;
        return { ...now, ...part(now) };
      });
    const ids = elementKey.split(",");
    return {
      setLoading: (value: number) =>
        change(({ loading }) => ({
          loading: { ...loading, ...Object.fromEntries(ids.map((id) => [id, value])) },
        })),
      setFuelC: (fuelC: number) => change(() => ({ fuelC })),
      setLevel: (m3: number) => change(({ aboardM3 }) => ({ aboardM3: { ...aboardM3, [tankId ?? ""]: m3 } })),
      setLoad: (value: number) => change(({ load }) => ({ load: { ...load, [engineId]: value } })),
    };
  }, [explore, plan.conditions, elementKey, tankId, engineId]);
  const explored = useRef(overlay);
  useEffect(() => {
    explored.current = overlay;
  }, [overlay]);
  const keep = useCallback(() => {
    if (!explored.current) return;
    void dispatch({ name: "setConditions", change: explored.current }).then(
      (result) => result.ok && explore(null),
    );
  }, [dispatch, explore]);
  const back = useCallback(() => explore(null), [explore]);
  const showWorst = useCallback(() => explore(worstConditions(job, plan)), [explore, job, plan]);
  const suction = verdict?.suction;
  const over = suction && suction.vacuumPa > suction.limitPa;
  const worst = verdict?.way?.suctionLosses[0];
  return (
    <div>
      <PlaceHead>
        <h2>Prove</h2>
        <p role="status" aria-label="Verdict">
          {verdict && outcomeText(verdict, units)}
          {suction && (
            <>
              {": "}
              <b style={{ color: over ? "var(--danger)" : "var(--ink)" }}>
                {formatQuantity("pressure", suction.vacuumPa, units.pressure)} of vacuum at{" "}
                {nameOf(job, suction.id)}, {over ? "over" : "within"}{" "}
                {formatQuantity("pressure", suction.limitPa, units.pressure)}
              </b>
              {worst && (
                <>
                  . {nameOf(job, worst.id)} costs most: {Math.round(worst.share * 100)} %
                </>
              )}
            </>
          )}
        </p>
      </PlaceHead>
      <Sliders>
        {elements.length > 0 && (
          <Slider
            label="Filter loading"
            value={loading}
            min={1}
            max={MOST_LOADING}
            step={0.1}
            output={`${formatNumber(loading, 2)} × clean`}
            ends={ends.loading}
            onChange={setLoading}
          />
        )}
        <Slider
          label="Fuel temperature"
          value={conditions.fuelC}
          min={job.site.ambientLowC}
          max={Math.max(60, job.site.ambientHighC)}
          step={1}
          output={formatQuantity("temperature", conditions.fuelC, units.temperature)}
          ends={ends.temperature}
          onChange={setFuelC}
        />
        {tank && (
          <Slider
            label={`${tank.name} level`}
            value={conditions.aboardM3[tank.id] ?? 0}
            min={0}
            max={capacityM3(tank)}
            step={capacityM3(tank) / 100}
            output={formatQuantity("volume", conditions.aboardM3[tank.id] ?? 0, units.volume)}
            ends={ends.level}
            onChange={setLevel}
          />
        )}
        {engine && (
          <Slider
            label={`${engine.name} load`}
            value={load}
            min={0}
            max={1}
            step={0.01}
            output={`${Math.round(load * 100)} %, ${formatQuantity("flow", engineFlows(engine, load).feedM3S, units.flow)}`}
            ends={ends.load}
            onChange={setLoad}
          />
        )}
      </Sliders>
      <ExploredBar
        isExplored={overlay !== null}
        isCharted={chart}
        onKeep={keep}
        onBack={back}
        onWorst={showWorst}
        onChart={setChart}
      />
      {chart && verdict && (
        <Sheet>
          <Suspense fallback={<p>Drawing…</p>}>
            <PumpChart network={network} verdict={verdict} units={units} />
          </Suspense>
        </Sheet>
      )}
      <WorstTable chosen={lineUp?.id ?? null} onChoose={open.chooseLineUp} />
    </div>
  );
}

/** What can be done with what is explored. Not drawn anew as a slider moves. */
const ExploredBar = memo(function ExploredBar({
  isExplored,
  isCharted,
  onKeep,
  onBack,
  onWorst,
  onChart,
}: {
  isExplored: boolean;
  isCharted: boolean;
  onKeep: () => void;
  onBack: () => void;
  onWorst: () => void;
  onChart: (isCharted: boolean) => void;
}) {
  return (
    <Explored>
      {isExplored ? (
        <>
          <strong>Explored, not kept. The dotted line is as stored.</strong>
          <Button $main onPress={onKeep}>
            Keep
          </Button>
          <Button onPress={onBack}>Back to stored</Button>
        </>
      ) : (
        <span style={{ color: "var(--soft)" }}>
          As stored. The sliders explore; nothing changes until it is kept.
        </span>
      )}
      <Button onPress={onWorst}>Show the worst</Button>
      <Button onPress={() => onChart(!isCharted)} aria-expanded={isCharted}>
        Pump and system curve
      </Button>
    </Explored>
  );
});

/** Every line-up at its stated worst: coldest, filters at change, lowest level, full load. */
const WorstTable = memo(function WorstTable({
  chosen,
  onChoose,
}: {
  chosen: string | null;
  onChoose: (id: string) => void;
}) {
  const { job, plan, network } = useJob();
  const { units } = job;
  const conditions = useMemo(() => worstConditions(job, plan), [job, plan]);
  const worst = useMemo(() => judgeAll(network, conditions), [network, conditions]);
  const now = useMemo(() => judgeAll(network, plan.conditions), [network, plan.conditions]);
  const sweep = useMemo(() => defaultSweep(job), [job]);
  const swept = useSweep(job, sweep);
  if (plan.lineUps.length === 0) return <Sheet>No line-up to prove yet: make one in Lay out.</Sheet>;
  const holds = (id: string) => {
    if (swept.status !== "done") return null;
    const suction = worst.find(({ lineUp }) => lineUp.id === id)?.suction;
    const { good, of } = casesWithin(swept.cases, id, suction?.limitPa ?? plan.limits.suctionChangePa);
    return `${good} of ${of}`;
  };
  return (
    <Sheet>
      <h3>Every line-up at its worst</h3>
      <p style={{ color: "var(--soft)", fontSize: 13 }}>
        Worst means fuel at {formatQuantity("temperature", conditions.fuelC, units.temperature)}, filters at
        their change point, tanks just over their outlets, full load.
        {swept.status === "working" && ` Trying ${swept.done} of ${swept.of || "…"} cases.`}
        {swept.status === "failed" && " The wider sweep stopped; the table stands without it."}
      </p>
      <table>
        <thead>
          <tr>
            <th>Line-up</th>
            <th>At worst</th>
            <th className="n">Vacuum now</th>
            <th className="n">At worst</th>
            <th className="n">Limit</th>
            <th className="n">Margin</th>
            <th>Costs most</th>
            <th className="n">Cases within</th>
          </tr>
        </thead>
        <tbody>
          {worst.map((verdict, i) => (
            <Row key={verdict.lineUp.id} $chosen={verdict.lineUp.id === chosen}>
              <td>
                <button type="button" onClick={() => onChoose(verdict.lineUp.id)}>
                  {verdict.lineUp.name}
                </button>
              </td>
              <td>{outcomeText(verdict, units)}</td>
              <td className="n">{pressure(now[i], units.pressure)}</td>
              <td className="n">
                <WorstVacuum verdict={verdict} />
              </td>
              <td className="n">
                {verdict.suction ? formatQuantity("pressure", verdict.suction.limitPa, units.pressure) : "–"}
              </td>
              <td
                className="n"
                style={{
                  color: (verdict.suction?.marginPa ?? 0) < 0 ? "var(--danger)" : undefined,
                  fontWeight: 650,
                }}
              >
                {verdict.suction ? formatQuantity("pressure", verdict.suction.marginPa, units.pressure) : "–"}
              </td>
              <td>
                {verdict.way?.suctionLosses[0]
                  ? `${nameOf(job, verdict.way.suctionLosses[0].id)}, ${Math.round(verdict.way.suctionLosses[0].share * 100)} %`
                  : "–"}
              </td>
              <td className="n">{holds(verdict.lineUp.id) ?? "…"}</td>
            </Row>
          ))}
        </tbody>
      </table>
    </Sheet>
  );
});

const pressure = (verdict: LineUpVerdict | undefined, unit: string) =>
  verdict?.suction ? formatQuantity("pressure", verdict.suction.vacuumPa, unit) : "–";

function WorstVacuum({ verdict }: { verdict: LineUpVerdict }) {
  const { job } = useJob();
  const { result, way, suction } = verdict;
  if (result.outcome !== "solved" || !way || !suction) return <>–</>;
  return (
    <Figure
      label={`Vacuum of ${verdict.lineUp.name}`}
      explain={() => explainVacuum(result, way, suction, job.units, (id) => nameOf(job, id))}
    >
      <Quantity dimension="pressure" si={suction.vacuumPa} unit={job.units.pressure} />
    </Figure>
  );
}
