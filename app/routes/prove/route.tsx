/*
 * Decides: whether each line-up feeds at its worst moment, and what to change if it does not.
 * Seen in three seconds: how far the pressure line is from the limit, and which part costs most.
 */

import { lazy, memo, Suspense, useCallback, useEffect, useMemo, useRef } from "react";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import type { FuelState } from "~/core/fuel/fuel";
import { isFed, LineUpSolver } from "~/core/hydraulics/solve";
import {
  casesWithin,
  defaultSweep,
  judgeAll,
  type LineUpVerdict,
  type WorstCase,
  type WorstCause,
  worstConditions,
  worstOfLineUp,
} from "~/core/hydraulics/worst";
import { elementsOf } from "~/core/kinds/families";
import { engineFlows } from "~/core/network/settings";
import type { Conditions } from "~/core/plan/types";
import { capacityM3 } from "~/core/tanks/tank";
import { formatNumber, formatQuantity, type UnitChoice } from "~/core/units/format";
import { tradeIn, vacuumUnit } from "~/core/units/trade";
import { Figure } from "~/fields/Figure";
import { Term } from "~/fields/Term";
import { explainVacuum } from "~/messages/explain";
import { nameOf } from "~/messages/notes";
import { outcomeText } from "~/messages/outcomes";
import { useExplored, useJob, useTrade } from "~/state/job";
import { useSweep } from "~/state/work";
import { Button } from "~/ui/button";
import { Quantity, Slider } from "~/ui/fields";
import { Caution, PlaceHead, Sheet } from "~/ui/place";
import { Table } from "~/ui/table";
import { Tabs } from "~/ui/tabs";

const Circuits = lazy(() => import("./Circuits"));
const Leaks = lazy(() => import("./Leaks"));
const OverTime = lazy(() => import("./OverTime"));
const Pumps = lazy(() => import("./Pumps"));
const Sizes = lazy(() => import("./Sizes"));

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
  button { border: 0; background: none; cursor: pointer; text-align: left; padding: 2px 0; font-weight: 600; min-height: max(28px, var(--finger)); }
`;

const Ways = styled.div`
  [role="tablist"] { margin: 0 16px; }
  [role="tabpanel"] { padding-top: 8px; }
  .plain { border: 0; background: none; cursor: pointer; text-align: left; padding: 2px 0; min-height: max(28px, var(--finger)); text-decoration: underline; text-underline-offset: 3px; text-decoration-thickness: 1px; }
