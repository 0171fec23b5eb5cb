/*
 * Decides: whether the drawing is laid out anew.
 * Seen in three seconds: how many crossings and bends that saves.
 */
import { useState } from "react";
import { isTidier, putByHand, type Tidied } from "~/core/drawing/tidy";
import type { Network } from "~/core/network/network";
import { counted } from "~/messages/counted";
import { useJob } from "~/state/job";
import { useTidied, type WorkState } from "~/state/work";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { Switch } from "~/ui/fields";

const change = (by: number, one: string) => `${counted(Math.abs(by), one)} ${by >= 0 ? "fewer" : "more"}`;

/** What it gains, once it is worked out. */
function gained(work: WorkState<Tidied>, stays: string): string {
  if (work.status === "working") return "Working out what it would gain…";
  if (work.status === "failed") return `It was not worked out: ${work.reason}.`;
  const { crossings, bends } = work.value.gain;
  return isTidier(work.value.gain)
    ? `${change(crossings, "crossing")}, ${change(bends, "bend")}. Parts move${stays}; the plumbing stays as it is, and undo brings every place back.`
    : `Nothing to gain: laid out anew${stays}, it would cross and bend as much or more.`;
}

export function Tidy({ network, onClose }: { network: Network; onClose: () => void }) {
  const { job, dispatch } = useJob();
  const [all, setAll] = useState(false);
  const held = putByHand(network).length;
  const work = useTidied(job, all);
  const found = work.status === "done" && isTidier(work.value.gain) ? work.value : null;
  return (
    <Dialog title="Lay the drawing out anew" isOpen onOpenChange={(open) => !open && onClose()}>
      <p role="status" style={{ margin: 0 }}>
        {gained(work, held > 0 && !all ? `, but ${counted(held, "part")} put by hand` : "")}
      </p>
      {held > 0 && (
        <Switch isOn={all} onChange={setAll}>
          Move what was put by hand too
        </Switch>
      )}
      <Actions>
        <Button onPress={onClose}>Leave it</Button>
        {found && (
          <Button
            $main
            onPress={() => {
              void dispatch({ name: "tidy", ...found.settled });
              onClose();
            }}
          >
            Lay it out anew
          </Button>
        )}
      </Actions>
    </Dialog>
  );
}
