/** A chosen fill, vent or drain line: its hose, its bends, and how it falls. */
import type { Change } from "~/core/edit/merge";
import type { TankLine } from "~/core/plan/types";
import { lineHeights, pocketsOf, tankLineLengthM } from "~/core/tanks/tankLine";
import { tradeIn } from "~/core/units/trade";
import { positive } from "~/fields/checks";
import { LookField } from "~/fields/LookField";
import { Buttons, Group, Lines } from "~/fields/layout";
import { QuantityField } from "~/fields/QuantityField";
import { bandColours } from "~/messages/fit";
import { nameOf } from "~/messages/notes";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, Switch, TextField } from "~/ui/fields";
import { Neighbours } from "./Neighbours";

const axes = [
  ["xM", "forward"],
  ["yM", "to port"],
  ["zM", "up"],
] as const;

export function TankLineInspector({ line }: { line: TankLine }) {
  const { job, plan, dispatch, select } = useJob();
  const { units } = job;
  const { length, volume } = tradeIn(units);
  const edit = (change: Change<Omit<TankLine, "id" | "tank" | "use">>) =>
    void dispatch({ name: "editTankLine", id: line.id, change });
  const { product } = line;
  const heights = lineHeights(line.points, plan.conditions.trim);
  const heldM3 = pocketsOf(line.points, heights, line.boreM).reduce((sum, { volumeM3 }) => sum + volumeM3, 0);
  return (
    <section aria-label="Chosen tank line">
      <h2>{nameOf(job, line.id)}</h2>
      <Lines>
        <dt>Length</dt>
        <dd>{length(tankLineLengthM(line))}</dd>
        <dt>Rises from the tank by</dt>
        <dd>{length((heights.at(-1) ?? 0) - (heights[0] ?? 0))}</dd>
        <dt>Its sags hold</dt>
        <dd>{heldM3 > 0 ? volume(heldM3) : "nothing"}</dd>
      </Lines>
      <Group className="two">
        <QuantityField
          label="Bore"
          dimension="length"
          unit={units.bore}
          value={line.boreM}
          check={positive}
          onCommit={(boreM) => edit({ boreM })}
        />
        <QuantityField
          label="Bend radius, centre line"
          dimension="length"
          unit={units.bore}
          value={line.radiusM}
          check={positive}
          onCommit={(radiusM) => edit({ radiusM })}
        />
        <TextField
          label="Marking"
          value={product.marking}
          onCommit={(marking) => edit({ product: { ...product, marking } })}
        />
        <QuantityField
          label="Outside"
          dimension="length"
          unit={units.bore}
          value={product.outerDiameterM}
          check={positive}
          onCommit={(outerDiameterM) => edit({ product: { ...product, outerDiameterM } })}
        />
        <QuantityField
          label="Least bend, inside, by its sheet"
          dimension="length"
          unit={units.bore}
          value={product.leastRadiusM}
          check={positive}
          onCommit={(leastRadiusM) => edit({ product: { ...product, leastRadiusM } })}
        />
        <QuantityField
          label="Clipped every"
          dimension="length"
          unit={units.length}
          value={line.supportEveryM}
          check={positive}
          onCommit={(supportEveryM) => edit({ supportEveryM })}
        />
        <TextField label="Label on it" value={line.mark ?? ""} onCommit={(mark) => edit({ mark })} />
        <Select
          label="Colour of its band"
          value={line.colour ?? "none"}
          options={bandColours}
          onChange={(colour) => edit({ colour: colour === "none" ? undefined : colour })}
        />
        <Switch
          isOn={line.make === "rigid"}
          onChange={(isRigid) => edit({ make: isRigid ? "rigid" : "hose" })}
        >
          Rigid tube
        </Switch>
      </Group>
      {[0, line.points.length - 1].map((at, i) => (
        <Group className="two" key={i === 0 ? "tank" : "outer"}>
          {axes.map(([axis, name]) => (
            <QuantityField
              key={axis}
              label={`${i === 0 ? "At the tank" : "Outer end"}: ${name}`}
              dimension="length"
              unit={units.length}
              value={line.points[at]?.[axis] ?? 0}
              onCommit={(m) =>
                edit({ points: line.points.map((point, k) => (k === at ? { ...point, [axis]: m } : point)) })
              }
            />
          ))}
        </Group>
      ))}
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
