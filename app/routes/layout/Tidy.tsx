/*
 * Decides: whether the drawing is laid out anew.
 * Seen in three seconds: how many crossings and bends that saves.
 */
import { useMemo } from "react";
import { isTidier, tidyGain } from "~/core/drawing/tidy";
import type { Network } from "~/core/network/network";
import { counted } from "~/messages/counted";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";

const change = (by: number, one: string) => `${counted(Math.abs(by), one)} ${by >= 0 ? "fewer" : "more"}`;

export function Tidy({ network, onClose }: { network: Network; onClose: () => void }) {
  const { dispatch } = useJob();
  const gain = useMemo(() => tidyGain(network), [network]);
  const isWorth = isTidier(gain);
  return (
    <Dialog title="Lay the drawing out anew" isOpen onOpenChange={(open) => !open && onClose()}>
      <p>
        {isWorth
          ? `${change(gain.crossings, "crossing")}, ${change(gain.bends, "bend")}. Parts move, those put by hand too; the plumbing stays as it is, and undo brings every place back.`
          : "Nothing to gain: laid out anew it would cross and bend as much or more."}
      </p>
      <Actions>
        <Button onPress={onClose}>Leave it</Button>
        {isWorth && (
          <Button
            $main
            onPress={() => {
              void dispatch({ name: "tidy" });
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
