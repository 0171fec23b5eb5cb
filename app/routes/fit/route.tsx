/** Whether everything goes in: the board, and the runs with their lengths. */

import { Printer } from "lucide-react";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import styled from "styled-components";
import { clipLines } from "~/core/parts/clips";
import { cutCard } from "~/core/parts/cutCard";
import { type RunSheetLine, runSheet } from "~/core/parts/partsList";
import { hosesOf, lyingRuns } from "~/core/plan/lying";
import { tradeIn } from "~/core/units/trade";
import { notNegative } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { flareText } from "~/messages/ends";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Caution, PlaceHead, Sheet } from "~/ui/place";
import { Table } from "~/ui/table";
import { Tabs } from "~/ui/tabs";
import { Board } from "./Board";
import { Openings } from "./Openings";
import { Reach } from "./Reach";
import { RunCard } from "./RunCard";

export const meta = () => [{ title: "Fit · Iron Keel" }];

const RunButton = styled.button`
  border: 0; background: none; padding: 0; cursor: pointer; text-align: left; font-weight: 600; min-height: max(28px, var(--finger));
`;

const Prints = styled.span`
  display: inline-flex; flex-wrap: wrap; gap: 4px 14px; align-items: center;
  a { color: var(--act); min-height: max(28px, var(--finger)); display: inline-flex; align-items: center; }
`;
const prints = [
  ["clips", "Clips"],
  ["labels", "Labels"],
  ["cuts", "Cut cards"],
  ["holes", "Holes"],
] as const;
const Flares = styled.div`
  font-size: 12px; font-weight: 400; max-width: 30ch; margin-left: auto;
`;
const Body = styled.div`
  h2 { font-size: 20px; padding: 8px 0 7px 16px; }
`;
const parts = ["board", "openings", "runs", "reach"] as const;
type FitPart = (typeof parts)[number];

export default function Fit() {
  const { plan } = useJob();
  const [asked, ask] = useSearchParams();
  // Without a board there is nothing to be seen of one yet: the runs are there.
  const [first] = useState<FitPart>(plan.boards?.length ? "board" : "runs");
  const part = parts.find((one) => one === asked.get("part")) ?? first;
  return (
    <Body>
      <Tabs<FitPart>
        label="Parts of fitting"
        head={<h2>Fit</h2>}
        chosen={part}
        onChoose={(next) => ask({ part: next }, { replace: true, preventScrollReset: true })}
        tabs={[
          { id: "board", name: "Board", body: () => <Board /> },
          { id: "openings", name: `Openings, ${plan.passages?.length ?? 0}`, body: () => <Openings /> },
          { id: "runs", name: `Runs, ${hosesOf(plan).length}`, body: () => <Runs /> },
          { id: "reach", name: "Reach and lifting", body: () => <Reach /> },
        ]}
      />
    </Body>
  );
}

/*
 * Decides: what length each hose is cut to, and which lengths still have to be measured.
 * Seen in three seconds: every run with its length, rise and bends, and which are only assumed.
 */
function Runs() {
  const { job, plan, select, selectedId, dispatch } = useJob();
  const { units } = job;
  const lines = runSheet(job, plan);
  const length = (si: number) => tradeIn(units).length(si);
  const chosen = lines.find(({ id }) => id === selectedId) ?? lines[0];
  const clips = clipLines(job, plan).find(({ runId }) => runId === chosen?.id);
  const lying = lyingRuns(job, plan).find(({ run }) => run.id === chosen?.id);
  const card = lying ? cutCard(plan, lying) : null;
  const assumed = lines.filter(({ isAssumed }) => isAssumed).length;
  return (
    <div>
      <PlaceHead>
        <p>
          Run sheet: {lines.length} runs{assumed > 0 && `, ${assumed} with an assumed length (dashed)`}.
        </p>
        <Prints className="noPrint">
          <Printer size={16} aria-hidden />
          {prints.map(([sheet, name]) => (
            <Link key={sheet} to={`/job/${job.id}/print/${sheet}`}>
              {name}
            </Link>
          ))}
          <Button onPress={() => window.print()}>Run sheet</Button>
        </Prints>
      </PlaceHead>
      <Caution>
        Cut fuel hose with the battery off, a drain pan under the joint and no flame or spark near. Lift,
        chock and stand a vehicle before working under it; never a jack alone.
      </Caution>
      {chosen && clips && <RunCard line={clips} lengthM={chosen.lengthM} card={card} />}
      <Sheet>
        <div style={{ maxWidth: 220 }} className="noPrint">
          <QuantityField
            label="Service allowance at each end"
            dimension="length"
            unit={units.length}
            value={plan.serviceAllowanceM}
            check={notNegative}
            onCommit={(serviceAllowanceM) =>
              void dispatch({ name: "editPlan", change: { serviceAllowanceM } })
            }
          />
        </div>
        <Table>
          <thead>
            <tr>
              <th>Run</th>
              <th>Marking</th>
              <th className="n">Bore</th>
              <th>Humps and sags</th>
              <th className="n">Length</th>
              <th className="n">Rise</th>
              <th className="n">90° / 45°</th>
              <th className="n">Cut at</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <tr
                key={line.id}
                style={{
                  background:
                    selectedId === line.id ? "color-mix(in srgb, var(--act) 10%, transparent)" : undefined,
                }}
              >
                <td>
                  <RunButton type="button" onClick={() => select(line.id)}>
                    {line.use === "feed"
                      ? `${line.from}, ${line.fromPort} to ${line.to}, ${line.toPort}`
                      : `${line.from}, ${line.fromPort} to the ${line.toPort}`}
                  </RunButton>
                </td>
                <td style={{ whiteSpace: "nowrap" }}>{line.marking}</td>
                <td className="n">{tradeIn(units).bore(line.boreM)}</td>
                <td>
                  <Lie line={line} />
                </td>
                <td className="n" style={{ textDecoration: line.isAssumed ? "underline dashed" : undefined }}>
                  {length(line.lengthM)}
                </td>
                <td className="n">{length(line.riseM)}</td>
                <td className="n">
                  {line.bends90} / {line.bends45}
                </td>
                <td className="n" style={{ fontWeight: 650 }}>
                  {length(line.cutM)}
                  <Flares>{flareText(line.flares, tradeIn(units))}</Flares>
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
        {lines.length === 0 && <p>No run yet. Join two ports in Lay out.</p>}
      </Sheet>
    </div>
  );
}

/** A run's heights along it as a small side view, each to its own scale. */
function Lie({ line: { profile, lengthM } }: { line: RunSheetLine }) {
  const width = 90;
  const heights = profile.map(({ zM }) => zM);
  const [lowM, highM] = [Math.min(...heights), Math.max(...heights)];
  const span = Math.max(0.1, highM - lowM);
  const [first, last] = [heights[0] ?? 0, heights.at(-1) ?? 0];
  const isSagging = lowM < Math.min(first, last) - 0.005;
  return (
    <svg
      width={width}
      height={26}
      role="img"
      aria-label={isSagging ? "dips on the way" : last >= first ? "rises" : "falls"}
    >
      <polyline
        points={profile
          .map(
            ({ atM, zM }) =>
              `${4 + (atM / Math.max(lengthM, 1e-6)) * (width - 8)},${22 - ((zM - lowM) / span) * 18}`,
          )
          .join(" ")}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2.5}
        strokeLinejoin="round"
      />
    </svg>
  );
}
