/*
 * Decides: whether to run, clean or change, and when.
 * Seen in three seconds: the state of the fuel, when the filter is due, whether the last reading is what the plan computes.
 */

import { lazy, Suspense } from "react";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import { entriesOf, type VacuumReading } from "~/core/book/entries";
import type { GaugeTrend } from "~/core/care/gaugeTrend";
import type { ImpliedLoading } from "~/core/care/loadingFromReading";
import type { Network } from "~/core/network/network";
import { formatNumber } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";
import { Strike } from "~/fields/Strike";
import { TakeReadings } from "~/fields/TakeReadings";
import { readText } from "~/messages/care";
import { nameOf } from "~/messages/notes";
import { dayText, momentText } from "~/messages/when";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { ActionsHead, PlaceHead, Sheet } from "~/ui/place";
import { Table } from "~/ui/table";
import { Tabs } from "~/ui/tabs";
import { useNarrow } from "~/ui/useNarrow";
import { Answers, useImplied } from "./Answers";
import { DueList } from "./DueList";
import { Elements } from "./Elements";
import { FilterCard } from "./FilterCard";
import { Fuel } from "./Fuel";
import { HandOver } from "./HandOver";
import { Incoming } from "./Incoming";
import { Trend } from "./Trend";
import { useTrends } from "./useTrends";

/** Loaded when something is looked for. */
const FindFault = lazy(() => import("./FindFault"));

export const meta = () => [{ title: "Care · Iron Keel" }];

function impliedText(implied: ImpliedLoading, name: (id: string) => string): string {
  switch (implied.outcome) {
    case "loading":
      return `${name(implied.filterId)} clogged: its medium takes ${formatNumber(implied.loading)} times what it takes clean`;
    case "belowClean":
      return `less than with ${name(implied.filterId)} clean: check gauge, load and temperature`;
    case "beyond":
      return `more than any loading of ${name(implied.filterId)} explains: look for a blocked pickup or a half-shut valve`;
    case "noFilter":
      return "no filter before the gauge";
    case "notSolved":
      return "the plan gives no figure to compare with";
  }
}

const Margin = styled.i`
  padding-left: 2px;
`;
const careParts = ["readings", "fault", "fuel", "service", "handover"] as const;
type CarePart = (typeof careParts)[number];

export default function Care() {
  const open = useJob();
  const { lineUp, stored } = open;
  const say = useTrade();
  const [asked, ask] = useSearchParams();
  const part = careParts.find((one) => one === asked.get("part")) ?? "readings";
  const { trends, trend, gauge } = useTrends();
  const computed = stored?.way?.stations.find(({ id }) => id === gauge?.id)?.beforePa;
  return (
    <div>
      <PlaceHead>
        <h2>Care</h2>
        <p>
          {gauge
            ? computed === undefined
              ? `${gauge.name} stands still in ${lineUp?.name ?? "this line-up"}: what it reads there is not known.`
              : `${gauge.name} should read ${computed < 0 ? say.vacuum(-computed) : say.gauge(computed)} of ${computed < 0 ? "vacuum" : "pressure"} in ${lineUp?.name ?? "this line-up"}, as stored.`
            : "No vacuum gauge in the plan: let one in between the separator and the lift pump."}
        </p>
      </PlaceHead>
      <Answers trend={trend} />
      <Tabs<CarePart>
        label="Parts of care"
        head={<Margin aria-hidden />}
        chosen={part}
        onChoose={(next) => ask({ part: next }, { replace: true, preventScrollReset: true })}
        tabs={[
          { id: "readings", name: "Readings", body: () => <Readings trend={trend} /> },
          {
            id: "fault",
            name: "Find what is wrong",
            body: () => (
              <Suspense fallback={<Sheet role="status">Laying each fault over the plan…</Sheet>}>
                <FindFault />
              </Suspense>
            ),
          },
          { id: "fuel", name: "Fuel", body: () => <Fuel /> },
          {
            id: "service",
            name: "Service",
            body: () => (
              <>
                <DueList trends={trends} />
                <FilterCard />
                <Elements />
              </>
            ),
          },
          { id: "handover", name: "Hand-over", body: () => <HandOver /> },
        ]}
      />
    </div>
  );
}

