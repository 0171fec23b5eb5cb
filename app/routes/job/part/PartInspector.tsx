/** A part that is chosen: its figures, how it stands in the line-up, and the fields of its kind. */

import { figuresAt } from "~/core/hydraulics/derive";
import { potHolds } from "~/core/hydraulics/pot";
import type { Station } from "~/core/hydraulics/route";
import type { SolvedLineUp } from "~/core/hydraulics/solve";
import {
  isConsumer,
  isFiltering,
  isPlainThrough,
  isPowered,
  isPushing,
  isValve,
} from "~/core/kinds/families";
import { bore } from "~/core/kinds/fields";
import { newId } from "~/core/kinds/ids";
import type { Part } from "~/core/kinds/index";
import type { Plug } from "~/core/kinds/record";
import type { SwirlPot } from "~/core/kinds/swirlPot";
import { assumedFigures } from "~/core/plan/assumed";
import { portsNamed, portsOf } from "~/core/plan/ports";
import { formatNumber, type UnitChoice } from "~/core/units/format";
import { gaugeUnit, tradeIn, vacuumUnit } from "~/core/units/trade";
import { within } from "~/fields/checks";
import { Figure } from "~/fields/Figure";
import { Before, Buttons, Group, Lines } from "~/fields/layout";
import { PartFields, PartGroups } from "~/fields/PartFields";
import { QuantityField } from "~/fields/QuantityField";
import { explainFilter, explainFreeAir, explainPump } from "~/messages/explain";
import { partKindName } from "~/messages/kinds";
import { type Explored, useJob, useSettled, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Quantity, Switch, TextField } from "~/ui/fields";
import { Fold } from "~/ui/fold";
import { Connections } from "../Connections";
import { PortNames } from "../PortNames";
import { ValveSettings } from "../ValveSettings";
import { LoadFields } from "./consumer";
import { LoadingNow } from "./filter";
import { CurveFields, OffField } from "./pump";
import { PartActions, Provenance } from "./standing";

export function PartInspector({ part }: { part: Part }) {
  const open = useJob();
  const { job, plan, dispatch, select, lineUp } = open;
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
      <p style={{ color: "var(--soft)", margin: 0 }}>{partKindName(part.kind)}</p>
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
            <dt>Share of the vacuum</dt>
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
                  unit={gaugeUnit(units, station.beforePa)}
                />
              </Figure>
            </dd>
          </>
        )}
      </Lines>
      {solved && part.kind === "swirlPot" && <PotLine pot={part} solved={solved} />}
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
      <Connections owner={{ id: part.id, ports: portsOf(part).map(({ id, name }) => ({ id, name })) }} />
      <Group>
        <TextField label="Name" name="name" value={part.name} onCommit={(name) => edit({ name })} />
      </Group>
      <PortNames ports={portsOf(part)} onName={(id, said) => edit({ ports: portsNamed(part, id, said) })} />
      <Fold
        id="figures"
        title={figuresTitle(assumedFigures(job, plan).filter(({ id }) => id === part.id).length)}
      >
        {!isConsumer(part) && (
          <Group>
            <TextField
              label="Maker's sheet: which, and where it is kept"
              value={part.sheet ?? ""}
              onCommit={(sheet) => edit({ sheet: sheet || undefined })}
            />
            {(isFiltering(part) || isPowered(part)) && (
              <TextField
                label="Plugs of it, such as sensor, heater"
                value={(part.plugs ?? []).map(({ name }) => name).join(", ")}
                onCommit={(text) => edit({ plugs: namedPlugs(part.plugs ?? [], text) })}
              />
            )}
          </Group>
        )}
        {isPushing(part) && <CurveFields pump={part} edit={edit} />}
        {isConsumer(part) && <LoadFields engine={part} edit={edit} />}
        <PartFields part={part} edit={edit}>
          {!isConsumer(part) && <BoreField part={part} edit={edit} />}
          {isFiltering(part) && <LoadingNow filter={part} />}
          <HeightField part={part} edit={edit} />
        </PartFields>
        {isPushing(part) && <OffField pump={part} edit={edit} />}
        {!isConsumer(part) && <Provenance part={part} edit={edit} />}
        <PartGroups part={part} edit={edit} />
      </Fold>
      <Before id={part.id} name={part.name} />
      {isConsumer(part) ? (
        <Buttons>
          <Button
            onPress={() => {
              void dispatch({ name: "removeEngine", id: part.id });
              select(null);
            }}
          >
            Delete the {partKindName(part.kind)} from the plan
          </Button>
        </Buttons>
      ) : (
        <PartActions part={part} />
      )}
    </section>
  );
}

/** What is folded says how much of it nobody has measured. */
const figuresTitle = (assumed: number) =>
  assumed === 0 ? "Its figures, all known" : `Its figures, ${assumed} assumed`;

/** Plugs by the names typed for them; one that keeps its name stays the same plug. */
function namedPlugs(plugs: readonly Plug[], text: string): Plug[] | undefined {
  const names = [...new Set(text.split(",").map((name) => name.trim()))].filter((name) => name !== "");
  if (names.length === 0) return undefined;
  return names.map((name) => plugs.find((plug) => plug.name === name) ?? { id: newId(), name });
}

/** How long a pot carries on when nothing fills it. */
function PotLine({ pot, solved }: { pot: SwirlPot; solved: SolvedLineUp }) {
  const { flow, pan } = useTrade();
  const { drawnM3S, backM3S, seconds } = potHolds(solved, pot);
  if (drawnM3S === 0) return null;
  return (
    <p style={{ margin: "6px 0", fontSize: 14 }}>
      {seconds === null ? (
        <>As much comes back to it as is drawn: it stays full though its filling fails.</>
      ) : (
        <>
          From full it feeds on for <b>{formatNumber(seconds / 60, 2)} min</b> once its filling fails (
          {pan(pot.volumeM3)}, {flow(drawnM3S)} drawn, {flow(backM3S)} back); then air is drawn.
        </>
      )}
    </p>
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
  const isPump = station.kind === "pump";
  const si = isPump ? station.afterPa - station.beforePa : station.lossPa;
  const unit = isPump ? gaugeUnit(units, si) : vacuumUnit(units);
  const shown = <Quantity dimension="pressure" si={si} unit={unit} />;
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
      <Figure label="Pressure added" explain={() => explainPump(part, units)}>
        {shown}
      </Figure>
    );
  }
  return shown;
}

interface OfPart {
  part: Part;
  edit: (change: object) => void;
}

function BoreField({ part, edit }: OfPart) {
  const { units } = useJob().job;
  const given = part.given?.boreM;
  return (
    <QuantityField
      label="Bore"
      dimension="length"
      unit={units.bore}
      value={part.boreM}
      basis={given?.basis ?? "assumed"}
      entered={given?.entered}
      check={within(bore, (si) => tradeIn(units).bore(si))}
      onCommit={(boreM, entered) =>
        edit({ boreM, given: { ...part.given, boreM: { entered, basis: "measured" } } })
      }
    />
  );
}

function HeightField({ part, edit }: OfPart) {
  const { units } = useJob().job;
  return (
    <QuantityField
      label="Height above the zero level"
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
}
