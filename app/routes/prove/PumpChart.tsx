import { useMemo } from "react";
import { pumpAndSystem } from "~/core/hydraulics/systemCurve";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import { isPushing } from "~/core/kinds/families";
import type { Network } from "~/core/network/network";
import { fromSi } from "~/core/units/factors";
import { type UnitChoice } from "~/core/units/format";
import { gaugeUnit, tradeIn } from "~/core/units/trade";
import { LineChart } from "~/ui/chart";

export default function PumpChart({
  network,
  verdict,
  units,
}: {
  network: Network;
  verdict: LineUpVerdict;
  units: UnitChoice;
}) {
  const { way, lineUp, result } = verdict;
  const pump = network.plan.parts.filter(isPushing).find(({ id }) => id === way?.firstPumpId);
  const curves = useMemo(
    () =>
      pump && result.outcome === "solved"
        ? pumpAndSystem(network, lineUp, result.settings.conditions, pump, way?.consumer?.id ?? null)
        : null,
    [network, lineUp, result, pump, way],
  );
  if (!curves || !pump) return <p>No pump runs in this line-up.</p>;
  const xy = ({ flowM3S, risePa }: { flowM3S: number; risePa: number }) => ({
    x: fromSi("flow", flowM3S, units.flow),
    y: fromSi("pressure", risePa, gaugeUnit(units, 1)),
  });
  return (
    <>
      <h3>
        {pump.name} in {lineUp.name}: runs at {tradeIn(units).flow(curves.running.flowM3S)}, lifts{" "}
        {tradeIn(units).gauge(curves.running.risePa)}
      </h3>
      <LineChart
        label={`Curve of ${pump.name} against its system`}
        x={`flow, ${units.flow}`}
        y={`rise, ${gaugeUnit(units, 1)}`}
        series={[
          { name: "pump", colour: "pressure", points: curves.pump.map(xy) },
          {
            name: way?.consumer ? "system, engine idle to full" : "system",
            colour: "vacuum",
            dash: [6, 4],
            points: curves.system.map(xy),
          },
          { name: "runs here", colour: "ink", points: [xy(curves.running)], dot: true },
        ]}
      />
      {way?.consumer && (
        <p style={{ margin: "4px 0 8px", fontSize: 13, color: "var(--soft)" }}>
          {way.consumer.name} draws what it draws: what the pump lifts above the system's line is left as
          pressure at its feed.
        </p>
      )}
    </>
  );
}