`;

const parts = ["worst", "time", "sizes", "pumps", "circuits", "leaks"] as const;
type Part = (typeof parts)[number];

const sheet = (body: React.ReactNode) => (
  <Sheet>
    <Suspense fallback={<p>Drawing…</p>}>{body}</Suspense>
  </Sheet>
);

const MOST_LOADING = 10;
const ends = {
  loading: ["clean", `${MOST_LOADING} ×`],
  temperature: ["coldest", "hot return"],
  level: ["empty", "full"],
  load: ["idle", "full"],
} as const;

/** Told from here on: nearer than this a point of the sheet is as good. Common practice, no source. */
const FAR_FROM_POINTS_K = 15;

/** What the figures are worth where the fuel's own are not known, or do not hold. */
function FuelBeyond({ fuel }: { fuel: FuelState | null }) {
  const { temperature } = useTrade();
  if (fuel?.belowCloud)
    return (
      <Caution>
        At {temperature(fuel.tempC)} this fuel is below its cloud point: wax forms, and no figure on this page
        holds.
      </Caution>
    );
  if (!fuel || fuel.beyondPointsK < FAR_FROM_POINTS_K) return null;
  return (
    <p style={{ margin: "0 16px 10px", color: "var(--soft)" }}>
      Viscosity at {temperature(fuel.tempC)} is drawn on from the two points of the fuel (ASTM D341), which
      lie nearer to room temperature: enter a point near it.
    </p>
  );
}

export default function Prove() {
  const [asked, ask] = useSearchParams();
  const part = parts.find((one) => one === asked.get("part")) ?? "worst";
  return (
    <div>
      <Verdict />
      <Ways>
        {part !== "worst" && <StillExplored />}
        <Tabs<Part>
          label="Ways of proving"
          chosen={part}
          onChoose={(next) => ask({ part: next }, { replace: true, preventScrollReset: true })}
          tabs={[
            { id: "worst", name: "Explore and worst", body: () => <Explore /> },
            { id: "time", name: "Over time", body: () => sheet(<OverTime />) },
            { id: "sizes", name: "Sizes", body: () => sheet(<Sizes />) },
            { id: "pumps", name: "Pumps", body: () => sheet(<Pumps />) },
            { id: "circuits", name: "Circuits", body: () => sheet(<Circuits />) },
            { id: "leaks", name: "Pressure and leaks", body: () => sheet(<Leaks />) },
          ]}
        />
      </Ways>
    </div>
  );
}

/** Whether it feeds at what is explored: drawn anew with each move of a slider, and nothing round it. */
function Verdict() {
  const { job } = useJob();
  const { verdict } = useExplored();
  const { units } = job;
  const suction = verdict?.suction;
  const over = suction && suction.vacuumPa > suction.limitPa;
  const worst = verdict?.way?.suctionLosses[0];
  return (
    <>
      <PlaceHead>
        <h2>Prove</h2>
        <p role="status" aria-label="Verdict">
          {verdict && outcomeText(verdict, units)}
          {suction && (
            <>
              {": "}
              <b style={{ color: over ? "var(--danger)" : "var(--ink)" }}>
                {tradeIn(units).vacuum(suction.vacuumPa)} of vacuum at {nameOf(job, suction.id)},{" "}
                {over ? "over" : "within"} {tradeIn(units).vacuum(suction.limitPa)}
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
      <FuelBeyond fuel={verdict?.result.outcome === "solved" ? verdict.result.settings.fuel : null} />
    </>
  );
}

/** What is done with what is explored. */
function useKeeping() {
  const { job, plan, dispatch } = useJob();
  const { overlay, explore } = useExplored();
  const explored = useRef(overlay);
  useEffect(() => {
    explored.current = overlay;
  }, [overlay]);
  const onKeep = useCallback(() => {
    if (!explored.current) return;
    void dispatch({ name: "setConditions", change: explored.current }).then(
      (result) => result.ok && explore(null),
    );
  }, [dispatch, explore]);
  const onBack = useCallback(() => explore(null), [explore]);
  const onWorst = useCallback(() => explore(worstConditions(job, plan)), [explore, job, plan]);
  return { onKeep, onBack, onWorst };
}

function StillExplored() {
  const { overlay } = useExplored();
  const keeping = useKeeping();
  return overlay === null ? null : <ExploredBar isExplored {...keeping} />;
}

function Explore() {
  const open = useJob();
  const { job, plan, lineUp } = open;
  const { conditions, overlay, explore } = useExplored();
  const { units } = job;
  const keeping = useKeeping();
  // The first medium loads first; where none is a separator, whatever there is.
  const all = elementsOf(plan.parts);
  const separators = all.filter(({ part }) => part.kind === "filter" && part.medium === "separator");
  const elements = (separators.length > 0 ? separators : all).map(({ id }) => id);
  const loading = Math.max(1, ...elements.map((id) => conditions.loading[id] ?? 1));
  // Of the plan as it is kept: what is explored may shut the way, and a slider must not change under the hand.
  const way = open.stored?.way;
  const tankId = way?.stations[0]?.id ?? job.tanks[0]?.id;
  const tank = job.tanks.find(({ id }) => id === tankId);
  const engine = way?.consumer ?? job.consumers[0];
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
  return (
    <>
      <Sliders>
        {elements.length > 0 && (
          <Slider
            label="Filter clogging"
            value={loading}
            min={1}
            max={MOST_LOADING}
            step={0.1}
            output={`medium ${formatNumber(loading, 2)} ×`}
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
          output={tradeIn(units).temperature(conditions.fuelC)}
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
            output={tradeIn(units).volume(conditions.aboardM3[tank.id] ?? 0)}
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
            output={`${Math.round(load * 100)} %, ${tradeIn(units).flow(engineFlows(engine, load).feedM3S)}`}
            ends={ends.load}
            onChange={setLoad}
          />
        )}
      </Sliders>
      <ExploredBar isExplored={overlay !== null} {...keeping} />
      <WorstTable chosen={lineUp?.id ?? null} onChoose={open.chooseLineUp} />
    </>
  );
}

/** What can be done with what is explored. Not drawn anew as a slider moves. */
const ExploredBar = memo(function ExploredBar({
  isExplored,
  onKeep,
  onBack,
  onWorst,
}: {
  isExplored: boolean;
  onKeep: () => void;
  onBack: () => void;
  onWorst: () => void;
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
  const worst = useMemo(() => {
    const solver = new LineUpSolver(network);
    return plan.lineUps.map((one) => worstOfLineUp(solver, one));
  }, [network, plan.lineUps]);
  const now = useMemo(() => judgeAll(network, plan.conditions), [network, plan.conditions]);
  const sweep = useMemo(() => defaultSweep(job), [job]);
  const swept = useSweep(job, sweep);
  if (plan.lineUps.length === 0) return <Sheet>No line-up to prove yet: make one in Lay out.</Sheet>;
  const holds = (id: string) => {
    if (swept.status !== "done") return null;
    const suction = worst.find(({ verdict }) => verdict.lineUp.id === id)?.verdict.suction;
    const { good, of } = casesWithin(swept.value, id, suction?.limitPa ?? plan.limits.suctionChangePa);
    return `${good} of ${of}`;
  };
  return (
    <Sheet>
      <h3>Every line-up at its worst</h3>
      <p style={{ color: "var(--soft)", fontSize: 13 }}>
        Worst means fuel at {tradeIn(units).temperature(job.site.ambientLowC)}, filters at their{" "}
        <Term of="change point" />, tanks just over their outlets, full load, and the worst slope of the
        envelope.
        {swept.status === "working" && ` Trying ${swept.done} of ${swept.of || "…"} cases.`}
        {swept.status === "failed" &&
          ` The wider sweep stopped (${swept.reason}); the table stands without it.`}
      </p>
      <Table>
        <thead>
          <tr>
            <th>
              <Term of="line-up">Line-up</Term>
            </th>
            <th className="n">Vacuum now</th>
            <th className="n">At worst</th>
            <th className="n">Limit</th>
            <th className="n">Margin</th>
            <th>Costs most</th>
            <th>Because of</th>
            <th className="n" style={{ whiteSpace: "normal" }}>
              Conditions it feeds in
            </th>
          </tr>
        </thead>
        <tbody>
          {worst.map(({ verdict, causes, trim }, i) => (
            <Row key={verdict.lineUp.id} $chosen={verdict.lineUp.id === chosen}>
              <td>
                <button type="button" onClick={() => onChoose(verdict.lineUp.id)}>
                  {verdict.lineUp.name}
                </button>
                {!isFed(verdict.result) && (
                  <div style={{ color: "var(--danger)", fontWeight: 550 }}>{outcomeText(verdict, units)}</div>
                )}
              </td>
              <td className="n">{pressure(now[i], vacuumUnit(units))}</td>
              <td className="n">
                <WorstVacuum verdict={verdict} />
              </td>
              <td className="n">{verdict.suction ? tradeIn(units).vacuum(verdict.suction.limitPa) : "–"}</td>
              <td
                className="n"
                style={{
                  color: (verdict.suction?.marginPa ?? 0) < 0 ? "var(--danger)" : undefined,
                  fontWeight: 650,
                }}
              >
                {verdict.suction ? tradeIn(units).vacuum(verdict.suction.marginPa) : "–"}
              </td>
              <td>
                {verdict.way?.suctionLosses[0]
                  ? `${nameOf(job, verdict.way.suctionLosses[0].id)}, ${Math.round(verdict.way.suctionLosses[0].share * 100)} %`
                  : "–"}
              </td>
              <td style={{ minWidth: "15ch" }}>{causesText(causes, trim, units)}</td>
              <td className="n">{holds(verdict.lineUp.id) ?? "…"}</td>
            </Row>
          ))}
        </tbody>
      </Table>
    </Sheet>
  );
});

const causeNames: Record<WorstCause, string> = {
  cold: "cold fuel",
  loaded: "loaded filters",
  low: "low level",
  slope: "slope",
  load: "full load",
};
/** Less than this is not worth naming, Pa. */
const LEAST_NAMED_PA = 200;

/** The two that cost most, with what each does. */
function causesText(causes: WorstCase["causes"], trim: WorstCase["trim"], units: UnitChoice): string {
  const named = causes.filter(({ savedPa }) => (savedPa ?? 0) > LEAST_NAMED_PA).slice(0, 2);
  if (named.length === 0) return "–";
  return named
    .map(({ cause, savedPa }) => {
      const at =
        cause === "slope"
          ? ` of ${formatNumber(Math.abs(trim.pitchDeg))}° by ${formatNumber(Math.abs(trim.rollDeg))}°`
          : "";
      return `${causeNames[cause]}${at} ${tradeIn(units).vacuum(savedPa ?? 0)}`;
    })
    .join(", ");
}

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
      <Quantity dimension="pressure" si={suction.vacuumPa} unit={vacuumUnit(job.units)} />
    </Figure>
  );
}
