import type { Valve } from "../kinds/families";
import { kindOf } from "../kinds/index";
import type { Id } from "../kinds/record";
import type { SelectorPosition, SelectorValve } from "../kinds/selector";
import type { TwoWayValve } from "../kinds/twoWay";
import type { LineUp, ValveSetting } from "./types";

const twoWayPositions: SelectorPosition[] = [
  { id: "open", name: "open", joins: [["a", "b"]] },
  { id: "shut", name: "shut", joins: [] },
];

export function positionsOf(valve: TwoWayValve | SelectorValve): SelectorPosition[] {
  return valve.kind === "twoWay" ? twoWayPositions : valve.positions;
}

/** Every pair of ports that some position of the valve can join: the links it is in the network. */
export const waysThrough = (valve: Valve): { id: string; ports: readonly [Id, Id] }[] =>
  kindOf(valve)
    .links(valve)
    .flatMap((link) => (link.kind === "valve" ? [link] : []));

/** Is the way between two ports open at a setting? An unset valve is taken as shut. */
export function isOpen(valve: Valve, ports: readonly [Id, Id], setting: ValveSetting | undefined): boolean {
  if (!setting || setting.kind === "unset") return false;
  if (setting.kind === "branches") return valve.kind === "bank" && setting.open.includes(ports[1]);
  if (valve.kind === "bank") return false;
  const position = positionsOf(valve).find(({ id }) => id === setting.position);
  return position?.joins.some((group) => group.includes(ports[0]) && group.includes(ports[1])) ?? false;
}

/** Ports that are joined to a port in every position that there is: no handle shuts them off from it. */
export function neverShut(valve: Valve, port: Id): Id[] {
  if (valve.kind === "bank") return [];
  const [first = [], ...others] = positionsOf(valve).map(({ joins }) =>
    joins.filter((group) => group.includes(port)).flat(),
  );
  return first.filter((one) => one !== port && others.every((group) => group.includes(one)));
}

/** The settings one movement of a handle away from `setting`. */
export function neighbourSettings(valve: Valve, setting: ValveSetting): ValveSetting[] {
  if (setting.kind === "unset") return [];
  if (setting.kind === "branches") {
    if (valve.kind !== "bank") return [];
    return valve.branches.map(({ id }) => ({
      kind: "branches",
      open: setting.open.includes(id) ? setting.open.filter((open) => open !== id) : [...setting.open, id],
    }));
  }
  if (valve.kind === "bank") return [];
  const positions = positionsOf(valve);
  const at = positions.findIndex(({ id }) => id === setting.position);
  return [at - 1, at + 1].flatMap((i) => {
    const position = at < 0 ? undefined : positions[i];
    return position ? [{ kind: "position" as const, position: position.id }] : [];
  });
}

/** A setting a new valve stands at in every line-up, so that none is left unset by an insertion. */
export function firstSetting(valve: Valve): ValveSetting {
  if (valve.kind === "bank") return { kind: "branches", open: [] };
  const first = positionsOf(valve)[0];
  return first ? { kind: "position", position: first.id } : { kind: "unset" };
}

/** A setting that joins nothing: what a valve of a branch stands at. Its first where it has none. */
export function shutSetting(valve: Valve): ValveSetting {
  if (valve.kind === "bank") return { kind: "branches", open: [] };
  const shut = positionsOf(valve).find(({ joins }) => joins.length === 0);
  return shut ? { kind: "position", position: shut.id } : firstSetting(valve);
}

export const settingOf = (lineUp: LineUp, valve: Valve): ValveSetting =>
  lineUp.valves[valve.id] ?? { kind: "unset" };
