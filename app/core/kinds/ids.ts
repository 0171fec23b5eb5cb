import type { Id } from "./record";

export const LONGEST_ID = 14;

/** A new opaque id, 10 characters of base 36: 51 bits, enough never to meet again within one shop's jobs. */
export function newId(random: () => number = Math.random): Id {
  let id = "";
  while (id.length < 10) id += Math.floor(random() * 36).toString(36);
  return id;
}
