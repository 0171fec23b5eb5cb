/** What a run passes: hot, moving or sharp things, by where along it and how near. */

import { leastApartM } from "~/core/findings/hoses/nearDanger";
import { newId } from "~/core/kinds/ids";
import type { Neighbour } from "~/core/plan/types";
import { tradeIn } from "~/core/units/trade";
import { notNegative } from "~/fields/checks";
import { Buttons, Group } from "~/fields/layout";
import { QuantityField } from "~/fields/QuantityField";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, Switch, TextField } from "~/ui/fields";

const kinds: { id: Neighbour["kind"]; name: string }[] = [
  { id: "hot", name: "hot" },
  { id: "moving", name: "moving" },
  { id: "sharp", name: "sharp edge" },
  { id: "line", name: "another line" },
  { id: "battery", name: "battery" },
];

export function Neighbours({
  near = [],
  keep,
}: {
  near: readonly Neighbour[] | undefined;
  keep(neighbours: Neighbour[]): void;
}) {
  const { job } = useJob();
  const { units } = job;
  const edit = (id: string, change: Partial<Neighbour>) =>
    keep(near.map((one) => (one.id === id ? { ...one, ...change } : one)));
  return (
    <details open={near.length > 0}>
      <summary>What it passes, {near.length}</summary>
      {near.map((one) => (
        <Group className="two" key={one.id}>
          <TextField label="What" value={one.name} onCommit={(name) => edit(one.id, { name })} />
          <Select
            label="It is"
            value={one.kind}
            options={kinds}
            onChange={(kind) => edit(one.id, { kind })}
          />
          <QuantityField
            label="From the start"
            dimension="length"
            unit={units.length}
            value={one.atM}
            check={notNegative}
            onCommit={(atM) => edit(one.id, { atM })}
          />
          <QuantityField
            label={`Apart, ${tradeIn(units).length(leastApartM[one.kind])} at least`}
            dimension="length"
            unit={units.length}
            value={one.apartM}
            check={notNegative}
            onCommit={(apartM) => edit(one.id, { apartM })}
          />
          <Switch isOn={one.guarded} onChange={(guarded) => edit(one.id, { guarded })}>
            Shield, tie or grommet
          </Switch>
          <Button $quiet onPress={() => keep(near.filter(({ id }) => id !== one.id))}>
            Take it out
          </Button>
        </Group>
      ))}
      <Buttons>
        <Button
          onPress={() =>
            keep([
              ...near,
              { id: newId(), kind: "hot", name: "exhaust", atM: 0, apartM: 0.15, guarded: false },
            ])
          }
        >
          Add what it passes
        </Button>
      </Buttons>
    </details>
  );
}
