import { heldInLine, type Kind, port } from "./kind";
import type { Id, PartBase } from "./record";

/** A row of two-way valves on one common rail. Ports: `c` common, and one a branch. */
export interface ManifoldBank extends PartBase {
  kind: "bank";
  branches: { id: Id; name: string }[];
}

export const bank: Kind<ManifoldBank> = {
  ...heldInLine,
  title: "Manifold",
  families: ["valve"],
  hasArrow: false,
  fields: {
    branches: {
      form: "branches",
      tells: true,
      blank: [
        { id: "b1", name: "1" },
        { id: "b2", name: "2" },
      ],
    },
  },
  ports: ({ branches }) => [
    port("c", "common", "either"),
    ...branches.map(({ id, name }) => port(id, name, "branch")),
  ],
  through: ({ branches }) => [branches[0]?.id ?? "", "c"],
  links: (valve) =>
    valve.branches.map(({ id }) => ({
      kind: "valve",
      id: `${valve.id}.${id}`,
      from: "c",
      to: id,
      valve,
      ports: ["c", id] as const,
    })),
  body: {
    widthM: 0.2,
    heightM: 0.08,
    depthM: 0.07,
    massKg: 1.5,
    room: [{ use: "swing", clearM: 0.06 }],
    faces: { c: { side: "left", at: 0.5 } },
  },
  end: "pipeThread",
};
