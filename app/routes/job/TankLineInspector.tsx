/** A chosen fill, vent or drain line: its hose, its bends, and how it falls. */
import type { Change } from "~/core/edit/merge";
import type { TankLine } from "~/core/plan/types";
import { tankLineFigures } from "~/core/tanks/tankLine";
import { tradeIn } from "~/core/units/trade";
import { positive } from "~/fields/checks";
import { LookField } from "~/fields/LookField";
import { Buttons, Group, Lines, useFields } from "~/fields/layout";
import { QuantityField } from "~/fields/QuantityField";
import { nameOf } from "~/messages/notes";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Switch, TextField } from "~/ui/fields";
import { HoseFields } from "./HoseFields";
import { Neighbours } from "./Neighbours";

export function TankLineInspector({ line }: { line: TankLine }) {
  const { job, plan, dispatch, select } = useJob();
  const { units } = job;
  const { length, volume } = tradeIn(units);
  const edit = (change: Change<Omit<TankLine, "id" | "tank" | "use">>) =>
    void dispatch({ name: "editTankLine", id: line.id, change });
  const { product, given } = line;
  const figures = tankLineFigures(line, plan.conditions.trim);
  const field = useFields(line as TankLine & { [key: string]: unknown }, (change) =>
    edit(change as Change<TankLine>),
  );
  /** A figure of its hose, from the maker's sheet. */
  const ofHose = (key: "outerDiameterM" | "leastRadiusM", label: string) => (
    <QuantityField
      label={label}
      dimension="length"
      unit={units.bore}
      value={product[key]}
      basis={given?.[key]?.basis ?? "assumed"}
      entered={given?.[key]?.entered}
      check={positive}
      onCommit={(si, entered) =>
        edit({ product: { ...product, [key]: si }, given: { ...given, [key]: { entered, basis: "maker" } } })
      }
    />
  );
  const end = (at: number, axis: "xM" | "yM" | "zM", label: string) => (
    <QuantityField
      key={axis}
      label={label}
      dimension="length"
      unit={units.length}
      value={line.points[at]?.[axis] ?? 0}
      basis={given?.points?.basis ?? "assumed"}
      onCommit={(m) =>
        edit({
          points: line.points.map((point, k) => (k === at ? { ...point, [axis]: m } : point)),
          given: { ...given, points: { basis: "measured" } },
        })
      }
    />
  );
  const axes = [
    ["xM", "forward"],
    ["yM", job.kind === "boat" ? "to port" : "to the left"],
    ["zM", "up"],
  ] as const;
  return (
    <section aria-label="Chosen tank line">
      <h2>{nameOf(job, line.id)}</h2>
      <Lines>
        <dt>Length</dt>
        <dd>{length(figures.lengthM)}</dd>
        <dt>Rises from the tank by</dt>
        <dd>{length(figures.riseM)}</dd>
        <dt>Its sags hold</dt>
        <dd>{figures.heldM3 > 0 ? volume(figures.heldM3) : "nothing"}</dd>
      </Lines>
      <Group className="two">
        {field("boreM", { label: "Bore", dimension: "length", unit: units.bore, check: positive })}
        {field("radiusM", {
          label: "Bend radius, centre line",
          dimension: "length",
          unit: units.bore,
          check: positive,
        })}
        <TextField
          label="Marking"
          value={product.marking}
          onCommit={(marking) => edit({ product: { ...product, marking } })}
        />
        {ofHose("outerDiameterM", "Outside")}
        {ofHose("leastRadiusM", "Least bend, inside, by its sheet")}
        <HoseFields hose={line} edit={edit} />
        <Switch
          isOn={line.make === "rigid"}
          onChange={(isRigid) => edit({ make: isRigid ? "rigid" : "hose" })}
        >
          Rigid tube
        </Switch>
      </Group>
      <Group className="two">{axes.map(([axis, name]) => end(0, axis, `At the tank: ${name}`))}</Group>
      <Group className="two">
        {axes.map(([axis, name]) => end(line.points.length - 1, axis, `Outer end: ${name}`))}
      </Group>
      {line.use === "fill" && line.make !== "rigid" && (
        <LookField
          label="Two clamps at each end"
          value={line.isDoubleClamped}
          onChange={(isDoubleClamped) => edit({ isDoubleClamped })}
        />
      )}
      <Neighbours near={line.neighbours} keep={(neighbours) => edit({ neighbours })} />
      <Buttons>
        <Button
          onPress={() => {
            void dispatch({ name: "removeTankLine", id: line.id });
            select(line.tank);
          }}
        >
          Take the line off
        </Button>
      </Buttons>
    </section>
  );
}
