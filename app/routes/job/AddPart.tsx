/*
 * Decides: what comes into the plan, and where; or, at a free port, what that is joined to.
 * Seen in three seconds: where it will go, and the list narrowing to what is typed, what is there already first.
 */
import { useState } from "react";
import { adding, fitsSpot, nextAtHand, nextSpot, type Spot, type Thing } from "~/core/edit/adding";
import { newId } from "~/core/kinds/ids";
import { freePorts, joinables } from "~/core/plan/joining";
import { placedPorts, portKey } from "~/core/plan/ports";
import type { PortRef, Tank } from "~/core/plan/types";
import { type Fitting, fittingsFor } from "~/core/tanks/fitting";
import { type Addable, addables, fittingNames, fittingWords, wayNames } from "~/messages/adding";
import { nameOf } from "~/messages/notes";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { Find } from "~/ui/find";
import { focusDrawn } from "./focusDrawn";
import { useFitting } from "./TankPorts";

/** Adds a thing where the hand points, as one step of undo, and chooses it; the focus goes to it unless it stays. */
export function useAdd(): (thing: Thing, spot: Spot, stays?: boolean) => Promise<void> {
  const { job, plan, dispatch, select } = useJob();
  return async (thing, spot, stays = false) => {
    const named: Thing =
      thing.kind === "tank" && thing.name === "" ? { ...thing, name: `Tank ${job.tanks.length + 1}` } : thing;
    const { command, id } = adding(job, plan, named, spot);
    const { ok } = await dispatch(command);
    if (!ok) return;
    select(id);
    if (!stays) focusDrawn(id);
  };
}

interface Props {
  spot: Spot;
  isOpen: boolean;
  onOpenChange: (open: boolean) => void;
  /** May it stay open, and go on at what was just added? */
  goesOn?: boolean;
}

export function AddPart({ spot: wanted, isOpen, onOpenChange, goesOn = false }: Props) {
  const { job, plan, dispatch, select, selectedId } = useJob();
  const add = useAdd();
  const give = useFitting();
  const [isLoose, setLoose] = useState(false);
  /** Times that it stayed open: from the first on it goes on at what is chosen. */
  const [turn, setTurn] = useState(0);
  const spot: Spot = isLoose ? { kind: "loose" } : turn > 0 ? nextSpot(job, plan, selectedId) : wanted;
  const fits = (one: Addable) => fitsSpot(one.thing, spot);
  const from = spot.kind === "port" ? spot.ref : null;
  // What it is not for is joined from its own list of ports, never by the way.
  const joins = from ? joinables(job, plan, from).filter(({ rank }) => rank < 2) : [];
  const join = async (to: PortRef, stays: boolean) => {
    if (!from) return;
    const next = nextAtHand(job, freePorts(job, plan), from, to);
    const { ok } = await dispatch({ name: "connect", id: newId(), from, to });
    if (!ok) return;
    select(next);
    if (!stays) focusDrawn(next);
  };
  const where = () => {
    if (spot.kind === "hose") return `Let into ${nameOf(job, spot.runId)}`;
    if (spot.kind === "loose") return "Add a part, loose until it is joined";
    const port = placedPorts(job, plan).get(portKey(spot.ref));
    return `Add at ${port?.ownerName ?? ""}, ${port?.name ?? ""}`;
  };
  const giveFitting = (to: Tank, fitting: Fitting, stays: boolean) => {
    give(to, fitting);
    select(to.id);
    if (!stays) focusDrawn(to.id);
  };
  const openChange = (open: boolean) => {
    onOpenChange(open);
    if (!open && turn > 0 && selectedId) focusDrawn(selectedId);
  };
  // At a tank it may be an outlet of its own that is wanted.
  const tank = isLoose
    ? undefined
    : job.tanks.find(({ id }) => id === (spot.kind === "port" ? spot.ref.part : selectedId));
  const fittings = tank ? fittingsFor(tank) : [];
  return (
    <Dialog title={where()} isOpen={isOpen} onOpenChange={openChange}>
      <Find
        key={turn}
        goesOn={goesOn}
        label="What to add"
        placeholder="Type its name, or what the trade calls it"
        of="What can be added"
        items={[
          ...joins.map(({ port, way }) => ({
            id: portKey(port.ref),
            name: `${port.ownerName}, ${port.name}`,
            note: `join: ${wayNames[way].toLowerCase()}`,
          })),
          ...addables.filter(fits),
          ...fittings.map((id) => ({
            id: `fitting-${id}`,
            name: fittingNames[id],
            words: fittingWords[id],
            note: "on the tank",
          })),
        ]}
        onChoose={(id, stays) => {
          if (stays) setTurn(turn + 1);
          else onOpenChange(false);
          setLoose(false);
          const to = joins.find(({ port }) => portKey(port.ref) === id)?.port;
          if (to) return void join(to.ref, stays);
          const fitting = fittings.find((one) => `fitting-${one}` === id);
          if (tank && fitting) return void giveFitting(tank, fitting, stays);
          const one = addables.find((addable) => addable.id === id);
          if (one) void add(one.thing, spot, stays);
        }}
      />
      {spot.kind !== "loose" && (
        <Actions>
          <Button onPress={() => setLoose(true)}>Loose instead</Button>
        </Actions>
      )}
    </Dialog>
  );
}
