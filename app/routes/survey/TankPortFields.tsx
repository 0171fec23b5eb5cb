import type { Tank } from "~/core/plan/types";
import { boundsOf } from "~/core/tanks/shape";
import { BoreField, Fields, LengthField, Panel, useEditTank, useUnits } from "./tankContext";

/** Where fuel leaves and comes back: mouths, where hoses go on, bores. */
export function TankPortFields({ tank }: { tank: Tank }) {
  const edit = useEditTank(tank);
  const { length } = useUnits();
  const { x, y, z } = boundsOf(tank.shape);
  const ends = { xM: x, yM: y, zM: [z[0] - (tank.sump?.depthM ?? 0), z[1]] } as const;
  /** Beyond the tank's ends no mouth can be; what else lies outside is found by its shape. */
  const withinTank = (axis: "xM" | "yM" | "zM") => (si: number) => {
    const [low, high] = ends[axis];
    return si >= low && si <= high
      ? null
      : `Outside ${tank.name}: it reaches from ${length(low)} to ${length(high)}.`;
  };
  return (
    <Panel>
      <h3>Pickup and return</h3>
      {tank.ports.map((port) => {
        /** Each figure of a port has its own word for what it is worth; one typed says nothing of the others. */
        const path = (figure: string) => `ports.${port.id}.${figure}`;
        const set = (figure: string, change: Partial<typeof port>, entered: string) =>
          void edit(
            { ports: tank.ports.map((one) => (one.id === port.id ? { ...one, ...change } : one)) },
            { field: path(figure), entered },
          );
        const basisOf = (figure: string) =>
          tank.given?.[path(figure)]?.basis ?? tank.given?.[port.id]?.basis ?? "assumed";
        const mouth = (label: string, axis: "xM" | "yM" | "zM") => (
          <LengthField
            label={`${port.name}: ${label}`}
            value={port.mouth[axis]}
            basis={basisOf(`mouth.${axis}`)}
            check={withinTank(axis)}
            onCommit={(si, entered) =>
              set(`mouth.${axis}`, { mouth: { ...port.mouth, [axis]: si } }, entered)
            }
          />
        );
        return (
          <Fields key={port.id}>
            {mouth("mouth along", "xM")}
            {mouth("mouth across", "yM")}
            {mouth("mouth over the bottom", "zM")}
            <LengthField
              label={`${port.name}: height of its hose end`}
              value={port.outside.zM}
              basis={basisOf("outside.zM")}
              onCommit={(zM, entered) => set("outside.zM", { outside: { ...port.outside, zM } }, entered)}
            />
            <BoreField
              label={`${port.name}: bore`}
              value={port.boreM}
              basis={basisOf("boreM")}
              onCommit={(boreM, entered) => set("boreM", { boreM }, entered)}
            />
          </Fields>
        );
      })}
    </Panel>
  );
}
