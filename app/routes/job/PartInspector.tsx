/** A part that is chosen: its figures, how it stands in the line-up, and the fields of its kind. */
import { throughPorts } from "~/core/edit/commands";
import { figuresAt } from "~/core/hydraulics/derive";
import type { Station } from "~/core/hydraulics/route";
import { burnM3S } from "~/core/laws/burn";
import { genericCircuit } from "~/core/kinds/circuit";
import {
  type Filtering,
  isConsumer,
  isFiltering,
  isPlainThrough,
  isPowered,
  isPushing,
  type Pushing,
} from "~/core/kinds/families";
import { newId } from "~/core/kinds/ids";
import { hasArrow, portsOf } from "~/core/plan/ports";
import type { Engine, Part, PlanPart } from "~/core/kinds/index";
import { isValve } from "~/core/kinds/families";
import { formatQuantity, type UnitChoice } from "~/core/units/format";
import { explainFilter, explainFreeAir, explainPump } from "~/messages/explain";
import { partKindNames } from "~/messages/outcomes";
import { type Explored, useJob, useSettled } from "~/state/job";
import { Button } from "~/ui/button";
import { Quantity, Select, Switch, TextField } from "~/ui/fields";
import { Connections } from "./Connections";
import { Figure } from "./Figure";
import { QuantityField } from "./fields";
import { Before, Buttons, Group, Lines, positive } from "./inspectorParts";
import { newPartKinds } from "./newPartKinds";
import { circuitFields, type FieldSpec, heaterFields, partFields } from "./partFields";
import { ValveSettings } from "./ValveSettings";

