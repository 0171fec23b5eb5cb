/*
 * Decides: which hose or filter to make larger, and how large.
 * Seen in three seconds: what each part takes, the least size that keeps the wanted margin, and what the next one buys.
 */

import { useMemo, useState } from "react";
import { marginOverLoad, type Sized, sizesOf } from "~/core/hydraulics/sizing";
import { worstConditions } from "~/core/hydraulics/worst";
import { fromSi } from "~/core/units/factors";
import { tradeIn, vacuumUnit } from "~/core/units/trade";
import { notNegative } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { nameOf } from "~/messages/notes";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { LineChart } from "~/ui/lazyChart";
import { Table } from "~/ui/table";

const WANTED_PA = 5000;

export default function Sizes() {
  const { job, plan, network, lineUp, dispatch, select } = useJob();
  const { units } = job;
  const [wantedPa, setWanted] = useState(WANTED_PA);
  const conditions = useMemo(() => worstConditions(job, plan), [job, plan]);
  const sized = useMemo(
    () => (lineUp ? sizesOf(network, lineUp, conditions, wantedPa) : []),
    [network, lineUp, conditions, wantedPa],
  );
  const lines = useMemo(() => (lineUp ? marginOverLoad(network, lineUp) : []), [network, lineUp]);
  if (!lineUp || sized.length === 0) return <p>Nothing is drawn through a hose in this line-up.</p>;
  const size = ({ kind }: Sized, si: number | null) =>
    si === null ? "none does" : kind === "run" ? tradeIn(units).bore(si) : tradeIn(units).flow(si);
  const put = (one: Sized, si: number) =>
    void dispatch(
      one.kind === "run"
        ? { name: "editRun", id: one.id, change: { boreM: si } }
        : { name: "editPart", id: one.id, change: { ratedFlowM3S: si } },
    );
  const marginAt = (one: Sized, si: number) => one.tried.find((tried) => tried.size === si)?.marginPa ?? null;
  return (
    <div>
      <div style={{ width: 190 }}>
        <QuantityField
          label="Margin wanted at the worst"
          dimension="pressure"
          unit={vacuumUnit(units)}
          value={wantedPa}
          check={notNegative}
          onCommit={(si) => setWanted(si)}
        />
      </div>
      <Table>
        <thead>
          <tr>
            <th>Before the pump</th>
            <th className="n">Now</th>
            <th className="n">Margin now</th>
            <th className="n">Least that keeps it</th>
            <th>Next size up</th>
            <th className="n">buys</th>
          </tr>
        </thead>
        <tbody>
          {sized.map((one) => {
            const now = marginAt(one, one.now);
            const next = one.tried.find(({ size: si }) => si > one.now);
            const buys = next && next.marginPa !== null && now !== null ? next.marginPa - now : null;
            return (
              <tr key={one.id}>
                <td>
                  <button type="button" className="plain" onClick={() => select(one.id)}>
                    {nameOf(job, one.id)}
                  </button>
                </td>
                <td className="n">{size(one, one.now)}</td>
                <td className="n">{now === null ? "starves" : tradeIn(units).vacuum(now)}</td>
                <td className="n">{size(one, one.least)}</td>
                <td>
                  {next ? (
                    <Button $quiet onPress={() => put(one, next.size)}>
                      Put in {size(one, next.size)}
                    </Button>
                  ) : (
                    "largest"
                  )}
                </td>
                <td className="n">
                  {buys === null ? (next?.marginPa != null ? "feeds" : "–") : tradeIn(units).vacuum(buys)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Table>
      <LineChart
        label="Margin over load at three temperatures"
        x="load, %"
        y={`margin, ${vacuumUnit(units)}`}
        height={210}
        series={lines.map(({ fuelC, points }, i) => ({
          name: tradeIn(units).temperature(fuelC),
          colour: "vacuum",
          dash: [undefined, [8, 4], [2, 3]][i],
          points: points.flatMap(({ load, marginPa }) =>
            marginPa === null ? [] : [{ x: load * 100, y: fromSi("pressure", marginPa, vacuumUnit(units)) }],
          ),
        }))}
      />
    </div>
  );
}
