import { newId } from "~/core/kinds/ids";
import type { Id } from "~/core/kinds/record";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { Select, TextField } from "~/ui/fields";

/** Alternatives: fork the current plan, name it, choose which is worked on, hold one against another. */
export function PlansDialog({
  isOpen,
  onOpenChange,
  otherId,
  onCompare,
}: {
  isOpen: boolean;
  onOpenChange: (open: boolean) => void;
  otherId: Id | null;
  onCompare: (id: Id | null) => void;
}) {
  const { job, plan, dispatch } = useJob();
  const fork = () => {
    const id = newId();
    void dispatch({ name: "forkPlan", id, planName: `${plan.name}, other` }).then((result) => {
      if (result.ok) onCompare(plan.id);
    });
  };
  const others = job.plans.filter(({ id }) => id !== plan.id);
  return (
    <Dialog title="Alternatives" isOpen={isOpen} onOpenChange={onOpenChange}>
      <p style={{ margin: 0 }}>
        Tanks and consumers belong to the job. Each plan joins them in its own way; what is changed in one
        leaves the others as they are.
      </p>
      <Select
        label="Plan that is worked on"
        value={plan.id}
        options={job.plans}
        onChange={(id) => void dispatch({ name: "choosePlan", id })}
      />
      <TextField
        label="Its name"
        value={plan.name}
        onCommit={(name) => void dispatch({ name: "editPlan", change: { name } })}
      />
      {others.length > 0 && (
        <Select
          label="Hold against"
          value={otherId ?? "none"}
          options={[{ id: "none", name: "nothing" }, ...others]}
          onChange={(id) => onCompare(id === "none" ? null : id)}
        />
      )}
      <Actions>
        {others.length > 0 && (
          <Button onPress={() => void dispatch({ name: "removePlan", id: plan.id })}>
            Delete {plan.name}
          </Button>
        )}
        <Button $main onPress={fork}>
          Copy {plan.name} to try something
        </Button>
      </Actions>
    </Dialog>
  );
}