export function PartInspector({ part }: { part: Part }) {
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
      isConsumer(part)
        ? { name: "editEngine", id: part.id, change }
        : { name: "editPart", id: part.id, change: change as Record<string, unknown> },
    );
  return (
    <section aria-label="Chosen part">
      <h2>{part.name}</h2>
      <p style={{ color: "var(--soft)", margin: 0 }}>{partKindNames[part.kind]}</p>
      <Lines>
        {station && !isPlainThrough(part) && (
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
      {lineUp && isPowered(part) && (
        <Switch
          isOn={lineUp.pumps[part.id] === "on"}
          onChange={(on) =>
            void dispatch({ name: "setPump", lineUpId: lineUp.id, pumpId: part.id, state: on ? "on" : "off" })
          }
        >
          On in {lineUp.name}
        </Switch>
      )}
      {lineUp && isConsumer(part) && (
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
      {isConsumer(part) ? (
        <Buttons>
          <Button
            onPress={() => {
              void dispatch({ name: "removeEngine", id: part.id });
              select(null);
            }}
          >
            Take the {partKindNames[part.kind]} out
          </Button>
        </Buttons>
      ) : (
        <PartActions part={part} />
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
  if (isFiltering(part)) {
    const loading = part.element ? (explored.conditions.loading[part.element.id] ?? 1) : 1;
    return (
      <Figure label="Drop" explain={() => explainFilter(part, loading, units)}>
        {shown}
      </Figure>
    );
  }
  if (isPushing(part)) {
    return (
      <Figure label="Lift" explain={() => explainPump(part, units)}>
        {shown}
      </Figure>
    );
  }
  return shown;
}

/** A value of a part by its path, `circuit.fuseA` and the like. */
function valueAt(part: Part, field: string): unknown {
  return field
    .split(".")
    .reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], part);
}

/** The change that puts a value at a path. */
function changeAt(part: Part, field: string, value: unknown): Record<string, unknown> {
  const [top = "", inner] = field.split(".");
  if (inner === undefined) return { [top]: value };
  return { [top]: { ...(valueAt(part, top) as object), [inner]: value } };
}

const checks = {
  positive,
  zero: (si: number) => (si >= 0 ? null : "Not less than nothing."),
} as const;

function FieldList({
  part,
  specs,
  edit,
}: {
  part: Part;
  specs: readonly FieldSpec[];
  edit: (change: object) => void;
}) {
  const { units } = useJob().job;
  const unitOf = (key: string) =>
    key in units ? units[key as keyof UnitChoice] : key === "ratio" ? "" : key;
  return specs.map((spec) => {
    const value = valueAt(part, spec.field);
    if (spec.kind === "switch") {
      return (
        <div key={spec.field} style={{ gridColumn: "1 / -1" }}>
          <Switch isOn={value === true} onChange={(on) => edit(changeAt(part, spec.field, on))}>
            {spec.label}
          </Switch>
        </div>
      );
    }
    if (spec.kind === "choice") {
      return (
        <Select
          key={spec.field}
          label={spec.label}
          value={String(value)}
          options={spec.options}
          onChange={(id) => edit(changeAt(part, spec.field, id))}
        />
      );
    }
    const given = part.given?.[spec.field];
    return (
      <QuantityField
        key={spec.field}
        label={spec.label}
        dimension={spec.dimension}
        unit={unitOf(spec.unit)}
        value={value as number | undefined}
        basis={given?.basis ?? "assumed"}
        entered={given?.entered}
        check={spec.least ? checks[spec.least] : undefined}
        onCommit={(si, entered) =>
          edit({
            ...changeAt(part, spec.field, si),
            given: { ...part.given, [spec.field]: { entered, basis: spec.basis } },
          })
        }
      />
    );
  });
}

function PartFields({ part, edit }: { part: Part; edit: (change: object) => void }) {
  const { units } = useJob().job;
  const hasCircuit = "circuit" in part && part.circuit !== undefined;
  const canHaveCircuit = isPowered(part) || isConsumer(part) || part.kind === "fuelHeater";
  return (
    <>
      {isPushing(part) && <CurveFields pump={part} edit={edit} />}
      {isConsumer(part) && <LoadFields engine={part} edit={edit} />}
      <Group className="two">
        <FieldList part={part} specs={partFields[part.kind]} edit={edit} />
        {isFiltering(part) && <LoadingNow filter={part} />}
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
      </Group>
      {isPushing(part) && <OffField pump={part} edit={edit} />}
      {!isConsumer(part) && <Provenance part={part} edit={edit} />}
      {part.kind === "heater" && (
        <details>
          <summary>How it stands</summary>
          {part.heater && (
            <Group className="two">
              <FieldList part={part} specs={heaterFields} edit={edit} />
            </Group>
          )}
        </details>
      )}
      {canHaveCircuit && (
        <details>
          <summary>Its circuit</summary>
          {hasCircuit ? (
            <Group className="two">
              <FieldList part={part} specs={circuitFields} edit={edit} />
            </Group>
          ) : (
            <Button onPress={() => edit({ circuit: genericCircuit() })}>Write its circuit down</Button>
          )}
        </details>
      )}
    </>
  );
}

const flowBases = [
  { id: "arrow", name: "its arrow" },
  { id: "maker", name: "its maker" },
  { id: "outerSide", name: "inlet to the element's outer side" },
  { id: "guess", name: "a guess" },
] as const;

/** How it is known which way it flows, and whether it stands for good. */
function Provenance({ part, edit }: { part: PlanPart; edit: (change: object) => void }) {
  return (
    <Group>
      {hasArrow(part) && (
        <Select
          label="Which way it flows is known by"
          value={part.flowBasis ?? "arrow"}
          options={[...flowBases]}
          onChange={(flowBasis) => edit({ flowBasis })}
        />
      )}
      <Switch isOn={part.provisional ?? false} onChange={(provisional) => edit({ provisional })}>
        Provisional
      </Switch>
      <Switch
        isOn={part.shopMade !== undefined}
        onChange={(on) => edit({ shopMade: on ? { tested: false } : undefined })}
      >
        Made in the shop
      </Switch>
      {part.shopMade && (
        <Switch isOn={part.shopMade.tested} onChange={(tested) => edit({ shopMade: { tested } })}>
          Proof tested
        </Switch>
      )}
    </Group>
  );
}

const offKinds = [
  { id: "free", name: "lets fuel through" },
  { id: "blocked", name: "shuts" },
  { id: "bypass", name: "goes round by a bypass" },
] as const;

function OffField({ pump, edit }: { pump: Pushing; edit: (change: object) => void }) {
  const dropPa = pump.off.kind === "blocked" ? 4000 : pump.off.dropPa;
  return (
    <Group>
      <Select
        label="Unpowered it"
        value={pump.off.kind}
        options={[...offKinds]}
        onChange={(kind) =>
          edit({
            off:
              kind === "blocked"
                ? { kind }
                : kind === "free"
                  ? { kind, dropPa }
                  : { kind, dropPa, opensPa: 700 },
          })
        }
      />
    </Group>
  );
}

function LoadingNow({ filter }: { filter: Filtering }) {
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

function CurveFields({ pump, edit }: { pump: Pushing; edit: (change: object) => void }) {
  const { job } = useJob();
  const { units } = job;
  const given = { ...pump.given, curve: { ...pump.given?.curve, basis: "maker" as const } };
  const setPoint = (i: number, point: Partial<Pushing["curve"][number]>) =>
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
    </>
  );
}

function LoadFields({ engine, edit }: { engine: Engine; edit: (change: object) => void }) {
  const { job } = useJob();
  const { units } = job;
  const setLoad = (i: number, change: Partial<Engine["loads"][number]>) =>
    edit({
      loads: engine.loads.map((one, k) => (k === i ? { ...one, ...change } : one)),
      given: { ...engine.given, loads: { basis: "maker" } },
    });
  /** Idle takes a twentieth of full power to turn the engine over. Common practice, no source. */
  const typicalBurn = (load: number) => burnM3S(Math.max(0.05, load) * engine.powerW, job.fuel.density15KgM3);
  const basis = engine.given?.loads?.basis ?? "assumed";
  return (
    <>
      {engine.loads.map((load, i) => (
        <Group className="two" key={i}>
          {engine.kind !== "heater" && (
            <QuantityField
              label={`Feed at ${Math.round(load.load * 100)} % load`}
              dimension="flow"
              unit={units.flow}
              value={load.feedM3S}
              onCommit={(feedM3S) => setLoad(i, { feedM3S })}
              basis={basis}
            />
          )}
          <QuantityField
            label={engine.kind === "heater" ? `Burn at ${Math.round(load.load * 100)} %` : "Burn"}
            dimension="flow"
            unit={units.flow}
            value={load.burnM3S}
            onCommit={(burnM3S) => setLoad(i, { burnM3S })}
            basis={basis}
          />
        </Group>
      ))}
      {engine.kind !== "heater" && (
        <Buttons>
          <Button
            onPress={() =>
              edit({
                loads: engine.loads.map((one) => ({
                  ...one,
                  burnM3S: Math.min(one.feedM3S, typicalBurn(one.load)),
                })),
                given: { ...engine.given, loads: { basis: "assumed" } },
              })
            }
          >
            Burn from its {formatQuantity("power", engine.powerW, "kW")}, typical
          </Button>
        </Buttons>
      )}
    </>
  );
}

function PartActions({ part }: { part: PlanPart }) {
  const { dispatch, select } = useJob();
  return (
    <Group>
      <Select
        label="Replace by"
        value={null}
        options={newPartKinds.filter(({ id }) => id !== part.kind)}
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
