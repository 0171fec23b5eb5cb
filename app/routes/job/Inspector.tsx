/** What is chosen: its figures in this line-up, its settings, and what can be done with it. */
import { useState } from "react";
import styled from "styled-components";
import { throughPorts } from "~/core/edit/commands";
import { figuresAt, figuresOf } from "~/core/hydraulics/derive";
import type { Station } from "~/core/hydraulics/route";
import type { NewPartKind } from "~/core/plan/blank";
import { newId } from "~/core/plan/ids";
import { placedPorts, portKey, portsOf, samePort } from "~/core/plan/ports";
import { runGeometry } from "~/core/plan/route";
import type { Engine, Filter, Id, LiftPump, Part, PlanPart, PortRef, Run, Tank } from "~/core/plan/types";
import { isValve, positionsOf, type Valve } from "~/core/plan/valves";
import { formatQuantity, type UnitChoice } from "~/core/units/format";
import {
  explainFilter,
  explainFreeAir,
  explainPump,
  explainRun,
  explainTank,
  explainVacuum,
} from "~/messages/explain";
import { nameOf } from "~/messages/notes";
import { partKindNames } from "~/messages/outcomes";
import { type Explored, type OpenJob, useJob, useSettled } from "~/state/job";
import { Button, ToggleButton } from "~/ui/button";
import { Quantity, type QuantityProps, Select, Switch, TextField } from "~/ui/fields";
import { Figure } from "./Figure";
import { QuantityField } from "./fields";
import { Photos } from "./Photos";

const Lines = styled.dl`
  margin: 8px 0 10px; display: grid; grid-template-columns: 1fr auto; font-stretch: 84%;
  dt, dd { padding: 4px 0; border-bottom: 1px solid var(--hairline); margin: 0; }
  dt { color: var(--soft); } dd { text-align: right; font-weight: 650; }
`;
const Group = styled.div`
  display: grid; gap: 8px; margin: 10px 0;
  &.two { grid-template-columns: 1fr 1fr; }
`;
const Buttons = styled.div`
  display: flex; flex-wrap: wrap; gap: 6px; margin: 8px 0;
`;

const kinds: { id: NewPartKind; name: string }[] = [
  { id: "twoWay", name: "Two-way valve" },
  { id: "selector", name: "Selector valve" },
  { id: "tee", name: "Tee" },
  { id: "bank", name: "Manifold bank" },
  { id: "filter", name: "Filter or separator" },
  { id: "liftPump", name: "Lift pump" },
  { id: "check", name: "Check valve" },
  { id: "gauge", name: "Vacuum gauge" },
];

export function Inspector() {
  const open = useJob();
  const { job, plan, selectedId } = open;
  const tank = job.tanks.find(({ id }) => id === selectedId);
  const part =
    plan.parts.find(({ id }) => id === selectedId) ?? job.consumers.find(({ id }) => id === selectedId);
  const run = plan.runs.find(({ id }) => id === selectedId);
  if (tank) return <TankInspector key={tank.id} tank={tank} />;
  if (part) return <PartInspector key={part.id} part={part} />;
  if (run) return <RunInspector key={run.id} run={run} />;
  return <Overview open={open} />;
}

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
                <Quantity dimension="pressure" si={suction.vacuumPa} unit={units.pressure} />
              </Figure>
            </dd>
            <dt>Limit, {suction.basis === "maker" ? "maker's" : "common practice"}</dt>
            <dd>
              <Quantity dimension="pressure" si={suction.limitPa} unit={units.pressure} />
            </dd>
            <dt>Air out of solution</dt>
            <dd>
              <Figure
                label="Air out of solution"
                explain={() => explainFreeAir(solved, -suction.vacuumPa, units)}
              >
                {suction.freeAir === null ? "boils" : `${(suction.freeAir * 100).toFixed(1)} %`}
              </Figure>
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
              <Quantity dimension="pressure" si={engine.beforePa} unit={units.pressure} />
            </dd>
          </>
        )}
      </Lines>
    </section>
  );
}

type Change<T> = (change: Partial<T>, field?: string, entered?: string) => void;

/** Fields of a record share how they commit: the number, its text as entered, and that it was measured. */
function useFields<
  T extends { given?: Record<string, { entered?: string; basis?: "measured" | "maker" | "assumed" }> },
