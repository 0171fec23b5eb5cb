/** Circuits that end in a part, each with a plug that is pulled before it comes out. */
import { isFiltering, isPowered } from "../kinds/families";
import type { Part } from "../kinds/index";
import type { Id } from "../kinds/record";

export interface PartPlug {
  /** Of the part alone where it has one that nobody named. */
  key: string;
  partId: Id;
  /** Empty where nobody named it. */
  name: string;
}

export function plugsOf(part: Part): PartPlug[] {
  if (part.plugs)
    return part.plugs.map(({ id, name }) => ({ key: `${part.id}.${id}`, partId: part.id, name }));
  const isPlugged = isPowered(part) || (isFiltering(part) && part.sensorHeldM3 !== undefined);
  return isPlugged ? [{ key: part.id, partId: part.id, name: "" }] : [];
}
