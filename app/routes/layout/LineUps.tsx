import { useState } from "react";
import { newId } from "~/core/kinds/ids";
import { type Asked, lineUpFor } from "~/core/manifold/lineUpFor";
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
  const copy = () => {
    if (!lineUp) return;
    const id = newId();
    void dispatch({ name: "duplicateLineUp", id, from: lineUp.id, lineUpName: `${lineUp.name} copy` }).then(
      () => chooseLineUp(id),
    );
  };
  return (
    <Dialog title="Line-ups" isOpen={isOpen} onOpenChange={onOpenChange}>
      <NewLineUp onMade={() => onOpenChange(false)} />
      {plan.lineUps.length > 0 && <h3 style={{ margin: "6px 0 0" }}>Those there are</h3>}
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
      </Actions>
    </Dialog>
  );
}

/** Words between what is drawn from and where it goes. */
const verbs: Record<Purpose, string> = {
  run: "Run on",
  transfer: "Move from",
  polish: "Polish",
  prime: "Prime from",
};

/** Asks what a line-up is for and sets every valve and pump for it. */
function NewLineUp({ onMade }: { onMade: () => void }) {
  const { job, plan, network, dispatch, chooseLineUp } = useJob();
  const [purpose, setPurpose] = useState<Purpose>("run");
  const isFed = purpose === "run" || purpose === "prime";
  const asked = plan.lineUps.map(({ name }) => name);
  const nameFor = (tank: string) => {
    const wanted = `${verbs[purpose]} ${tank}`;
    return asked.includes(wanted)
      ? `${wanted} ${asked.filter((one) => one.startsWith(wanted)).length + 1}`
      : wanted;
  };
  // First what has no line-up yet.
  const firstTank =
    job.tanks.find(({ name }) => !asked.includes(`${verbs[purpose]} ${name}`)) ?? job.tanks[0];
  const [tankId, setTank] = useState<string | null>(null);
  const tank = job.tanks.find(({ id }) => id === tankId) ?? firstTank;
  const [consumerId, setConsumer] = useState<string | null>(null);
  const consumer = job.consumers.find(({ id }) => id === consumerId) ?? job.consumers[0];
  const others = job.tanks.filter(({ id }) => id !== tank?.id);
  const [toId, setTo] = useState<string | null>(null);
  const into = others.find(({ id }) => id === toId) ?? others[0];
  if (!tank) return <p style={{ margin: 0 }}>A line-up begins at a tank: add one first.</p>;
  const wanted: Asked = {
    purpose,
    name: nameFor(tank.name),
    fromTank: tank.id,
    ...(isFed && consumer ? { consumer: consumer.id } : {}),
    ...(purpose === "transfer" && into ? { toTank: into.id } : {}),
  };
  const found = lineUpFor(network, "asked", wanted);
  const make = async () => {
    const id = newId();
    const { ok } = await dispatch({ name: "several", commands: lineUpFor(network, id, wanted).commands });
    if (!ok) return;
    chooseLineUp(id);
    onMade();
  };
  return (
    <section aria-label="New line-up" style={{ display: "grid", gap: 10 }}>
      <Select label="What for" value={purpose} options={purposes} onChange={setPurpose} />
      <Select label="From" value={tank.id} options={job.tanks} onChange={setTank} />
      {isFed && job.consumers.length > 0 && (
        <Select label="Feeds" value={consumer?.id ?? null} options={job.consumers} onChange={setConsumer} />
      )}
      {purpose === "transfer" && (
        <Select label="Into" value={into?.id ?? null} options={others} onChange={setTo} />
      )}
      {!found.feeds && (
        <p style={{ margin: 0 }}>The plan has no way for it yet: what there is will be set, all else shut.</p>
      )}
      {found.feeds && !found.returns && (
        <p style={{ margin: 0 }}>Its return finds no way back into {tank.name}.</p>
      )}
      <Actions>
        <Button $main autoFocus onPress={() => void make()}>
          New line-up: {nameFor(tank.name)}
        </Button>
      </Actions>
    </section>
  );
}
