import { jetLosses, nozzlePerFlow2 } from "../../laws/jetPump";
import type { LinkKind, LinkOf } from "./link";

/** Nozzle, drawn way and throat of a jet pump; the throat's law follows what the nozzle passes. */
export const jet: LinkKind<LinkOf<"jet">> = {
  boreM: ({ part }) => part.boreM,
  owner: ({ part }) => part,
  station: "pump",
  perDensity: ({ part, way }) => (way === "nozzle" ? (1 + jetLosses.nozzle) * nozzlePerFlow2(part) : 0),
  adjusted: ({ part, way }, index, { indexOf }) =>
    way === "mix" ? { kind: "jet", index, nozzle: indexOf(`${part.id}.n`), part } : null,
  export: ({ id, way }, { from, to, constant, linear, square }, file) => {
    if (way === "nozzle") return file.pipe(from, to, 0, 0, "Open");
    const drop = (q: number) => constant + (linear + square * q) * q;
    return constant >= 0 ? file.sampled(from, to, id, drop) : file.rising(from, to, (q) => -drop(q));
  },
};
