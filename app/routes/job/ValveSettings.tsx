import type { Valve } from "~/core/kinds/families";
import { positionsOf } from "~/core/plan/valves";
import { Buttons } from "~/fields/layout";
import { settingWithTanks } from "~/messages/settingText";
import { useJob } from "~/state/job";
import { ToggleButton } from "~/ui/button";

export function ValveSettings({ valve }: { valve: Valve }) {
  const { lineUp, dispatch, network } = useJob();
  if (!lineUp) return null;
  const setting = lineUp.valves[valve.id];
  const set = (next: typeof setting) =>
    next && void dispatch({ name: "setValve", lineUpId: lineUp.id, valveId: valve.id, setting: next });
  if (valve.kind === "bank") {
    const openIds = setting?.kind === "branches" ? setting.open : [];
    return (
      <div>
        <h3>In {lineUp.name}</h3>
        <Buttons>
          {valve.branches.map(({ id, name }) => (
            <ToggleButton
              key={id}
              isSelected={openIds.includes(id)}
              onChange={(isOpen) =>
                void dispatch({
                  name: "setBranch",
                  lineUpId: lineUp.id,
                  valveId: valve.id,
                  branch: id,
                  isOpen,
                })
              }
            >
              {name} {openIds.includes(id) ? "open" : "shut"}
            </ToggleButton>
          ))}
        </Buttons>
      </div>
    );
  }
  return (
    <div>
      <h3>In {lineUp.name}</h3>
      <Buttons>
        {positionsOf(valve).map(({ id, name }) => (
          <ToggleButton
            key={id}
            isSelected={setting?.kind === "position" && setting.position === id}
            onChange={() => set({ kind: "position", position: id })}
          >
            {valve.kind === "selector"
              ? settingWithTanks(network, valve, { kind: "position", position: id })
              : name}
          </ToggleButton>
        ))}
      </Buttons>
    </div>
  );
}