>(record: T, change: Change<T>) {
  return (
    field: keyof T & string,
    props: Pick<QuantityProps, "label" | "dimension" | "unit" | "check">,
    basis: "measured" | "maker" = "measured",
  ) => {
    const given = record.given?.[field];
    return (
      <QuantityField
        {...props}
        value={record[field] as number | undefined}
        basis={given?.basis ?? "assumed"}
        entered={given?.entered}
        onCommit={(si, entered) =>
          change({
            [field]: si,
            given: { ...record.given, [field]: { entered, basis } },
          } as unknown as Partial<T>)
        }
      />
    );
  };
}

/** What goes before taking a part out: how it was. */
function Before({ id, name }: { id: Id; name: string }) {
  return (
    <>
      <h3 style={{ marginTop: 10 }}>Before it is undone</h3>
      <Photos ofId={id} name={name} />
    </>
  );
}

const positive = (si: number) => (si > 0 ? null : "Must be more than nothing.");

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
      <Group>
        <TextField
          label="Name"
          value={tank.name}
          onCommit={(name) => void dispatch({ name: "editTank", id: tank.id, change: { name } })}
        />
      </Group>
      <Connections owner={{ id: tank.id, ports: tank.ports.map(({ id, name }) => ({ id, name })) }} />
      <Before id={tank.id} name={tank.name} />
      <Buttons>
        <Button
          onPress={() => {
            void dispatch({ name: "removeTank", id: tank.id });
            select(null);
          }}
        >
          Take the tank out
        </Button>
      </Buttons>
      {plan.runs.length === 0 && <p>Join its ports to parts, or add an engine first.</p>}
    </section>
  );
}

function PartInspector({ part }: { part: Part }) {
  const open = useJob();
  const { job, dispatch, select, lineUp } = open;
  const explored = useSettled();
  const { verdict } = explored;
  const { units } = job;
  const solved = verdict?.result.outcome === "solved" ? verdict.result : null;
  const station = verdict?.way?.stations.find(({ id }) => id === part.id);
  const loss = verdict?.way?.suctionLosses.find(({ id }) => id === part.id);
  const edit = (change: object) =>
    void dispatch(
      part.kind === "engine"
        ? { name: "editEngine", id: part.id, change }
        : { name: "editPart", id: part.id, change: change as Record<string, unknown> },
    );
  return (
    <section aria-label="Chosen part">
      <h2>{part.name}</h2>
      <p style={{ color: "var(--soft)", margin: 0 }}>{partKindNames[part.kind]}</p>
      <Lines>
        {station && station.kind !== "gauge" && (
          <>
            <dt>Flow through it</dt>
            <dd>
              <Quantity dimension="flow" si={station.flowM3S} unit={units.flow} />
            </dd>
            <dt>{station.kind === "pump" ? "Lifts" : "Takes now"}</dt>
            <dd>
              <PartLoss part={part} station={station} explored={explored} units={units} />
            </dd>
          </>
        )}
        {loss && (
          <>
            <dt>Of all suction</dt>
            <dd>{Math.round(loss.share * 100)} %</dd>
          </>
        )}
        {solved && station && (
          <>
            <dt>Pressure before it</dt>
            <dd>
              <Figure
                label="Pressure and air"
                explain={() => explainFreeAir(solved, station.beforePa, units)}
              >
                <Quantity
                  dimension="pressure"
                  si={figuresAt(solved, station.beforePa).gaugePa}
                  unit={units.pressure}
                />
              </Figure>
            </dd>
          </>
        )}
      </Lines>
      {lineUp && isValve(part) && <ValveSettings valve={part} />}
      {lineUp && part.kind === "liftPump" && (
        <Switch
          isOn={lineUp.pumps[part.id] === "on"}
          onChange={(on) =>
            void dispatch({ name: "setPump", lineUpId: lineUp.id, pumpId: part.id, state: on ? "on" : "off" })
          }
        >
          On in {lineUp.name}
        </Switch>
      )}
      {lineUp && part.kind === "engine" && (
        <Switch
          isOn={lineUp.consumers[part.id] === "running"}
          onChange={(on) =>
            void dispatch({
              name: "setConsumer",
              lineUpId: lineUp.id,
              consumerId: part.id,
              state: on ? "running" : "stopped",
            })
          }
        >
          Runs in {lineUp.name}
        </Switch>
      )}
      <Group>
        <TextField label="Name" value={part.name} onCommit={(name) => edit({ name })} />
      </Group>
      <PartFields part={part} edit={edit} />
      <Connections owner={{ id: part.id, ports: portsOf(part).map(({ id, name }) => ({ id, name })) }} />
      <Before id={part.id} name={part.name} />
      {part.kind !== "engine" && <PartActions part={part} />}
      {part.kind === "engine" && (
        <Buttons>
          <Button
            onPress={() => {
              void dispatch({ name: "removeEngine", id: part.id });
              select(null);
            }}
          >
            Take the engine out
          </Button>
        </Buttons>
      )}
    </section>
  );
}

