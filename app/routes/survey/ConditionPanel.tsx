import type { Change } from "~/core/edit/merge";
import { dayText } from "~/messages/when";
/*
 * Decides: keep, mend or replace this tank.
 * Seen in three seconds: the verdict and its reasons.
 */

import { useState } from "react";
import { entriesOf, type Puddle } from "~/core/book/entries";
import type { Condition, Look } from "~/core/plan/types";
import { judgeTank, type TankReason, type TankVerdict, testPressurePa } from "~/core/tanks/condition";
import { installedTilt } from "~/core/tanks/pickup";
import { gaugeUnit, panUnit } from "~/core/units/trade";
import { positive } from "~/fields/checks";
import { LookField } from "~/fields/LookField";
import { Photos } from "~/fields/Photos";
import { QuantityField } from "~/fields/QuantityField";
import { Strike } from "~/fields/Strike";
import { sideWords } from "~/messages/sides";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, Switch } from "~/ui/fields";
import { ActionsHead, Caution } from "~/ui/place";
import { Table } from "~/ui/table";
import { Facts, Fields, Panel, Small, useEditTank, useTank, useUnits } from "./tankContext";

const verdicts: Record<TankVerdict, string> = {
  lookFirst: "Look first",
  keep: "Keep",
  mend: "Mend",
  replace: "Replace",
};
const reasons: Record<TankReason, string> = {
  notCleaned: "it has not been cleaned: dirt hides what leaks",
  seamsUnseen: "its seams have not been seen",
  seamsBad: "its seams are bad",
  seamsWorn: "its seams are worn",
  feetBad: "its feet or straps are bad",
  feetWorn: "its feet or straps are worn",
  fittingsBad: "its fittings are bad",
  fittingsWorn: "its fittings are worn",
  holdsWater: "water stands under it",
  foam: "it stands on open foam",
  testFailed: "it did not hold its test pressure",
  leaksStopped: "a puddle came with the engine stopped: the tank, or what hangs on it",
  leaksRunning: "a puddle came with the engine running only: look at the lines under pressure",
};
const looks: { id: Look | "unseen"; name: string }[] = [
  { id: "unseen", name: "not seen" },
  { id: "sound", name: "sound" },
  { id: "worn", name: "worn" },
  { id: "bad", name: "bad" },
];
const drainings: { id: Condition["drains"]; name: string }[] = [
  { id: "unseen", name: "not looked at" },
  { id: "drains", name: "drains freely" },
  { id: "holdsWater", name: "holds water" },
  { id: "foam", name: "open foam" },
];

const unseen: Condition = {
  cleanedFirst: false,
  seams: "unseen",
  feet: "unseen",
  fittings: "unseen",
  drains: "unseen",
};

