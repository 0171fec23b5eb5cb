import { type Fuel, fuelAt } from "~/core/fuel/fuel";
import type { Site } from "~/core/plan/types";
import { formatNumber } from "~/core/units/format";
import { LineChart } from "~/ui/chart";
import { Table } from "~/ui/table";

/** Viscosity from the coldest of the site to hot return; what stands below the cloud point is said. */
export default function ViscosityChart({ fuel, site }: { fuel: Fuel; site: Site }) {
  const temperatures = Array.from(
    { length: 41 },
    (_, i) => site.ambientLowC + (i / 40) * (70 - site.ambientLowC),
  );
  const states = temperatures.flatMap((t) => fuelAt(fuel, t) ?? []);
  const cold = fuelAt(fuel, site.ambientLowC);
  return (
    <div>
      <LineChart
        label="Viscosity of the fuel over temperature"
        x="°C"
        y="mm²/s"
        series={[
          {
            name: "viscosity",
            colour: "vacuum",
            points: states
              .filter(({ belowCloud }) => !belowCloud)
              .map(({ tempC, kinematicM2S }) => ({ x: tempC, y: kinematicM2S * 1e6 })),
          },
          {
            name: "below the cloud point: wax, not to be relied on",
            colour: "danger",
            dash: [4, 4],
            points: states
              .filter(({ belowCloud }) => belowCloud)
              .map(({ tempC, kinematicM2S }) => ({ x: tempC, y: kinematicM2S * 1e6 })),
          },
        ]}
      />
      <Table>
        <thead>
          <tr>
            <th className="n">°C</th>
            <th className="n">Density, kg/m³</th>
            <th className="n">Viscosity, mm²/s</th>
            <th className="n">Dissolved air</th>
          </tr>
        </thead>
        <tbody>
          {[site.ambientLowC, 0, 15, 40, 60]
            .flatMap((t) => fuelAt(fuel, t) ?? [])
            .map((state) => (
              <tr key={state.tempC}>
                <td className="n">{formatNumber(state.tempC)}</td>
                <td className="n">{formatNumber(state.densityKgM3, 4)}</td>
                <td className="n">{formatNumber(state.kinematicM2S * 1e6)}</td>
                <td className="n">{formatNumber(state.ostwaldAir * 100)} %</td>
              </tr>
            ))}
        </tbody>
      </Table>
      {cold?.belowCloud && (
        <p>
          The coldest of the site is below the fuel's cloud point: wax forms, and the viscosity there is not
          to be relied on.
        </p>
      )}
    </div>
  );
}
