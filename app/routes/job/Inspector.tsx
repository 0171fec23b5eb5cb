/** What is chosen: its figures in this line-up, its settings, and what can be done with it. */

import { figuresAt } from "~/core/hydraulics/derive";
import type { Tank } from "~/core/plan/types";
import { percentText } from "~/core/units/format";
import { gaugeUnit, vacuumUnit } from "~/core/units/trade";
import { Figure } from "~/fields/Figure";
import { Before, Buttons, Group, Lines } from "~/fields/layout";
import { explainFreeAir, explainTank, explainVacuum } from "~/messages/explain";
import { nameOf } from "~/messages/notes";
import { type OpenJob, useJob, useSettled } from "~/state/job";
import { Button } from "~/ui/button";
import { Quantity, TextField } from "~/ui/fields";
import { Connections } from "./Connections";
import { PortNames } from "./PortNames";
import { PartInspector } from "./part/PartInspector";
import { RunInspector } from "./RunInspector";
import { TankLineInspector } from "./TankLineInspector";
import { TankLines } from "./TankLines";
import { TankPorts } from "./TankPorts";

export function Inspector() {
  const open = useJob();
  const { job, plan, selectedId } = open;
  const tank = job.tanks.find(({ id }) => id === selectedId);
  const part =
    plan.parts.find(({ id }) => id === selectedId) ?? job.consumers.find(({ id }) => id === selectedId);
  const run = plan.runs.find(({ id }) => id === selectedId);
  const line = plan.tankLines?.find(({ id }) => id === selectedId);
  if (tank) return <TankInspector key={tank.id} tank={tank} />;
  if (part) return <PartInspector key={part.id} part={part} />;
  if (run) return <RunInspector key={run.id} run={run} />;
  if (line) return <TankLineInspector key={line.id} line={line} />;
  return <Overview open={open} />;
}

/** Diesel's vapour pressure is nothing worth a line; petrol's is. */
const LEAST_VAPOUR_PA = 1000;

/** With nothing chosen: what the line-up does as a whole. */
function Overview({ open }: { open: OpenJob }) {
  const { job, lineUp, plan } = open;
  const { verdict } = useSettled();
  const { units } = job;
  if (!lineUp || !verdict) {
    return (
      <section>
        <h2>{plan.name}</h2>
        <p>No line-up yet. A line-up is a named setting of every valve and pump.</p>
      </section>
    );
  }
  const { result, way, suction } = verdict;
  const solved = result.outcome === "solved" ? result : null;
  const engine = way?.stations.find(({ kind }) => kind === "engine");
  const worst = way?.suctionLosses[0];
  return (
    <section aria-label="Line-up">
      <h2>{lineUp.name}</h2>
      <Lines>
        {solved && way && suction && (
          <>
            <dt>Vacuum at {nameOf(job, suction.id)}</dt>
            <dd>
              <Figure
                label="Vacuum"
                explain={() => explainVacuum(solved, way, suction, units, (id) => nameOf(job, id))}
              >
                <Quantity dimension="pressure" si={suction.vacuumPa} unit={vacuumUnit(units)} />
              </Figure>
            </dd>
            <dt>Limit, {suction.basis === "maker" ? "maker's" : "common practice"}</dt>
            <dd>
              <Quantity dimension="pressure" si={suction.limitPa} unit={vacuumUnit(units)} />
            </dd>
            <dt>Air out of solution</dt>
            <dd>
              <Figure
                label="Air out of solution"
                explain={() => explainFreeAir(solved, -suction.vacuumPa, units)}
              >
                {suction.freeAir === null ? "boils" : percentText(suction.freeAir)}
              </Figure>
            </dd>
          </>
        )}
        {solved && suction && solved.settings.fuel.vapourPa > LEAST_VAPOUR_PA && (
          <>
            <dt>Over vapour pressure</dt>
            <dd>
              <Quantity
                dimension="pressure"
                si={figuresAt(solved, -suction.vacuumPa).vapourMarginPa}
                unit={vacuumUnit(units)}
              />
            </dd>
          </>
        )}
        {worst && (
          <>
            <dt>Costs most: {nameOf(job, worst.id)}</dt>
            <dd>{Math.round(worst.share * 100)} %</dd>
          </>
        )}
        {engine && (
          <>
            <dt>Fed at</dt>
            <dd>
              <Quantity dimension="pressure" si={engine.beforePa} unit={gaugeUnit(units, engine.beforePa)} />
            </dd>
          </>
        )}
      </Lines>
    </section>
  );
}

function TankInspector({ tank }: { tank: Tank }) {
  const { job, plan, dispatch, select } = useJob();
  const { conditions } = useSettled();
  const { units } = job;
  const aboard = conditions.aboardM3[tank.id] ?? 0;
  return (
    <section aria-label="Chosen tank">
      <h2>{tank.name}</h2>
      <Lines>
        <dt>Aboard</dt>
        <dd>
          <Figure label="Aboard" explain={() => explainTank(tank, aboard, units)}>
            <Quantity dimension="volume" si={aboard} unit={units.volume} />
          </Figure>
        </dd>
      </Lines>
      <Connections owner={{ id: tank.id, ports: tank.ports.map(({ id, name }) => ({ id, name })) }} />
      <TankPorts tank={tank} />
      <Group>
        <TextField
          label="Name"
          name="name"
          value={tank.name}
          onCommit={(name) => void dispatch({ name: "editTank", id: tank.id, change: { name } })}
        />
      </Group>
      <PortNames
        ports={tank.ports}
        onName={(id, said) => {
          const ports = tank.ports.map((port) => (port.id === id ? { ...port, name: said } : port));
          void dispatch({ name: "editTank", id: tank.id, change: { ports } });
        }}
      />
      <TankLines tank={tank} />
      <Before id={tank.id} name={tank.name} />
      <Buttons>
        <Button
          onPress={() => {
            void dispatch({ name: "removeTank", id: tank.id });
            select(null);
          }}
        >
          Delete the tank from the plan
        </Button>
      </Buttons>
      {plan.runs.length === 0 && <p>Join its ports to parts, or add an engine first.</p>}
    </section>
  );
}
