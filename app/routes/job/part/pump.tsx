/** A pump's curve, and what it does unpowered. */

import { inFallingOrder, inOrder } from "~/core/edit/inOrder";
import type { Pushing } from "~/core/kinds/families";
import { offOf } from "~/core/kinds/pumping";
import { withPoint } from "~/core/laws/pumpCurve";
import { gaugeUnit } from "~/core/units/trade";
import { Buttons, Group } from "~/fields/layout";
import { QuantityField } from "~/fields/QuantityField";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select } from "~/ui/fields";

const offKinds = [
  { id: "free", name: "lets fuel through" },
  { id: "blocked", name: "shuts" },
  { id: "bypass", name: "goes round by a bypass" },
] as const;

export function OffField({ pump, edit }: { pump: Pushing; edit: (change: object) => void }) {
  return (
    <Group>
      <Select
        label="Unpowered it"
        value={pump.off.kind}
        options={[...offKinds]}
        onChange={(kind) => edit({ off: offOf(kind, pump.off) })}
      />
    </Group>
  );
}

export function CurveFields({ pump, edit }: { pump: Pushing; edit: (change: object) => void }) {
  const { job } = useJob();
  const { units } = job;
  const setCurve = (flows: readonly number[], rises: readonly number[]) =>
    edit({
      curve: flows.map((flowM3S, k) => ({ flowM3S, risePa: rises[k] ?? 0 })),
      given: { ...pump.given, curve: { ...pump.given?.curve, basis: "maker" } },
    });
  const flows = pump.curve.map(({ flowM3S }) => flowM3S);
  const rises = pump.curve.map(({ risePa }) => risePa);
  return (
    <>
      <h3>Pressure at each flow</h3>
      {pump.curve.map((point, i) => (
        <Group className="two" key={i}>
          <QuantityField
            label={`Flow ${i + 1}`}
            dimension="flow"
            unit={units.flow}
            value={point.flowM3S}
            onCommit={(flowM3S) => setCurve(inOrder(flows, i, flowM3S, 0), rises)}
            basis={pump.given?.curve?.basis ?? "assumed"}
          />
          <QuantityField
            label={`Pressure ${i + 1}`}
            dimension="pressure"
            unit={gaugeUnit(units, 1)}
            value={point.risePa}
            onCommit={(risePa) => setCurve(flows, inFallingOrder(rises, i, risePa))}
            basis={pump.given?.curve?.basis ?? "assumed"}
          />
        </Group>
      ))}
      <Buttons>
        <Button onPress={() => edit({ curve: withPoint(pump.curve) })}>Add a point</Button>
        {pump.curve.length > 2 && (
          <Button onPress={() => edit({ curve: pump.curve.slice(0, -1) })}>Drop the last</Button>
        )}
      </Buttons>
    </>
  );
}