function PartLoss({
  part,
  station,
  explored,
  units,
}: {
  part: Part;
  station: Station;
  explored: Explored;
  units: UnitChoice;
}) {
  const si = station.kind === "pump" ? station.afterPa - station.beforePa : station.lossPa;
  const shown = <Quantity dimension="pressure" si={si} unit={units.pressure} />;
  if (part.kind === "filter") {
    const loading = part.element ? (explored.conditions.loading[part.element.id] ?? 1) : 1;
    return (
      <Figure label="Drop" explain={() => explainFilter(part, loading, units)}>
        {shown}
      </Figure>
    );
  }
  if (part.kind === "liftPump") {
    return (
      <Figure label="Lift" explain={() => explainPump(part, units)}>
        {shown}
      </Figure>
    );
  }
  return shown;
}

function PartFields({ part, edit }: { part: Part; edit: (change: object) => void }) {
  const { job } = useJob();
  const { units } = job;
  const field = useFields(part as Part & { [key: string]: unknown }, (change) => edit(change));
  const height = (
    <QuantityField
      label="Height over datum"
      dimension="length"
      unit={units.length}
      value={part.position.zM}
      basis={part.given?.position?.basis ?? "assumed"}
      onCommit={(zM, entered) =>
        edit({
          position: { ...part.position, zM },
          given: { ...part.given, position: { entered, basis: "measured" } },
        })
      }
    />
  );
  const bore = field("boreM", { label: "Bore", dimension: "length", unit: units.bore, check: positive });
  switch (part.kind) {
    case "filter":
      return (
        <Group className="two">
          {field(
            "ratedFlowM3S" as never,
            { label: "Rated flow", dimension: "flow", unit: units.flow, check: positive },
            "maker",
          )}
          {field(
            "ratedDropPa" as never,
            { label: "Drop at rated flow", dimension: "pressure", unit: units.pressure, check: positive },
            "maker",
          )}
          {height}
          {bore}
          <LoadingNow filter={part} />
        </Group>
      );
    case "liftPump":
      return <PumpFields pump={part} edit={edit} height={height} bore={bore} />;
    case "check":
      return (
        <Group className="two">
          {field(
            "crackingPa" as never,
            { label: "Opens at", dimension: "pressure", unit: units.pressure },
            "maker",
          )}
          {height}
        </Group>
      );
    case "engine":
      return <EngineFields engine={part} edit={edit} height={height} />;
    case "twoWay":
    case "selector":
    case "bank":
    case "tee":
    case "gauge":
      return (
        <Group className="two">
          {height}
          {bore}
        </Group>
      );
  }
}

function LoadingNow({ filter }: { filter: Filter }) {
  const { plan, dispatch } = useJob();
  const element = filter.element;
  if (!element) {
    return (
      <Button
        onPress={() =>
          void dispatch({ name: "editPart", id: filter.id, change: { element: { id: newId() } } })
        }
      >
        Fit an element
      </Button>
    );
  }
  return (
    <QuantityField
      label="Loading, times clean"
      dimension="ratio"
      unit=""
      value={plan.conditions.loading[element.id] ?? 1}
      check={(si) => (si >= 1 ? null : "A clean element is 1.")}
      onCommit={(si) =>
        void dispatch({
          name: "setConditions",
          change: { loading: { [element.id]: si } },
        })
      }
    />
  );
}

