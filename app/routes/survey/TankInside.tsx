import { newId } from "~/core/kinds/ids";
import type { Tank } from "~/core/plan/types";
import { boundsOf } from "~/core/tanks/shape";
import { notNegative, positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, Switch, TextField } from "~/ui/fields";
import { BoreField, Fields, LengthField, Lengths, Panel, Small, useEditTank } from "./tankContext";

/** Baffles, a well, a sump, and boxes that take room. */
export function TankInside({ tank }: { tank: Tank }) {
  const edit = useEditTank(tank);
  const { job } = useJob();
  const { x, y, z } = boundsOf(tank.shape);
  const middle = (range: [number, number]) => (range[0] + range[1]) / 2;
  const outlet = tank.ports.find(({ role }) => role === "outlet")?.mouth ?? {
    xM: middle(x),
    yM: middle(y),
    zM: z[0],
  };
  const { baffles = [], internals = [], well, sump } = tank;
  return (
    <Panel>
      <h3>Inside</h3>
      <h4>Baffles</h4>
      {baffles.map((baffle, i) => (
        <Fields key={baffle.id}>
          <Select
            label={`Baffle ${i + 1}`}
            value={baffle.across}
            options={[
              { id: "x", name: "stands across" },
              { id: "y", name: "runs fore and aft" },
            ]}
            onChange={(across) =>
              void edit({ baffles: baffles.map((one) => (one.id === baffle.id ? { ...one, across } : one)) })
            }
          />
          <LengthField
            label="at"
            value={baffle.atM}
            onCommit={(atM) =>
              void edit({ baffles: baffles.map((one) => (one.id === baffle.id ? { ...one, atM } : one)) })
            }
          />
          <Button onPress={() => void edit({ baffles: baffles.filter(({ id }) => id !== baffle.id) })}>
            Take out
          </Button>
        </Fields>
      ))}
      <Button
        onPress={() => void edit({ baffles: [...baffles, { id: newId(), across: "x", atM: middle(x) }] })}
      >
        Add a baffle
      </Button>
      <h4>What takes room</h4>
      {internals.map((box) => {
        const set = (change: Partial<typeof box>) =>
          void edit({ internals: internals.map((one) => (one.id === box.id ? { ...one, ...change } : one)) });
        const size = (label: string, axis: "xM" | "yM" | "zM") => (
          <LengthField
            label={label}
            value={box.high[axis] - box.low[axis]}
            check={positive}
            onCommit={(si) => set({ high: { ...box.high, [axis]: box.low[axis] + si } })}
          />
        );
        return (
          <Fields key={box.id}>
            <TextField label="What" value={box.name} onCommit={(name) => set({ name })} />
            {size("long", "xM")}
            {size("wide", "yM")}
            {size("high", "zM")}
            <Button onPress={() => void edit({ internals: internals.filter(({ id }) => id !== box.id) })}>
              Take out
            </Button>
          </Fields>
        );
      })}
      <Button
        onPress={() =>
          void edit({
            internals: [
              ...internals,
              {
                id: newId(),
                name: "Box",
                low: { xM: middle(x) - 0.04, yM: middle(y) - 0.04, zM: z[0] },
                high: { xM: middle(x) + 0.04, yM: middle(y) + 0.04, zM: z[0] + 0.08 },
              },
            ],
          })
        }
      >
        Add what takes room
      </Button>
      <h4>Sump and well</h4>
      <Switch
        isOn={sump !== undefined}
        onChange={(on) =>
          void edit({
            sump: on ? { xM: outlet.xM, yM: outlet.yM, diameterM: 0.1, depthM: 0.08, holeM: 0.1 } : undefined,
          })
        }
      >
        A sump hangs under the floor
      </Switch>
      {sump && (
        <>
          <Fields>
            <Lengths
              of={sump}
              set={(change) => void edit({ sump: { ...sump, ...change } })}
              fields={[
                { key: "diameterM", label: "Sump: bore", check: positive },
                { key: "depthM", label: "Hangs below the floor", check: positive },
                { key: "holeM", label: "Hole to cut", check: positive },
                { key: "mostHoleM", label: "Flange covers at most", check: positive },
              ]}
            />
            {job.kind === "truck" && (
              <LengthField
                label="Floor over ground"
                value={sump.floorOverGroundM}
                check={notNegative}
                onCommit={(floorOverGroundM) => void edit({ sump: { ...sump, floorOverGroundM } })}
              />
            )}
          </Fields>
          <Small>
            Drilling a tank: emptied, ventilated, no spark; catch the swarf, count every piece out. Never a
            tank that held petrol without a licensed cleaner.
          </Small>
        </>
      )}
      <Switch
        isOn={well !== undefined}
        onChange={(on) =>
          void edit({
            well: on
              ? {
                  low: {
                    xM: Math.max(x[0], outlet.xM - 0.06),
                    yM: Math.max(y[0], outlet.yM - 0.06),
                    zM: z[0],
                  },
                  high: {
                    xM: Math.min(x[1], outlet.xM + 0.06),
                    yM: Math.min(y[1], outlet.yM + 0.06),
                    zM: z[0] + 0.12,
                  },
                  holeBoreM: 0.008,
                  holes: 2,
                }
              : undefined,
          })
        }
      >
        A well stands round the pickup
      </Switch>
      {well && (
        <Fields>
          <LengthField
            label="Well: high"
            value={well.high.zM - well.low.zM}
            check={positive}
            onCommit={(si) => void edit({ well: { ...well, high: { ...well.high, zM: well.low.zM + si } } })}
          />
          <BoreField
            label="Drain holes: bore"
            value={well.holeBoreM}
            onCommit={(holeBoreM) => void edit({ well: { ...well, holeBoreM } })}
          />
          <QuantityField
            label="Drain holes: count"
            dimension="ratio"
            unit=""
            value={well.holes}
            onCommit={(holes) => void edit({ well: { ...well, holes: Math.round(holes) } })}
          />
        </Fields>
      )}
    </Panel>
  );
}
