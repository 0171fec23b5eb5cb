/*
 * Decides: what to buy, and how much hose of each bore and marking.
 * Seen in three seconds: hose metres with allowance as lengths side by side, and parts by count.
 */

import { Download } from "lucide-react";
import { useMemo } from "react";
import styled from "styled-components";
import { afterCut, cutsFromBox, type HoseCuts } from "~/core/box/box";
import { jointNeeds, type PlanJoint } from "~/core/joints/joints";
import { progressOf, startsFrom, waitingFor } from "~/core/order/progress";
import { type HoseLine, hoseLines, partLines } from "~/core/parts/partsList";
import { fromSi } from "~/core/units/factors";
import { formatNumber } from "~/core/units/format";
import { runUnit } from "~/core/units/trade";
import { SchoolNote } from "~/fields/SchoolNote";
import { counted } from "~/messages/counted";
import { adapterText } from "~/messages/ends";
import { detailText, partKindName } from "~/messages/kinds";
import { nameOf } from "~/messages/notes";
import type { useBox } from "~/state/box";
import { fileName, saveText } from "~/state/files";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Switch } from "~/ui/fields";
import { Sheet } from "~/ui/place";

const Row = styled.div`
  display: flex; flex-wrap: wrap; align-items: center; gap: 6px 14px; padding: 0 16px 8px;
  p { margin: 0; flex: 1; min-width: 200px; color: var(--soft); }
`;