function PumpFields({
  pump,
  edit,
  height,
  bore,
}: {
  pump: LiftPump;
  edit: (change: object) => void;
  height: React.ReactNode;
  bore: React.ReactNode;
}) {
  const { job } = useJob();
  const { units } = job;
  const given = { ...pump.given, curve: { ...pump.given?.curve, basis: "maker" as const } };
  const setPoint = (i: number, point: Partial<LiftPump["curve"][number]>) =>
    edit({ curve: pump.curve.map((one, k) => (k === i ? { ...one, ...point } : one)), given });
  const last = pump.curve.at(-1);
  return (
    <>
      <h3>Curve</h3>
      {pump.curve.map((point, i) => (
        <Group className="two" key={i}>
          <QuantityField
            label={`Flow ${i + 1}`}
            dimension="flow"
            unit={units.flow}
            value={point.flowM3S}
            onCommit={(flowM3S) => setPoint(i, { flowM3S })}
            basis={pump.given?.curve?.basis ?? "assumed"}
          />
          <QuantityField
            label={`Lift ${i + 1}`}
            dimension="pressure"
            unit={units.pressure}
            value={point.risePa}
            onCommit={(risePa) => setPoint(i, { risePa })}
            basis={pump.given?.curve?.basis ?? "assumed"}
          />
        </Group>
      ))}
      <Buttons>
        <Button
          onPress={() =>
            last &&
            edit({
              curve: [...pump.curve, { flowM3S: last.flowM3S * 1.2 + 1e-6, risePa: last.risePa - 2000 }],
              given,
            })
          }
        >
          Add a point
        </Button>
        {pump.curve.length > 2 && (
          <Button onPress={() => edit({ curve: pump.curve.slice(0, -1), given })}>Drop the last</Button>
        )}
      </Buttons>
      <Group className="two">
        <QuantityField
          label="Relief opens at"
          dimension="pressure"
          unit={units.pressure}
          value={pump.reliefPa}
          check={positive}
          onCommit={(reliefPa) => edit({ reliefPa })}
        />
        <QuantityField
          label="Suction limit, maker's"
          dimension="pressure"
          unit={units.pressure}
          value={pump.suctionLimitPa}
          check={positive}
          onCommit={(suctionLimitPa) => edit({ suctionLimitPa })}
        />
        {height}
        {bore}
      </Group>
    </>
  );
}

function EngineFields({
  engine,
  edit,
  height,
}: {
  engine: Engine;
  edit: (change: object) => void;
  height: React.ReactNode;
}) {
  const { job } = useJob();
  const { units } = job;
  const setLoad = (i: number, change: Partial<Engine["loads"][number]>) =>
    edit({
      loads: engine.loads.map((one, k) => (k === i ? { ...one, ...change } : one)),
      given: { ...engine.given, loads: { basis: "maker" } },
    });
  const basis = engine.given?.loads?.basis ?? "assumed";
  return (
    <>
      {engine.loads.map((load, i) => (
        <Group className="two" key={i}>
          <QuantityField
            label={`Feed at ${Math.round(load.load * 100)} % load`}
            dimension="flow"
            unit={units.flow}
            value={load.feedM3S}
            onCommit={(feedM3S) => setLoad(i, { feedM3S })}
            basis={basis}
          />
          <QuantityField
            label="Burn"
            dimension="flow"
            unit={units.flow}
            value={load.burnM3S}
            onCommit={(burnM3S) => setLoad(i, { burnM3S })}
            basis={basis}
          />
        </Group>
      ))}
      <Group className="two">
        <QuantityField
          label="Suction limit, maker's"
          dimension="pressure"
          unit={units.pressure}
          value={engine.suctionLimitPa}
          check={positive}
          onCommit={(suctionLimitPa) => edit({ suctionLimitPa })}
        />
        {height}
      </Group>
    </>
  );
}

