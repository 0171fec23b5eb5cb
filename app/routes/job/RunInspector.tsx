import { useState } from "react";
import type { Change } from "~/core/edit/merge";
import { figuresOf } from "~/core/hydraulics/derive";
import { placedPorts, portKey } from "~/core/plan/ports";
import { runGeometry } from "~/core/plan/route";
import type { Run } from "~/core/plan/types";
import { tradeIn, vacuumUnit } from "~/core/units/trade";
import { positive } from "~/fields/checks";
import { Figure } from "~/fields/Figure";
import { Buttons, Group, Lines, useFields } from "~/fields/layout";
import { QuantityField } from "~/fields/QuantityField";
import { explainRun } from "~/messages/explain";
import { useJob, useSettled } from "~/state/job";
import { Button } from "~/ui/button";
import { Quantity, Switch, TextField } from "~/ui/fields";
import { Fold } from "~/ui/fold";
import { AddPart } from "./AddPart";
import { HoseFields } from "./HoseFields";
import { Neighbours } from "./Neighbours";

export function RunInspector({ run }: { run: Run }) {
  const { job, plan, dispatch, select } = useJob();
  const { verdict } = useSettled();
  const { units } = job;
  const [letsIn, setLetsIn] = useState(false);
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
  const edit = (change: Change<Omit<Run, "id" | "from" | "to">>) =>
    void dispatch({ name: "editRun", id: run.id, change });
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
                <Quantity dimension="pressure" si={leg.lossPa} unit={vacuumUnit(units)} />
              </Figure>
            </dd>
          </>
        )}
        <dt>Rise</dt>
        <dd>
          <Quantity dimension="length" si={geometry.riseM} unit={units.length} />
        </dd>
      </Lines>
      <Group>
        <Buttons>
          <Button $main onPress={() => setLetsIn(true)}>
            Let in a part
          </Button>
          <Button
            onPress={() => {
              void dispatch({ name: "disconnect", id: run.id });
              select(null);
            }}
          >
            Delete the hose
          </Button>
        </Buttons>
        <AddPart spot={{ kind: "hose", runId: run.id }} isOpen={letsIn} onOpenChange={setLetsIn} />
      </Group>
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
              : `Its ports are ${tradeIn(units).length(geometry.straightM)} apart.`
          }
        />
      </Group>
      <Fold id="hose" title="Its hose, bends and neighbours">
        <Group className="two">
          {run.route.kind === "traced" && (
            <QuantityField
              label="Bend radius, centre line"
              dimension="length"
              unit={units.bore}
              value={run.route.radiusM}
              check={positive}
              onCommit={(radiusM) =>
                run.route.kind === "traced" && edit({ route: { ...run.route, radiusM } })
              }
            />
          )}
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
        <Group className="two">
          <HoseFields hose={run} edit={edit} />
          <QuantityField
            label="Kept for a part to come"
            dimension="length"
            unit={units.length}
            value={run.slack?.lengthM}
            check={positive}
            onCommit={(lengthM) => edit({ slack: { name: run.slack?.name ?? "a part to come", lengthM } })}
          />
          {run.slack && (
            <TextField
              label="Which part"
              value={run.slack.name}
              onCommit={(name) => run.slack && edit({ slack: { ...run.slack, name } })}
            />
          )}
          <Switch isOn={run.provisional ?? false} onChange={(provisional) => edit({ provisional })}>
            Provisional
          </Switch>
        </Group>
        <Neighbours near={run.neighbours} keep={(neighbours) => edit({ neighbours })} />
      </Fold>
    </section>
  );
}
