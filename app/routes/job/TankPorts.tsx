/** Adds what fuel enters or leaves a tank by. */
import { newId } from "~/core/kinds/ids";
import type { Tank } from "~/core/plan/types";
import { type Fitting, fittingOn, fittingsFor } from "~/core/tanks/fitting";
import { fittingNames } from "~/messages/adding";
import { useJob } from "~/state/job";
import { Select } from "~/ui/fields";

/** Gives a tank a fitting; its port is called as the fitting is. */
export function useFitting(): (tank: Tank, fitting: Fitting) => void {
  const { dispatch } = useJob();
  return (tank, fitting) =>
    void dispatch({
      name: "editTank",
      id: tank.id,
      change: fittingOn(tank, fitting, newId(), fittingNames[fitting].toLowerCase()),
    });
}

export function TankPorts({ tank }: { tank: Tank }) {
  const add = useFitting();
  return (
    <Select
      label="Add an outlet or return"
      value={null}
      placeholder="choose what"
      options={fittingsFor(tank).map((id) => ({ id, name: fittingNames[id] }))}
      onChange={(fitting) => add(tank, fitting)}
    />
  );
}
