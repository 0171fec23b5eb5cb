import { useNavigate } from "react-router";
import type { Change } from "~/core/edit/merge";
/*
 * Decides: whether it can be filled at the pump's rate, and where fuel comes out first when it heels.
 * Seen in three seconds: the fill rate its vent allows, room to grow, and the vent's height over the fill's lip.
 */

import { fuelAt } from "~/core/fuel/fuel";
import { envelopeOf } from "~/core/plan/envelope";
import type { Filling } from "~/core/plan/types";
import { boundsOf } from "~/core/tanks/shape";
import { fillingOf, tankLineOf } from "~/core/tanks/tankLine";
import {
  FILL_PRESSURE_SHARE,
  fillRateM3S,
  growthM3,
  LEAST_FILL_BORE_M,
  LEAST_FILL_HOSE_M,
  spillAtHeel,
} from "~/core/tanks/vent";
import { INCH_M } from "~/core/units/factors";
import { formatQuantity } from "~/core/units/format";
import { gaugeUnit } from "~/core/units/trade";
import { positive } from "~/fields/checks";
import { LookField } from "~/fields/LookField";
import { QuantityField } from "~/fields/QuantityField";
import { TankLines } from "~/routes/job/TankLines";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import {
  BoreField,
  Facts,
  Fields,
  LengthField,
  Panel,
  Small,
  useEditTank,
  useTank,
  useUnits,
} from "./tankContext";

export function VentPanel() {
  const { job, plan } = useJob();
  const navigate = useNavigate();
  const { tank, tilted } = useTank();
  const { units, volume, length } = useUnits();
  const edit = useEditTank(tank);
  const lines = <TankLines tank={tank} onChosen={() => void navigate(`/job/${job.id}/layout`)} />;
  const { filling } = tank;
  const lying = fillingOf(tank, plan);
  const [fillLine, ventLine] = [tankLineOf(plan, tank, "fill"), tankLineOf(plan, tank, "vent")];
  const { x, y, z } = boundsOf(tank.shape);
  if (!filling || !lying) {
    const middle = { xM: (x[0] + x[1]) / 2, yM: (y[0] + y[1]) / 2 };
    const first: Filling = {
      fillBoreM: LEAST_FILL_BORE_M,
      fillHoseBoreM: LEAST_FILL_HOSE_M,
      ventBoreM: 0.5 * INCH_M,
      ventLengthM: 1.5,
      ventTop: { ...middle, zM: z[1] + 0.5 },
      spill: { ...middle, zM: z[1] + 0.4 },
      ratedPa: 20000,
    };
    return (
      <Panel>
        <p>Fill and vent are not measured yet.</p>
        <Button $main onPress={() => void edit({ filling: first })}>
          Measure fill and vent
        </Button>
        {lines}
      </Panel>
    );
  }
  const set = (change: Change<Filling>) => void edit({ filling: { ...filling, ...change } });
  const envelope = envelopeOf(job);
  const spill = spillAtHeel({ filling: lying }, envelope);
  const rate = fillRateM3S(lying);
  const [coldest, hottest] = [
    fuelAt(job.fuel, job.site.ambientLowC),
    fuelAt(job.fuel, job.site.ambientHighC),
  ];
  const growth =
    coldest && hottest ? growthM3(tilted.capacityM3, coldest.densityKgM3, hottest.densityKgM3) : null;
  return (
    <Panel>
      <h3>Fill and vent</h3>
      <Facts>
        <dt>Fill rate the vent allows, at {FILL_PRESSURE_SHARE * 100} % of the tank's rating</dt>
        <dd>{formatQuantity("flow", rate, units.flow === "gph" ? "gpm" : "L/min")}</dd>
        {growth !== null && (
          <>
            <dt>Room to leave: a full tank grows, coldest to hottest, by</dt>
            <dd>{volume(growth)}</dd>
          </>
        )}
        {spill && (
          <>
            <dt>
              Vent's top over the fill's lip at worst, pitch {spill.attitude.pitchDeg}°, roll{" "}
              {spill.attitude.rollDeg}°
            </dt>
            <dd>
              {spill.ventOverFillM < 0
                ? `${length(-spill.ventOverFillM)} under it: the vent spills first`
                : length(spill.ventOverFillM)}
            </dd>
          </>
        )}
      </Facts>
      <Fields>
        <BoreField
          label="Fill pipe: bore"
          value={filling.fillBoreM}
          onCommit={(fillBoreM) => set({ fillBoreM })}
        />
        {!fillLine && (
          <>
            <BoreField
              label="Fill hose: bore"
              value={filling.fillHoseBoreM}
              onCommit={(fillHoseBoreM) => set({ fillHoseBoreM })}
            />
          </>
        )}
        {!ventLine && (
          <>
            <BoreField
              label="Vent: bore"
              value={filling.ventBoreM}
              onCommit={(ventBoreM) => set({ ventBoreM })}
            />
            <LengthField
              label="Vent: length"
              value={filling.ventLengthM}
              check={positive}
              onCommit={(ventLengthM) => set({ ventLengthM })}
            />
            <LengthField
              label="Vent's top: up"
              value={filling.ventTop.zM}
              onCommit={(zM) => set({ ventTop: { ...filling.ventTop, zM } })}
            />
            <LengthField
              label="Vent's top: across"
              value={filling.ventTop.yM}
              onCommit={(yM) => set({ ventTop: { ...filling.ventTop, yM } })}
            />
          </>
        )}
        {!fillLine && (
          <>
            <LengthField
              label="Fill's lip: up"
              value={filling.spill.zM}
              onCommit={(zM) => set({ spill: { ...filling.spill, zM } })}
            />
            <LengthField
              label="Fill's lip: across"
              value={filling.spill.yM}
              onCommit={(yM) => set({ spill: { ...filling.spill, yM } })}
            />
          </>
        )}
        <QuantityField
          label="Tank rated for"
          dimension="pressure"
          unit={gaugeUnit(units, 1)}
          value={filling.ratedPa}
          check={positive}
          onCommit={(ratedPa) => set({ ratedPa })}
        />
      </Fields>
      <Fields>
        {!ventLine && (
          <>
            <LookField
              label="The vent line has a dip"
              value={filling.hasDip}
              onChange={(hasDip) => set({ hasDip })}
            />
          </>
        )}
        <LookField
          label="A flame arrester stands in the vent"
          value={filling.hasArrester}
          onChange={(hasArrester) => set({ hasArrester })}
        />
      </Fields>
      {lines}
      {(fillLine || ventLine) && (
        <Small>
          What is not asked here comes from the traced{" "}
          {[fillLine && "fill", ventLine && "vent"].filter(Boolean).join(" and ")} line: its bore, its length
          and where it ends.
        </Small>
      )}
      <Small>
        Heights and places are in the tank's own frame: up from its bottom, across to port. Fill with the
        nozzle touching, no spark, hatches and ports shut; vapour is heavier than air.
      </Small>
    </Panel>
  );
}
