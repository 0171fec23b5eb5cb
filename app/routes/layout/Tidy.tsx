/*
 * Decides: whether the drawing is laid out anew.
 * Seen in three seconds: how many crossings and bends that saves, and how much larger it is then.
 */
import { useState } from "react";
import { type Box, shownIn, wholeIn } from "~/core/drawing/room";
import { type Gain, isTidier, putByHand, type Tidied } from "~/core/drawing/tidy";
import type { Network } from "~/core/network/network";
import { percentText } from "~/core/units/format";
import { counted } from "~/messages/counted";
import { capital } from "~/messages/findings/say";
import { useJob } from "~/state/job";
import { useTidied, type WorkState } from "~/state/work";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { Switch } from "~/ui/fields";

const change = (by: number, one: string) => `${counted(Math.abs(by), one)} ${by >= 0 ? "fewer" : "more"}`;

/** "2 crossings fewer, shown at 85 % instead of 52 %": of what it changes. */
function told({ crossings, bends, was, is }: Gain, room: Box): string {
  const [before, after] = [was, is].map((box) => percentText(shownIn(room, box)));
  return [
    ...(crossings === 0 ? [] : [change(crossings, "crossing")]),
    ...(bends === 0 ? [] : [change(bends, "bend")]),
    ...(before !== after
      ? [`shown at ${after} instead of ${before}`]
      : wholeIn(room, is) > wholeIn(room, was)
        ? ["less to scroll"]
        : []),
  ].join(", ");
}

/** What it gains, once it is worked out. */
function gained(work: WorkState<Tidied>, room: Box, stays: string): string {
  if (work.status === "working") return "Working out what it would gain…";
  if (work.status === "failed") return `It was not worked out: ${work.reason}.`;
  const { gain } = work.value;
  return isTidier(gain, room)
    ? `${capital(told(gain, room))}. Parts move${stays}; the plumbing stays as it is, and undo brings every place back.`
    : `Nothing to gain: laid out anew${stays}, it would cross and bend as much or more, or be smaller.`;
}

interface Props {
  network: Network;
  /** What the drawing has, px. */
  room: Box;
  onClose: () => void;
}

export function Tidy({ network, room, onClose }: Props) {
  const { job, dispatch } = useJob();
  const [all, setAll] = useState(false);
  const held = putByHand(network).length;
  const work = useTidied(job, all);
  const found = work.status === "done" && isTidier(work.value.gain, room) ? work.value : null;
  return (
    <Dialog title="Lay the drawing out anew" isOpen onOpenChange={(open) => !open && onClose()}>
      <p role="status" style={{ margin: 0 }}>
        {gained(work, room, held > 0 && !all ? `, but ${counted(held, "part")} put by hand` : "")}
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