export function ValveSettings({ valve }: { valve: Valve }) {
  const { lineUp, dispatch } = useJob();
  if (!lineUp) return null;
  const setting = lineUp.valves[valve.id];
  const set = (next: typeof setting) =>
    next && void dispatch({ name: "setValve", lineUpId: lineUp.id, valveId: valve.id, setting: next });
  if (valve.kind === "bank") {
    const openIds = setting?.kind === "branches" ? setting.open : [];
    return (
      <div>
        <h3>In {lineUp.name}</h3>
        <Buttons>
          {valve.branches.map(({ id, name }) => (
            <ToggleButton
              key={id}
              isSelected={openIds.includes(id)}
              onChange={(isOpen) =>
                void dispatch({
                  name: "setBranch",
                  lineUpId: lineUp.id,
                  valveId: valve.id,
                  branch: id,
                  isOpen,
                })
              }
            >
              {name} {openIds.includes(id) ? "open" : "shut"}
            </ToggleButton>
          ))}
        </Buttons>
      </div>
    );
  }
  return (
    <div>
      <h3>In {lineUp.name}</h3>
      <Buttons>
        {positionsOf(valve).map(({ id, name }) => (
          <ToggleButton
            key={id}
            isSelected={setting?.kind === "position" && setting.position === id}
            onChange={() => set({ kind: "position", position: id })}
          >
            {name}
          </ToggleButton>
        ))}
      </Buttons>
    </div>
  );
}

/** Ports and what is on them; an open one can be joined to another. */
function Connections({ owner }: { owner: { id: string; ports: { id: string; name: string }[] } }) {
  const { job, plan, dispatch, select } = useJob();
  const ports = placedPorts(job, plan);
  const taken = new Set(
    [...plan.runs, ...plan.joints].flatMap(({ from, to }) => [portKey(from), portKey(to)]),
  );
  const openPorts = [...ports.values()].filter(
    ({ ref }) => !taken.has(portKey(ref)) && ref.part !== owner.id,
  );
  const [isScrewed, setScrewed] = useState(false);
  const hasOpen = owner.ports.some(({ id }) => !taken.has(`${owner.id}.${id}`));
  const farOf = (ref: PortRef) => {
    const item = [...plan.runs, ...plan.joints].find(
      ({ from, to }) => samePort(from, ref) || samePort(to, ref),
    );
    if (!item) return null;
    return {
      id: item.id,
      far: samePort(item.from, ref) ? item.to : item.from,
      isRun: plan.runs.some(({ id }) => id === item.id),
    };
  };
  return (
    <div>
      <h3>Ports</h3>
      {hasOpen && (
        <Switch isOn={isScrewed} onChange={setScrewed}>
          Screw together, without a hose
        </Switch>
      )}
      <Group>
        {owner.ports.map(({ id, name }) => {
          const ref = { part: owner.id, port: id };
          const connection = farOf(ref);
          if (!connection) {
            return (
              <Select
                key={id}
                label={`${name}: open, join to`}
                value={null}
                placeholder={openPorts.length > 0 ? "choose a port" : "no open port elsewhere"}
                options={openPorts.map((port) => ({
                  id: portKey(port.ref),
                  name: `${port.ownerName}, ${port.name}`,
                }))}
                onChange={(key) => {
                  const to = openPorts.find((port) => portKey(port.ref) === key);
                  if (to)
                    void dispatch({
                      name: isScrewed ? "join" : "connect",
                      id: newId(),
                      from: ref,
                      to: to.ref,
                    });
                }}
              />
            );
          }
          const far = ports.get(portKey(connection.far));
          return (
            <Buttons key={id} style={{ margin: 0, alignItems: "center" }}>
              <span style={{ flex: 1, fontSize: 13 }}>
                {name}: {far?.ownerName ?? "missing"}, {far?.name}
              </span>
              {connection.isRun && (
                <Button $quiet onPress={() => select(connection.id)}>
                  hose
                </Button>
              )}
              <Button
                $quiet
                aria-label={`Take off at ${name}`}
                onPress={() => void dispatch({ name: "disconnect", id: connection.id })}
              >
                take off
              </Button>
            </Buttons>
          );
        })}
      </Group>
    </div>
  );
}

function PartActions({ part }: { part: PlanPart }) {
  const { dispatch, select } = useJob();
  return (
    <Group>
      <Select
        label="Replace by"
        value={null}
        options={kinds.filter(({ id }) => id !== part.kind)}
        onChange={(kind) => {
          const id = newId();
          void dispatch({ name: "replacePart", id: part.id, newId: id, kind }).then(
            (result) => result.ok && select(id),
          );
        }}
      />
      <Buttons>
        {throughPorts(part) && (
          <Button onPress={() => void dispatch({ name: "turnPart", id: part.id })}>Turn end for end</Button>
        )}
        <Button
          onPress={() => {
            void dispatch({ name: "removePart", id: part.id });
            select(null);
          }}
        >
          Take it out
        </Button>
      </Buttons>
    </Group>
  );
}