/** What the gauges say, and what they said. */
function Readings({ trend }: { trend: GaugeTrend | null }) {
  const { job, book, network, lineUp } = useJob();
  const say = useTrade();
  const readings = entriesOf(book, "vacuum");
  const others = entriesOf(book, "reading");
  const isNarrow = useNarrow();
  const past = trend && <Trend trend={trend} />;
  return (
    <>
      {!isNarrow && past}
      {lineUp && (
        <Sheet>
          <h3>Take readings in {lineUp.name}</h3>
          <TakeReadings key={lineUp.id} />
        </Sheet>
      )}
      {isNarrow && past}
      <Incoming />
      <Sheet>
        <h3>Readings</h3>
        {readings.length === 0 ? (
          <p>
            No reading yet. Each is kept with its load, temperature and levels, and brought to the plan's own
            figure.
          </p>
        ) : (
          <Table>
            <thead>
              <tr>
                <th>When</th>
                <th>Line-up</th>
                <th className="n">Read</th>
                <th className="n">Computed</th>
                <th>Read against computed</th>
                <th>Implies</th>
                <th>At</th>
                <ActionsHead />
              </tr>
            </thead>
            <tbody>
              {[...readings].reverse().map((reading) => (
                <ReadingRow key={reading.id} reading={reading} network={network} />
              ))}
            </tbody>
          </Table>
        )}
        {others.length > 0 && (
          <Table>
            <thead>
              <tr>
                <th>When</th>
                <th>Where</th>
                <th className="n">Read</th>
                <th>At</th>
                <ActionsHead />
              </tr>
            </thead>
            <tbody>
              {[...others].reverse().map((one) => (
                <tr key={one.id}>
                  <td>{momentText(one.at)}</td>
                  <td>{nameOf(job, one.ofId)}</td>
                  <td className="n" style={{ fontWeight: 650 }}>
                    {readText(one.quantity, one.value, say)}
                  </td>
                  <td>
                    {say.temperature(one.conditions.fuelC)}
                    {one.isBaseline && ", baseline"}
                    {one.note && `, ${one.note}`}
                  </td>
                  <td>
                    <Strike entryId={one.id} what={`reading of ${nameOf(job, one.ofId)}`} />
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        )}
      </Sheet>
    </>
  );
}

function ReadingRow({ reading, network }: { reading: VacuumReading; network: Network }) {
  const { job, plan, dispatch } = useJob();
  const { units } = job;
  const say = useTrade();
  const lineUp = plan.lineUps.find(({ id }) => id === reading.lineUpId);
  const implied = useImplied(reading, network);
  const computedPa = "computedPa" in implied ? implied.computedPa : null;
  const most = Math.max(reading.vacuumPa, computedPa ?? 0, 1);
  const apply = () =>
    implied.outcome === "loading" &&
    void dispatch({
      name: "setConditions",
      change: { loading: { [implied.elementId]: implied.loading } },
    });
  return (
    <tr>
      <td>{momentText(reading.at)}</td>
      <td>{lineUp?.name ?? "gone"}</td>
      <td className="n" style={{ fontWeight: 650 }}>
        {say.vacuum(reading.vacuumPa)}
      </td>
      <td className="n">{computedPa === null ? "–" : say.vacuum(computedPa)}</td>
      <td>
        <svg width="120" height="16" aria-hidden>
          <rect x={0} y={1} width={(120 * reading.vacuumPa) / most} height={6} fill="var(--ink)" />
          {computedPa !== null && (
            <rect
              x={0}
              y={9}
              width={(120 * computedPa) / most}
              height={6}
              fill="none"
              stroke="var(--vacuum)"
              strokeWidth={1.5}
            />
          )}
        </svg>
      </td>
      <td>{impliedText(implied, (id) => nameOf(job, id))}</td>
      <td>
        {tradeIn(units).temperature(reading.conditions.fuelC)}
        {reading.note && `, ${reading.note}`}
      </td>
      <td>
        {implied.outcome === "loading" && (
          <Button $quiet onPress={apply}>
            Take it over
          </Button>
        )}{" "}
        <Strike entryId={reading.id} what={`reading of ${dayText(reading.at)}`} />
      </td>
    </tr>
  );
}
