import { useState } from "react";
import { newId } from "~/core/kinds/ids";
import { placedPorts, portKey, samePort } from "~/core/plan/ports";
import type { PortRef } from "~/core/plan/types";
import { Buttons, Group } from "~/fields/layout";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, Switch } from "~/ui/fields";

/** Ports and what is on them; an open one can be joined to another. */
export function Connections({ owner }: { owner: { id: string; ports: { id: string; name: string }[] } }) {
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
