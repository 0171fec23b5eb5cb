import { useState } from "react";
import { newId } from "~/core/kinds/ids";
import { freePorts, type Joinable, joinables } from "~/core/plan/joining";
import { placedPorts, portKey, samePort } from "~/core/plan/ports";
import type { PortRef } from "~/core/plan/types";
import { Buttons, Group } from "~/fields/layout";
import { wayNames } from "~/messages/adding";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, Switch } from "~/ui/fields";

/** Offers of a list: hoses that feed apart from those that return, and both from what the port is not for. */
const sectionOf = ({ rank, way }: Joinable): string => (rank === 2 ? "Not what it is for" : wayNames[way]);

/** Ports and what is on them; an open one can be joined to another. */
export function Connections({ owner }: { owner: { id: string; ports: { id: string; name: string }[] } }) {
  const { job, plan, dispatch, select } = useJob();
  const ports = placedPorts(job, plan);
  const [isScrewed, setScrewed] = useState(false);
  const isFree = new Set(freePorts(job, plan).map(({ ref }) => portKey(ref)));
  const hasOpen = owner.ports.some(({ id }) => isFree.has(`${owner.id}.${id}`));
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
            const offers = joinables(job, plan, ref);
            return (
              <Select
                key={id}
                label={`${name}: open, join to`}
                value={null}
                placeholder={offers.length > 0 ? "choose a port" : "no open port elsewhere"}
                options={offers.map((offer) => ({
                  id: portKey(offer.port.ref),
                  name: `${offer.port.ownerName}, ${offer.port.name}`,
                  section: sectionOf(offer),
                }))}
                onChange={(key) => {
                  const to = offers.find(({ port }) => portKey(port.ref) === key)?.port;
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
                aria-label={connection.isRun ? `Delete the hose at ${name}` : `Unscrew at ${name}`}
                onPress={() => void dispatch({ name: "disconnect", id: connection.id })}
              >
                {connection.isRun ? "delete hose" : "unscrew"}
              </Button>
            </Buttons>
          );
        })}
      </Group>
    </div>
  );
}
