import { newId } from "~/core/kinds/ids";
import type { Purpose } from "~/core/plan/types";
import { fileName, saveText } from "~/state/files";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { Select, Switch, TextField } from "~/ui/fields";

const purposes: { id: Purpose; name: string }[] = [
  { id: "run", name: "run" },
  { id: "transfer", name: "transfer" },
  { id: "polish", name: "polish" },
  { id: "prime", name: "prime" },
];

/** Line-ups made, named, given their purpose, and saved as a network file. */
export function LineUps({
  isOpen,
  onOpenChange,
}: {
  isOpen: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const { job, plan, lineUp, dispatch, chooseLineUp, stored, say } = useJob();
  const saveInp = async () => {
    if (stored?.result.outcome !== "solved") return say("This line-up has no solution to save.");
    const { exportInp } = await import("~/core/export/inp");
    saveText(
      `${fileName(job.name)}-${fileName(stored.lineUp.name)}.inp`,
      exportInp(stored.result),
      "text/plain",
    );
  };
  const add = () => {
    const id = newId();
    void dispatch({ name: "addLineUp", id, lineUpName: `Line-up ${plan.lineUps.length + 1}` }).then(() =>
      chooseLineUp(id),
    );
  };
  const copy = () => {
    if (!lineUp) return;
    const id = newId();
    void dispatch({ name: "duplicateLineUp", id, from: lineUp.id, lineUpName: `${lineUp.name} copy` }).then(
      () => chooseLineUp(id),
    );
  };
  return (
    <Dialog title="Line-ups" isOpen={isOpen} onOpenChange={onOpenChange}>
      {plan.lineUps.length > 0 && (
        <Select label="Chosen" value={lineUp?.id ?? null} options={plan.lineUps} onChange={chooseLineUp} />
      )}
      {lineUp && (
        <>
          <TextField
            label="Name"
            value={lineUp.name}
            onCommit={(name) => void dispatch({ name: "editLineUp", id: lineUp.id, change: { name } })}
          />
          <Select
            label="Purpose"
            value={lineUp.purpose}
            options={purposes}
            onChange={(purpose) => void dispatch({ name: "editLineUp", id: lineUp.id, change: { purpose } })}
          />
          <Switch
            isOn={lineUp.intendedTransfer}
            onChange={(on) =>
              void dispatch({ name: "editLineUp", id: lineUp.id, change: { intendedTransfer: on } })
            }
          >
            Fuel is meant to end in another tank
          </Switch>
        </>
      )}
      <Actions>
        {lineUp && (
          <Button onPress={() => void dispatch({ name: "removeLineUp", id: lineUp.id })}>
            Delete {lineUp.name}
          </Button>
        )}
        {lineUp && <Button onPress={() => void saveInp()}>Save the network file (.inp)</Button>}
        {lineUp && <Button onPress={copy}>Duplicate</Button>}
        <Button $main onPress={add}>
          New line-up
        </Button>
      </Actions>
    </Dialog>
  );
}