export function ToBuy({ joints, box }: { joints: readonly PlanJoint[]; box: ReturnType<typeof useBox> }) {
  const { job, plan, book, select, dispatch } = useJob();
  const { units } = job;
  const order = useMemo(() => progressOf(job, startsFrom(job, plan), plan, book), [job, plan, book]);
  const awaited = new Set(plan.awaited);
  const setAwaited = (ids: readonly string[], isAwaited: boolean) =>
    void dispatch({
      name: "editPlan",
      change: {
        awaited: [...(plan.awaited ?? []).filter((id) => !ids.includes(id)), ...(isAwaited ? ids : [])],
      },
    });
  const waiting = waitingFor(order, plan.awaited ?? []);
  const parts = partLines(plan);
  const hoses = hoseLines(job, plan);
  const { bore, run } = useTrade();
  const hoseUnit = runUnit(units);
  const needs = jointNeeds(joints);
  const names = new Map(joints.map(({ key, a }) => [key, a.name]));
  const longest = Math.max(0.1, ...hoses.map(({ totalM }) => totalM));
  const save = async () => {
    const { toCsv } = await import("~/core/export/csv");
    const rows = [
      ...parts.map((line) => ({
        item: partKindName(line.kind),
        detail: detailText(line, units),
        bore: bore(line.boreM),
        quantity: line.count,
        unit: "piece",
        for: line.ids.map((id) => nameOf(job, id)).join("; "),
      })),
      ...needs.adapters.map((line) => ({
        item: "adapter",
        detail: adapterText(line.id),
        bore: "",
        quantity: line.count,
        unit: "piece",
        for: line.joints.map((key) => names.get(key) ?? key).join("; "),
      })),
      ...hoses.map((line) => ({
        item: "hose",
        detail: line.marking,
        bore: bore(line.boreM),
        quantity: formatNumber(fromSi("length", line.totalM, hoseUnit), 4),
        unit: hoseUnit,
        for: `${line.runs} runs, ${run(line.allowanceM)} of it allowance`,
      })),
    ];
    saveText(`${fileName(job.name)}-parts.csv`, toCsv(rows), "text/csv");
  };
  return (
    <div>
      <Row>
        <p>
          Counted from the plan: {counted(plan.parts.length, "part")},{" "}
          {run(hoses.reduce((sum, { totalM }) => sum + totalM, 0))} of hose.
        </p>
        {awaited.size > 0 && (
          <p style={{ flexBasis: "100%", fontWeight: 600, color: "var(--ink)" }}>
            {awaited.size} awaited: {counted(waiting.held, "step")} of {order.steps.length} wait for it,{" "}
            {waiting.free} can be done now.
          </p>
        )}
        <Button onPress={() => void save()}>
          <Download size={16} /> CSV
        </Button>
      </Row>
      <SchoolNote matters={["joints", "support"]} />
      <Sheet>
        <h3>Hose by bore and marking</h3>
        <table>
          <thead>
            <tr>
              <th>Marking</th>
              <th className="n">Bore</th>
              <th>To scale</th>
              <th className="n">Runs</th>
              <th className="n">Net</th>
              <th className="n">Allowance</th>
              <th className="n">To buy</th>
            </tr>
          </thead>
          <tbody>
            {hoses.map((line) => (
              <tr key={line.marking + line.boreM}>
                <td>{line.marking}</td>
                <td className="n">{bore(line.boreM)}</td>
                <td>
                  <svg width="240" height="18" role="img" aria-label={run(line.totalM)}>
                    <line
                      x1={0}
                      x2={(240 * line.netM) / longest}
                      y1={9}
                      y2={9}
                      stroke="var(--ink)"
                      strokeWidth={3 + line.boreM * 600}
                    />
                    <line
                      x1={(240 * line.netM) / longest}
                      x2={(240 * line.totalM) / longest}
                      y1={9}
                      y2={9}
                      stroke="var(--idle)"
                      strokeWidth={3 + line.boreM * 600}
                      strokeDasharray="3 3"
                    />
                  </svg>
                </td>
                <td className="n">{line.runs}</td>
                <td className="n">{run(line.netM)}</td>
                <td className="n">{run(line.allowanceM)}</td>
                <td className="n" style={{ fontWeight: 650 }}>
                  {run(line.totalM)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {hoses.length === 0 && <p>No hose yet.</p>}
      </Sheet>
      <CutList hoses={hoses} box={box} />
      <Sheet>
        <h3>For the joints that are known</h3>
        {needs.adapters.length + needs.washers + needs.clamps === 0 ? (
          <p>No end is known yet: enter them under Joints.</p>
        ) : (
          <table>
            <thead>
              <tr>
                <th className="n">Count</th>
                <th>What</th>
                <th>For</th>
              </tr>
            </thead>
            <tbody>
              {needs.adapters.map((line) => (
                <tr key={line.id}>
                  <td className="n" style={{ fontWeight: 650 }}>
                    {line.count}
                  </td>
                  <td>{adapterText(line.id)}</td>
                  <td>{line.joints.map((key) => names.get(key)).join("; ")}</td>
                </tr>
              ))}
              {needs.washers > 0 && (
                <tr>
                  <td className="n" style={{ fontWeight: 650 }}>
                    {needs.washers}
                  </td>
                  <td>sealing washers, new</td>
                  <td>one for each face; never the old one</td>
                </tr>
              )}
              {needs.clamps > 0 && (
                <tr>
                  <td className="n" style={{ fontWeight: 650 }}>
                    {needs.clamps}
                  </td>
                  <td>hose clamps</td>
                  <td>one a barb, two on a fill hose</td>
                </tr>
              )}
            </tbody>
          </table>
        )}
      </Sheet>
      <Sheet>
        <h3>Parts</h3>
        <table>
          <thead>
            <tr>
              <th className="n">Count</th>
              <th>Part</th>
              <th>Detail</th>
              <th className="n">Bore</th>
              <th>For</th>
              <th>Awaited</th>
            </tr>
          </thead>
          <tbody>
            {parts.map((line) => (
              <tr key={line.ids.join()}>
                <td className="n" style={{ fontWeight: 650 }}>
                  {line.count}
                </td>
                <td>{partKindName(line.kind)}</td>
                <td>{detailText(line, units)}</td>
                <td className="n">{bore(line.boreM)}</td>
                <td>
                  {line.ids.map((id) => (
                    <Button $quiet key={id} onPress={() => select(id)}>
                      {nameOf(job, id)}
                    </Button>
                  ))}
                </td>
                <td>
                  <Switch
                    isOn={line.ids.every((id) => awaited.has(id))}
                    onChange={(isOn) => setAwaited(line.ids, isOn)}
                  >
                    {line.ids.every((id) => awaited.has(id)) ? "not here yet" : "here"}
                  </Switch>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {parts.length === 0 && <p>No part yet.</p>}
      </Sheet>
    </div>
  );
}

/** Each hose cut from what the box has, offcuts first; what it has not is bought. */
function CutList({ hoses, box }: { hoses: readonly HoseLine[]; box: ReturnType<typeof useBox> }) {
  const trade = useTrade();
  const cuts = hoses.map((line) => ({
    line,
    cuts: cutsFromBox(box.items, { marking: line.marking, boreM: line.boreM, lengthsM: line.cutsM }),
  }));
  if (hoses.length === 0) return null;
  return (
    <Sheet>
      <h3>Cut list, from the box first</h3>
      {cuts.map(({ line, cuts }) => (
        <div key={line.marking + line.boreM} style={{ marginBottom: 10 }}>
          <p style={{ margin: "0 0 4px", fontWeight: 600 }}>
            {line.marking}, {trade.bore(line.boreM)}: {counted(line.cutsM.length, "piece")}
            {cuts.toBuyM > 0 ? `, ${trade.run(cuts.toBuyM)} to buy` : ", all from the box"}
            {!cuts.list.proved && `; proved to ${trade.run(cuts.list.gapM)} of coil`}
          </p>
          <Stocks cuts={cuts} />
          {cuts.list.touched > 0 && (
            <Button onPress={() => void box.change((items) => afterCut(items, cuts))}>
              Cut: take these from the box
            </Button>
          )}
        </div>
      ))}
    </Sheet>
  );
}

/** A stock as a bar, each piece with its length, what is left open at its end. */
function Stocks({ cuts: { offcuts, coils, list } }: { cuts: HoseCuts }) {
  const trade = useTrade();
  const all = [
    ...list.offcuts.map((pieces, i) => ({ stock: offcuts[i], pieces })),
    ...list.coil.map((pieces, i) => ({ stock: coils[i], pieces })),
  ].filter(({ stock, pieces }) => stock && pieces.length > 0);
  const width = 560;
  const shown = ({ stock, pieces }: (typeof all)[number]) =>
    stock?.form === "coil" ? pieces.reduce((sum, one) => sum + one, 0) * 1.1 : (stock?.lengthM ?? 0);
  const longest = Math.max(0.1, ...all.map(shown));
  return all.map(({ stock, pieces }) => {
    const lengthM = stock?.lengthM ?? 1;
    const shownM = shown({ stock, pieces });
    const at = (m: number) => (m / longest) * width;
    return (
      <svg
        key={stock?.id}
        viewBox={`0 0 ${width + 4} 30`}
        style={{ width: "100%", maxWidth: width, display: "block" }}
        role="img"
        aria-label={`${stock?.form} of ${trade.run(lengthM)}: ${pieces.map((one) => trade.run(one)).join(", ")}`}
      >
        <rect
          x={1}
          y={4}
          width={at(shownM)}
          height={20}
          fill="none"
          stroke="var(--idle)"
          strokeDasharray="4 3"
        />
        {pieces.map((piece, i) => {
          const before = pieces.slice(0, i).reduce((sum, one) => sum + one, 0);
          return (
            <g key={`${piece}${i}`}>
              <rect
                x={1 + at(before)}
                y={4}
                width={at(piece)}
                height={20}
                fill="var(--atRest)"
                stroke="var(--ink)"
              />
              <text
                x={1 + at(before) + at(piece) / 2}
                y={18}
                textAnchor="middle"
                fontSize={12}
                fill="var(--ink)"
              >
                {trade.run(piece)}
              </text>
            </g>
          );
        })}
      </svg>
    );
  });
}
