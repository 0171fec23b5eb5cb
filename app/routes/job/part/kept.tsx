/** A part kept for the next job, and one that is kept put in here: its figures are typed once. */

import { putIn } from "~/core/box/box";
import { isKept, type KeptItem, keptItem } from "~/core/box/keptPart";
import { newId } from "~/core/kinds/ids";
import type { PlanPart } from "~/core/kinds/index";
import { Buttons, Group } from "~/fields/layout";
import { useBox } from "~/state/box";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select } from "~/ui/fields";

export function KeepPart({ part }: { part: PlanPart }) {
  const { plan, dispatch, say } = useJob();
  const box = useBox(say);
  if (!isKept(part)) return null;
  const alike = box.items.filter(
    (item): item is KeptItem => item.kind === "part" && item.part.kind === part.kind,
  );
  const keep = async () => {
    const item = keptItem(plan, part, newId(), new Date().toISOString().slice(0, 10));
    await box.change((items) => putIn(items, item));
    say(`${part.name} is kept in the box: its figures and ends can be taken in any job.`);
  };
  return (
    <Group>
      {alike.length > 0 && (
        <Select
          label="Take the figures of one the shop knows"
          value={null}
          placeholder="choose one"
          options={alike.map(({ id, name, on }) => ({ id, name: `${name}, ${on}` }))}
          onChange={(id) => {
            const item = alike.find((one) => one.id === id);
            if (item) void dispatch({ name: "takeFigures", id: part.id, part: item.part, ends: item.ends });
          }}
        />
      )}
      <Buttons>
        <Button $quiet isDisabled={!box.isOpen} onPress={() => void keep()}>
          Keep this part for other jobs
        </Button>
      </Buttons>
    </Group>
  );
}
