/*
 * Decides: whether the return stands far enough from the pickup, and whether it needs a cooler.
 * Seen in three seconds: how hot the tank gets over the day, and when it passes the limit.
 */
import { heatingOf } from "~/core/findings/tanks/returnHot";
import { LEAST_APART_M, returnApartM } from "~/core/findings/tanks/returnNearPickup";
import { returnCooler } from "~/core/network/returnCooler";
import { FUEL_TOO_HOT_C, heatOverHours, hoursToLimit } from "~/core/tanks/heat";
import { levelOfVolumeM } from "~/core/tanks/tank";
import { fromSi } from "~/core/units/factors";
import { formatNumber } from "~/core/units/format";
import { QuantityField } from "~/fields/QuantityField";
import { useJob } from "~/state/job";
import { Switch } from "~/ui/fields";
import { LineChart } from "~/ui/lazyChart";
import { Facts, Fields, Panel, Small, useEditTank, useTank, useUnits } from "./tankContext";

const TYPICAL_COOLER = { effectiveness: 0.5, coolantC: 25 };

export function ReturnPanel() {
  const { job, plan, network, dispatch } = useJob();
  const { tank, aboardM3 } = useTank();
  const { units, length, temperature } = useUnits();
  const edit = useEditTank(tank);
  const apartM = returnApartM(tank, plan, levelOfVolumeM(tank, aboardM3));
  const { site } = job;
  const hot = heatingOf(network, tank, aboardM3, site.ambientHighC);
  const cold = heatingOf(network, tank, aboardM3, site.ambientLowC);
  const inPlan = returnCooler(network, tank);
  const cooler = inPlan ?? tank.cooler;
  const setCooler = (change: Partial<NonNullable<typeof tank.cooler>>) => {
    if (inPlan) void dispatch({ name: "editPart", id: inPlan.id, change });
    else if (tank.cooler) void edit({ cooler: { ...tank.cooler, ...change } });
  };
  const show = (points: ReturnType<typeof heatOverHours>) =>
    points.map(({ hours, tempC }) => ({ x: hours, y: fromSi("temperature", tempC, units.temperature) }));
  const curves = hot &&
    cold && {
      asItIs: heatOverHours(hot),
      other: heatOverHours({ ...hot, cooler: hot.cooler ? null : TYPICAL_COOLER }),
      cold: heatOverHours(cold),
    };
  const said = (points: ReturnType<typeof heatOverHours>) => {
    const hours = hoursToLimit(points, FUEL_TOO_HOT_C);
    const most = Math.max(...points.map(({ tempC }) => tempC));
    return `${temperature(most)}${hours === null ? "" : `, over ${temperature(FUEL_TOO_HOT_C)} after ${formatNumber(hours, 2)} h`}`;
  };
  return (
    <>
      <Panel>
        <h3>Return against pickup</h3>
        {apartM !== null ? (
          <p>
            The return and the pickup that feeds are <b>{length(apartM)}</b> apart; {length(LEAST_APART_M)} is
            wanted, and a baffle between them. A return over the fuel falls: only the distance in plan counts.
          </p>
        ) : (
          <p>This tank has no return, or no pickup.</p>
        )}
      </Panel>
      <Panel>
        <h3>Warmed by its return</h3>
        {curves ? (
          <>
            <Facts>
              <dt>Hottest day, as it is{hot.cooler ? ", with its cooler" : ""}</dt>
              <dd>{said(curves.asItIs)}</dd>
              <dt>{hot.cooler ? "Hottest day without the cooler" : "Hottest day with a cooler"}</dt>
              <dd>{said(curves.other)}</dd>
              <dt>Coldest day</dt>
              <dd>{said(curves.cold)}</dd>
            </Facts>
            <LineChart
              label="Fuel temperature in the tank over hours at full load"
              height={210}
              x="hours"
              y={units.temperature === "F" ? "°F" : "°C"}
              series={[
                { name: "hottest day", colour: "pressure", points: show(curves.asItIs) },
                {
                  name: hot.cooler ? "without the cooler" : "with a cooler",
                  colour: "back",
                  dash: [6, 4],
                  points: show(curves.other),
                },
                { name: "coldest day", colour: "idle", dash: [2, 3], points: show(curves.cold) },
                {
                  name: "limit",
                  colour: "danger",
                  dash: [10, 5],
                  points: [0, 10].map((x) => ({
                    x,
                    y: fromSi("temperature", FUEL_TOO_HOT_C, units.temperature),
                  })),
                },
              ]}
            />
          </>
        ) : (
          <p>Add an engine and fuel to this tank: its return is what warms it.</p>
        )}
        {inPlan ? (
          <p>
            <b>{inPlan.name}</b> of the plan cools this return; its figures are the plan's.
          </p>
        ) : (
          <Switch
            isOn={tank.cooler !== undefined}
            onChange={(on) => void edit({ cooler: on ? TYPICAL_COOLER : undefined })}
          >
            A cooler stands in the return, not drawn in the plan
          </Switch>
        )}
        {cooler && (
          <Fields>
            <QuantityField
              label="Effectiveness"
              dimension="ratio"
              unit="%"
              value={cooler.effectiveness}
              check={(si) => (si >= 0 && si <= 1 ? null : "0 to 100 %.")}
              onCommit={(effectiveness) => setCooler({ effectiveness })}
            />
            <QuantityField
              label="Coolant"
              dimension="temperature"
              unit={units.temperature}
              value={cooler.coolantC}
              onCommit={(coolantC) => setCooler({ coolantC })}
            />
          </Fields>
        )}
        <Small>
          Full load on this tank alone of all that can return to it, the litres on the drawing, fuel back half
          the way to the engine's {temperature(90)} (common practice; the engine's sheet goes before it), 10
          W/m²K from the wet wall.
        </Small>
      </Panel>
    </>
  );
}
