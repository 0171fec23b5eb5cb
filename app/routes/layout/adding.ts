/** Adding to the plan: a tank, an engine, a part hung loose until it is joined. */
import { newId } from "~/core/kinds/ids";
import type { NewPartKind } from "~/core/plan/blank";
import { newPartKinds } from "~/messages/kinds";
import { useJob } from "~/state/job";

export const addable: { id: NewPartKind | "generator" | "heater"; name: string }[] = [
  ...newPartKinds,
  { id: "generator", name: "Generator" },
  { id: "heater", name: "Heater" },
];

export function useAdding() {
  const { job, dispatch, select } = useJob();
  const addTank = () => {
    const id = newId();
    const count = job.tanks.length;
    void dispatch({
      name: "addTank",
      id,
      tankName: `Tank ${count + 1}`,
      position: { xM: 2.2, yM: 0.4 - count * 1.2, zM: 0.2 },
    }).then(() => select(id));
  };
  const addEngine = () => {
    const id = newId();
    void dispatch({ name: "addEngine", id, engineName: "Engine", position: { xM: 0, yM: 0, zM: 0.5 } }).then(
      () => select(id),
    );
  };
  const addPart = (kind: (typeof addable)[number]["id"]) => {
    const id = newId();
    if (kind === "generator" || kind === "heater") {
      const engineName = kind === "generator" ? "Generator" : "Heater";
      void dispatch({ name: "addEngine", id, kind, engineName, position: { xM: 0, yM: -0.5, zM: 0.5 } }).then(
        () => select(id),
      );
      return;
    }
    void dispatch({ name: "addPart", id, kind, position: { xM: 1, yM: 0.2, zM: 0.6 } }).then(() =>
      select(id),
    );
  };
  return { addTank, addEngine, addPart };
}