function RunInspector({ run }: { run: Run }) {
  const { job, plan, dispatch, select } = useJob();
  const { verdict } = useSettled();
  const { units } = job;
  const [kind, setKind] = useState<NewPartKind>("twoWay");
  const ports = placedPorts(job, plan);
  const from = ports.get(portKey(run.from));
  const to = ports.get(portKey(run.to));
  const field = useFields(
    run as Run & { [key: string]: unknown },
    (change) => void dispatch({ name: "editRun", id: run.id, change: change as Partial<Run> }),
  );
  if (!from || !to) return null;
  const geometry = runGeometry(run, from, to);
  const solved = verdict?.result.outcome === "solved" ? verdict.result : null;
  const leg = verdict?.way?.legs.find(({ id }) => id === run.id);
  const index = solved?.network.linkOf.get(run.id) ?? -1;
  const figures = solved && index >= 0 ? figuresOf(solved, index) : null;
  const insert = () => {
    const id = newId();
    void dispatch({ name: "insertPart", id, kind, runId: run.id, newRunId: newId() }).then(
      (result) => result.ok && select(id),
    );
  };
  const setLength = (lengthM: number, entered: string) => {
    const bends = run.route.kind === "measured" ? run.route : { bends: [], extremes: [] };
    void dispatch({
      name: "editRun",
      id: run.id,
      change: {
        route: { kind: "measured", lengthM, bends: bends.bends, extremes: bends.extremes },
        given: { ...run.given, lengthM: { entered, basis: "measured" } },
      },
    });
  };
  const setBends = (count: number) => {
    if (run.route.kind !== "measured") return;
    void dispatch({
      name: "editRun",
      id: run.id,
      change: { route: { ...run.route, bends: count > 0 ? [{ deg: 90, count }] : [] } },
    });
  };
  return (
    <section aria-label="Chosen hose">
      <h2>
        {from.ownerName} to {to.ownerName}
      </h2>
      <Lines>
        {figures && (
          <>
            <dt>Flow</dt>
            <dd>
              <Quantity dimension="flow" si={Math.abs(figures.flowM3S)} unit={units.flow} />
            </dd>
          </>
        )}
        {solved && leg && (
          <>
            <dt>Drop</dt>
            <dd>
              <Figure label="Drop" explain={() => explainRun(solved, leg, run, units)}>
                <Quantity dimension="pressure" si={leg.lossPa} unit={units.pressure} />
              </Figure>
            </dd>
          </>
        )}
        <dt>Rise</dt>
        <dd>
          <Quantity dimension="length" si={geometry.riseM} unit={units.length} />
        </dd>
      </Lines>
      <Group className="two">
        {field("boreM", { label: "Bore", dimension: "length", unit: units.bore, check: positive })}
        <QuantityField
          label="Length"
          dimension="length"
          unit={units.length}
          value={geometry.lengthM}
          basis={run.given?.lengthM?.basis ?? "assumed"}
          entered={run.given?.lengthM?.entered}
          onCommit={setLength}
          check={(si) =>
            si >= geometry.straightM
              ? null
              : `Its ports are ${formatQuantity("length", geometry.straightM, units.length)} apart.`
          }
        />
        <QuantityField
          label="Bends of 90°"
          dimension="ratio"
          unit=""
          value={geometry.bends90}
          check={(si) => (Number.isInteger(si) && si >= 0 && si < 100 ? null : "A whole number.")}
          onCommit={setBends}
        />
        <TextField
          label="Marking"
          value={run.product.marking}
          onCommit={(marking) =>
            void dispatch({ name: "editRun", id: run.id, change: { product: { ...run.product, marking } } })
          }
        />
      </Group>
      <Group>
        <Select label="Let in a part" value={kind} options={kinds} onChange={setKind} />
        <Buttons>
          <Button $main onPress={insert}>
            Let it in
          </Button>
          <Button
            onPress={() => {
              void dispatch({ name: "disconnect", id: run.id });
              select(null);
            }}
          >
            Take the hose off
          </Button>
        </Buttons>
      </Group>
    </section>
  );
}

export { kinds as newPartKinds };
