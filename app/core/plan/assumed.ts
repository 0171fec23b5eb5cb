/** Figures that nobody measured and no maker gave: what is still to be measured. */

import type { Field } from "../kinds/fields";
import { kindOf, type Part } from "../kinds/index";
import type { GivenByField, Id } from "../kinds/record";
import { joinedPorts, portsOf } from "./ports";
import type { Job, Plan, Tank, TankShape } from "./types";

export interface AssumedFigure {
  id: Id;
  field: string;
  /** The port of a tank that it is of. */
  portId?: Id;
}

/** What a maker or a tape must tell of a part: the needed figures of its kind, and where it stands. */
const fieldsOf = (part: Part): string[] => [
  ...Object.entries<Field>(kindOf(part).fields).flatMap(([key, { isNeeded }]) => (isNeeded ? [key] : [])),
  "position",
];

/** The sizes that a tank's shape hangs on. */
function sizesOf(shape: TankShape): string[] {
  switch (shape.kind) {
    case "box":
      return ["lengthM", "widthM", "heightM"];
    case "prism":
      return ["lengthM", "section"];
    case "cylinder":
      return ["lengthM", "diameterM"];
    case "loft":
      return ["section"];
  }
}

/** Whether a tape or a maker said it. */
export const isKnown = (given: GivenByField | undefined, field: string) => {
  const basis = given?.[field]?.basis;
  return basis === "measured" || basis === "maker";
};

/** What a tape must tell of a tank's port: its mouth, the height of its hose end, its bore. */
const ofPort: readonly { field: string; paths: readonly string[] }[] = [
  { field: "mouth", paths: ["mouth.xM", "mouth.yM", "mouth.zM"] },
  { field: "outside", paths: ["outside.zM"] },
  { field: "boreM", paths: ["boreM"] },
];

/** Figures of the ports that are joined; each is known by itself, or all by what was noted of the port as a whole. */
function assumedOfPorts({ id, given, ports }: Tank, used: ReadonlySet<string>): AssumedFigure[] {
  return ports
    .filter((port) => used.has(`${id}.${port.id}`) && !isKnown(given, port.id))
    .flatMap((port) =>
      ofPort
        .filter(({ paths }) => paths.some((path) => !isKnown(given, `ports.${port.id}.${path}`)))
        .map(({ field }) => ({ id, field, portId: port.id })),
    );
}

export function assumedFigures(job: Job, plan: Plan): AssumedFigure[] {
  const used = joinedPorts(plan);
  const list = (id: Id, given: GivenByField | undefined, fields: string[]) =>
    fields.filter((field) => !isKnown(given, field)).map((field) => ({ id, field }));
  return [
    ...job.tanks.flatMap(({ id, given, shape }) => list(id, given, sizesOf(shape))),
    ...job.tanks.flatMap((tank) => assumedOfPorts(tank, used)),
    ...[...plan.parts, ...job.consumers]
      .filter((part) => portsOf(part).some((port) => used.has(`${part.id}.${port.id}`)))
      .flatMap((part) => list(part.id, part.given, fieldsOf(part))),
    ...plan.runs.flatMap(({ id, given, route }) =>
      list(id, given, route.kind === "measured" ? ["lengthM", "boreM"] : ["boreM"]),
    ),
    ...(plan.tankLines ?? []).flatMap(({ id, given }) => list(id, given, ["boreM", "points"])),
  ];
}
