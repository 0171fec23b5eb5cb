/** What runs out of a full line that is opened: still fuel, no air lock. */

/**
 * Of places in their order from an opening inwards: fuel runs out from where nothing on its way to the opening stands
 * higher; the rest is held by a crest before it.
 */
export function runsOut(zM: readonly number[]): boolean[] {
  let crest = Number.NEGATIVE_INFINITY;
  return zM.map((z) => {
    crest = Math.max(crest, z);
    // At the height of its own crest it runs out.
    return z >= crest - 1e-12;
  });
}
