/** What a tank is filled, vented and drained by: each chosen from here, or begun. */
import { newId } from "~/core/kinds/ids";
import type { Tank, TankLine } from "~/core/plan/types";
import { newTankLine, tankLineOf } from "~/core/tanks/tankLine";
import { Buttons } from "~/fields/layout";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";

const uses = ["fill", "vent", "drain"] as const;

export function TankLines({ tank, onChosen }: { tank: Tank; onChosen?: (id: string) => void }) {
  const { job, plan, dispatch, select } = useJob();
  const choose = (id: string) => {
    select(id);
    onChosen?.(id);
  };
  const begin = (use: TankLine["use"]) => {
    const line = newTankLine(newId(), tank, use, job.kind);
    void dispatch({ name: "addTankLine", line }).then((result) => result.ok && choose(line.id));
  };
  return (
    <Buttons>
      {uses.map((use) => {
        const line = tankLineOf(plan, tank, use);
        return (
          <Button key={use} onPress={() => (line ? choose(line.id) : begin(use))}>
            {line ? `Its ${use} line` : `Trace its ${use}`}
          </Button>
        );
      })}
    </Buttons>
  );
}
