/*
 * Decides: whether a tank can be dropped as it is, or must be drained first.
 * Seen in three seconds: its weight now against what lifts it; what all tanks weigh and where.
 */

import { fuelAt } from "~/core/fuel/fuel";
import { newId } from "~/core/kinds/ids";
import type { Attachment, Tank } from "~/core/plan/types";
import { allTanks, drainFirstM3, liftingKg, tankWeight } from "~/core/tanks/weight";
import { massUnit } from "~/core/units/trade";
import { notNegative } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { nameOf } from "~/messages/notes";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, Switch, TextField } from "~/ui/fields";
import { Caution } from "~/ui/place";
import { Table } from "~/ui/table";
import { Facts, Fields, Panel, Small, useEditTank, useTank, useUnits } from "./tankContext";

const means = [
  { id: "hands", name: "One pair of hands" },
  { id: "twoPeople", name: "Two people" },
  { id: "cradleAndJack", name: "Cradle and jack" },
] as const;

const fastKinds: { id: Attachment["kind"]; name: string }[] = [
  { id: "strap", name: "strap" },
  { id: "filler", name: "filler" },
  { id: "vent", name: "vent" },
  { id: "connector", name: "connector, reached a hand's breadth down" },
  { id: "earth", name: "earth strap, reached a hand's breadth down" },
  { id: "other", name: "something else" },
];

/** What is fast to it beside its hoses: each is undone before it comes down, and stands in the ledger until it is fast again. */
function Attachments({ tank, edit }: { tank: Tank; edit(attachments: Attachment[]): void }) {
  const { attachments = [] } = tank;
  const set = (id: string, change: Partial<Attachment>) =>
    edit(attachments.map((one) => (one.id === id ? { ...one, ...change } : one)));
  return (
    <>
      <h4>Fast to it, beside its hoses</h4>
      {attachments.map(({ id, kind, name }) => (
        <Fields key={id}>
          <TextField label="What" value={name} onCommit={(text) => set(id, { name: text })} />
          <Select
            label="It is"
            value={kind}
            options={fastKinds}
            onChange={(next) => set(id, { kind: next })}
          />
          <Button $quiet onPress={() => edit(attachments.filter((one) => one.id !== id))}>
            Take {name} out
          </Button>
        </Fields>
      ))}
      <Button onPress={() => edit([...attachments, { id: newId(), kind: "strap", name: "strap" }])}>
        Add what is fast to it
      </Button>
    </>
  );
}

export function WeightPanel() {
  const { job, plan, dispatch } = useJob();
  const { tank, aboardM3 } = useTank();
  const { units, volume, length, mass, moment } = useUnits();
  const edit = useEditTank(tank);
  const state = fuelAt(job.fuel, plan.conditions.fuelC);
  if (!state) return <Panel>The fuel has no density at this temperature.</Panel>;
  const now = tankWeight(tank, aboardM3, state.densityKgM3);
  const all = allTanks(job, { ...plan.conditions.aboardM3, [tank.id]: aboardM3 }, state.densityKgM3);
  const isBoat = job.kind === "boat";
  const most = tank.droppedBy ? liftingKg[tank.droppedBy] : null;
  const drain = most === null ? 0 : drainFirstM3(now, most, state.densityKgM3);
  return (
    <>
      <Panel>
        <h3>To drop this tank</h3>
        <Facts>
          <dt>Fuel in it</dt>
          <dd>{mass(now.fuelKg)}</dd>
          <dt>With the tank itself</dt>
          <dd>{mass(now.allKg)}</dd>
          {most !== null && (
            <>
              <dt>Drain first</dt>
              <dd>{drain > 0 ? volume(drain) : "nothing"}</dd>
            </>
          )}
        </Facts>
        <Fields>
          <QuantityField
            label="Empty tank"
            dimension="mass"
            unit={massUnit(units)}
            value={tank.emptyKg}
            check={notNegative}
            onCommit={(emptyKg) => void edit({ emptyKg })}
          />
          <Select
            label="Dropped with"
            value={tank.droppedBy ?? null}
            options={means.map(({ id, name }) => ({ id, name: `${name}, ${mass(liftingKg[id])}` }))}
            onChange={(droppedBy) => void edit({ droppedBy })}
          />
        </Fields>
        <Attachments tank={tank} edit={(attachments) => void edit({ attachments })} />
        <Switch
          isOn={plan.tanksDown?.includes(tank.id) ?? false}
          onChange={(isDown) => {
            const others = (plan.tanksDown ?? []).filter((id) => id !== tank.id);
            const tanksDown = isDown ? [...others, tank.id] : others;
            void dispatch({ name: "editPlan", change: { tanksDown } });
          }}
        >
          It comes down for the work of {plan.name}
        </Switch>
        <Caution style={{ margin: "0 0 4px" }}>
          Never lie under a tank on its straps or a jack alone: stands and chocks, two people, drain pans with
          room for what is left.
        </Caution>
      </Panel>
      <Panel>
        <h3>All tanks</h3>
        <Table>
          <thead>
            <tr>
              <th>Tank</th>
              <th className="n">Weight</th>
              <th className="n">Forward</th>
              <th className="n">To port</th>
              <th className="n">Up</th>
            </tr>
          </thead>
          <tbody>
            {all.tanks.map(({ tankId, allKg, centre }) => (
              <tr key={tankId}>
                <td>{nameOf(job, tankId)}</td>
                <td className="n">{mass(allKg)}</td>
                <td className="n">{length(centre.xM)}</td>
                <td className="n">{length(centre.yM)}</td>
                <td className="n">{length(centre.zM)}</td>
              </tr>
            ))}
            {all.centre && (
              <tr>
                <td>
                  <b>Together</b>
                </td>
                <td className="n">{mass(all.allKg)}</td>
                <td className="n">{length(all.centre.xM)}</td>
                <td className="n">{length(all.centre.yM)}</td>
                <td className="n">{length(all.centre.zM)}</td>
              </tr>
            )}
          </tbody>
        </Table>
        {isBoat && (
          <>
            <h4>Moments about the zero point</h4>
            <Table>
              <thead>
                <tr>
                  <th>Tank</th>
                  <th className="n">List to port</th>
                  <th className="n">Trim by the bow</th>
                </tr>
              </thead>
              <tbody>
                {[...all.tanks, { tankId: null, listNm: all.listNm, trimNm: all.trimNm }].map(
                  ({ tankId, listNm, trimNm }) => (
                    <tr key={tankId ?? "all"}>
                      <td>{tankId === null ? <b>Together</b> : nameOf(job, tankId)}</td>
                      <td className="n">{moment(listNm)}</td>
                      <td className="n">{moment(trimNm)}</td>
                    </tr>
                  ),
                )}
              </tbody>
            </Table>
            <Small>Moments only: nothing is said here of stability. That is a naval architect's work.</Small>
          </>
        )}
      </Panel>
    </>
  );
}
