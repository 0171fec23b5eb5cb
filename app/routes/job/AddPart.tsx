/*
 * Decides: what comes into the plan, and where.
 * Seen in three seconds: where it will go, and the list narrowing to what is typed.
 */
import { useState } from "react";
import { adding, fitsSpot, type Spot, type Thing } from "~/core/edit/adding";
import { placedPorts, portKey } from "~/core/plan/ports";
import { type Addable, addables } from "~/messages/adding";
import { nameOf } from "~/messages/notes";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { Find } from "~/ui/find";
import { focusDrawn } from "./focusDrawn";

/** Adds a thing where the hand points, as one step of undo, and chooses it. */
export function useAdd(): (thing: Thing, spot: Spot) => Promise<void> {
  const { job, plan, dispatch, select } = useJob();
  return async (thing, spot) => {
    const named: Thing =
      thing.kind === "tank" && thing.name === "" ? { ...thing, name: `Tank ${job.tanks.length + 1}` } : thing;
    const { command, id } = adding(job, plan, named, spot);
    const { ok } = await dispatch(command);
    if (!ok) return;
    select(id);
    focusDrawn(id);
  };
}

export function AddPart({
  spot: wanted,
  isOpen,
  onOpenChange,
}: {
  spot: Spot;
  isOpen: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const { job, plan } = useJob();
  const add = useAdd();
  const [isLoose, setLoose] = useState(false);
  const spot: Spot = isLoose ? { kind: "loose" } : wanted;
  const fits = (one: Addable) => fitsSpot(one.thing, spot);
  const where = () => {
    if (spot.kind === "hose") return `Let into ${nameOf(job, spot.runId)}`;
    if (spot.kind === "loose") return "Add a part, loose until it is joined";
    const port = placedPorts(job, plan).get(portKey(spot.ref));
    return `Add at ${port?.ownerName ?? ""}, ${port?.name ?? ""}`;
  };
  return (
    <Dialog title={where()} isOpen={isOpen} onOpenChange={onOpenChange}>
      <Find
        label="What to add"
        placeholder="Type its name, or what the trade calls it"
        of="What can be added"
        items={addables.filter(fits)}
        onChoose={(id) => {
          onOpenChange(false);
          const one = addables.find((addable) => addable.id === id);
          if (one) void add(one.thing, spot);
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