export function ConditionPanel() {
  const { job, book } = useJob();
  const sides = sideWords(job.kind);
  const { tank } = useTank();
  const { units, volume, gauge } = useUnits();
  const edit = useEditTank(tank);
  const puddles = entriesOf(book, "puddle").filter((one) => one.tankId === tank.id);
  const { verdict, reasons: why } = judgeTank(tank, puddles);
  const condition = tank.condition ?? unseen;
  const set = (change: Change<Condition>) => void edit({ condition: { ...condition, ...change } });
  const most = testPressurePa(tank, job.fuel.grade === "petrol");
  const tilt = installedTilt(
    tank,
    tank.ports.filter(({ role }) => role === "outlet").map(({ mouth }) => mouth),
    tank.filling?.spill ?? null,
  );
  const installed = tank.installed ?? { pitchDeg: 0, rollDeg: 0 };
  const angle = (label: string, name: "pitchDeg" | "rollDeg") => (
    <QuantityField
      label={label}
      dimension="angle"
      unit="deg"
      value={installed[name]}
      check={(si) => (Math.abs(si) <= 45 ? null : "At most 45 degrees.")}
      onCommit={(deg) => void edit({ installed: { ...installed, [name]: deg } })}
    />
  );
  return (
    <>
      <Panel>
        <h3>{verdicts[verdict]}</h3>
        {why.length === 0 ? (
          <p>Nothing speaks against it.</p>
        ) : (
          <p>{`${why.map((one) => reasons[one]).join("; ")}.`}</p>
        )}
        <Switch isOn={condition.cleanedFirst} onChange={(cleanedFirst) => set({ cleanedFirst })}>
          Cleaned before it was looked at
        </Switch>
        <Fields>
          <Select
            label="Seams"
            value={condition.seams}
            options={looks}
            onChange={(seams) => set({ seams })}
          />
          <Select
            label="Feet and straps"
            value={condition.feet}
            options={looks}
            onChange={(feet) => set({ feet })}
          />
          <Select
            label="Fittings"
            value={condition.fittings}
            options={looks}
            onChange={(fittings) => set({ fittings })}
          />
          <Select
            label="What it stands on"
            value={condition.drains}
            options={drainings}
            onChange={(drains) => set({ drains })}
          />
        </Fields>
        <h4>Low-pressure test</h4>
        <Caution style={{ margin: "0 0 8px" }}>
          {most === null
            ? "No pressure: its rating is not known, or it holds petrol. Leave the test to a licensed workshop."
            : `At most ${gauge(most)}, its rating, with a relief set there; diesel only. Stand clear of the ends; soap on the seams.`}
        </Caution>
        {most !== null && (
          <Fields>
            <QuantityField
              label="Tested at"
              dimension="pressure"
              unit={gaugeUnit(units, 1)}
              value={condition.testedPa}
              check={(si) => (si > 0 && si <= most ? null : `More than nothing, at most ${gauge(most)}.`)}
              onCommit={(testedPa) => set({ testedPa, testHeld: condition.testHeld })}
            />
            {condition.testedPa !== undefined && (
              <LookField
                label="It held"
                value={condition.testHeld}
                onChange={(testHeld) => set({ testHeld })}
              />
            )}
          </Fields>
        )}
      </Panel>
      <Puddles puddles={puddles} />
      <Panel>
        <h3>As fitted</h3>
        <Fields>
          {angle(`Fitted ${sides.front} up by`, "pitchDeg")}
          {angle(`Fitted ${sides.starboard} down by`, "rollDeg")}
        </Fields>
        <Facts>
          <dt>Cannot be filled</dt>
          <dd>{volume(tilt.capacityLostM3)}</dd>
          <dt>More stays behind than level</dt>
          <dd>{volume(tilt.deadGainedM3)}</dd>
        </Facts>
        {!tank.filling && <Small>With the fill's lip measured, what cannot be filled is computed.</Small>}
      </Panel>
      <Panel>
        <h3>Photographs</h3>
        <Small>One before anything is undone: which way its outlets faced, what went where.</Small>
        <Photos ofId={tank.id} name={tank.name} />
      </Panel>
    </>
  );
}

function Puddles({ puddles }: { puddles: readonly Puddle[] }) {
  const { enter } = useJob();
  const { tank, aboardM3 } = useTank();
  const { units, volume } = useUnits();
  const [found, setFound] = useState<number | undefined>();
  const [engine, setEngine] = useState<Puddle["engine"]>("stopped");
  return (
    <Panel>
      <h3>Puddles found under it</h3>
      <Fields>
        <QuantityField
          label="Puddle"
          dimension="volume"
          unit={panUnit(units)}
          value={found}
          check={positive}
          onCommit={setFound}
        />
        <Select
          label="Engine"
          value={engine}
          options={[
            { id: "stopped", name: "had stood" },
            { id: "running", name: "was running" },
          ]}
          onChange={setEngine}
        />
        <Button
          isDisabled={found === undefined}
          onPress={() => {
            if (found === undefined) return;
            void enter({ kind: "puddle", tankId: tank.id, volumeM3: found, aboardM3, engine }).then(
              ({ ok }) => ok && setFound(undefined),
            );
          }}
        >
          Enter the puddle
        </Button>
      </Fields>
      {puddles.length > 0 && (
        <Table>
          <thead>
            <tr>
              <th>When</th>
              <th className="n">Found</th>
              <th className="n">Tank held</th>
              <th>Engine</th>
              <ActionsHead name="Strike" />
            </tr>
          </thead>
          <tbody>
            {puddles.map((puddle) => (
              <tr key={puddle.id}>
                <td>{dayText(puddle.at)}</td>
                <td className="n">{volume(puddle.volumeM3)}</td>
                <td className="n">{volume(puddle.aboardM3)}</td>
                <td>{puddle.engine === "stopped" ? "had stood" : "was running"}</td>
                <td>
                  <Strike entryId={puddle.id} what={`puddle of ${dayText(puddle.at)}`} />
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
    </Panel>
  );
}
