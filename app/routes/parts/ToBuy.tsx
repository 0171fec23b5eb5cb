/*
 * Decides: what to buy, and how much hose of each bore and marking.
 * Seen in three seconds: hose metres with allowance as lengths side by side, and parts by count.
 */

import { Download } from "lucide-react";
import styled from "styled-components";
import { jointNeeds, type PlanJoint } from "~/core/joints/joints";
import { hoseLines, partLines } from "~/core/parts/partsList";
import { fromSi } from "~/core/units/factors";
import { formatNumber } from "~/core/units/format";
import { runUnit } from "~/core/units/trade";
import { SchoolNote } from "~/fields/SchoolNote";
import { counted } from "~/messages/counted";
import { adapterText } from "~/messages/ends";
import { detailText, partKindName } from "~/messages/kinds";
import { nameOf } from "~/messages/notes";
import { fileName, saveText } from "~/state/files";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Sheet } from "~/ui/place";

const Row = styled.div`
  display: flex; flex-wrap: wrap; align-items: center; gap: 6px 14px; padding: 0 16px 8px;
  p { margin: 0; flex: 1; min-width: 200px; color: var(--soft); }
`;

export function ToBuy({ joints }: { joints: readonly PlanJoint[] }) {
  const { job, plan, select } = useJob();
  const { units } = job;
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
              </tr>
            ))}
          </tbody>
        </table>
        {parts.length === 0 && <p>No part yet.</p>}
      </Sheet>
    </div>
  );
}
