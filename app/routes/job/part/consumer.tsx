import { burnsAll } from "~/core/kinds/consumer";
import type { Engine } from "~/core/kinds/index";
import { typicalBurnM3S } from "~/core/laws/burn";
import { formatQuantity } from "~/core/units/format";
import { Buttons, Group } from "~/fields/layout";
import { QuantityField } from "~/fields/QuantityField";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";

/** What it is fed and burns, by load. */
export function LoadFields({ engine, edit }: { engine: Engine; edit: (change: object) => void }) {
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
          {!burnsAll(engine) && (
            <QuantityField
              label={`Feed at ${Math.round(load.load * 100)} % load`}
              dimension="flow"
              unit={units.flow}
              value={load.feedM3S}
              onCommit={(feedM3S) => setLoad(i, { feedM3S, burnM3S: Math.min(load.burnM3S, feedM3S) })}
              basis={basis}
            />
          )}
          <QuantityField
            label={burnsAll(engine) ? `Burn at ${Math.round(load.load * 100)} %` : "Burn"}
            dimension="flow"
            unit={units.flow}
            value={load.burnM3S}
            onCommit={(burnM3S) => setLoad(i, { burnM3S, feedM3S: Math.max(load.feedM3S, burnM3S) })}
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
                  burnM3S: Math.min(
                    one.feedM3S,
                    typicalBurnM3S(one.load, engine.powerW, job.fuel.density15KgM3),
                  ),
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
