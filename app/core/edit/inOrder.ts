/**
 * One figure of a list that must rise is changed, and the list rises still: those that it passes keep their distance to
 * it, or are squeezed where the list's own ends leave no room. So figures can be typed in either order.
 * @param least the lowest value that may stand in the list
 * @param most the highest
 */
export function inOrder(
  values: readonly number[],
  at: number,
  value: number,
  least = -Infinity,
  most = Infinity,
): number[] {
  const before = values[at];
  if (before === undefined) return [...values];
  const moved = value - before;
  const passesNext = (values[at + 1] ?? Infinity) <= value;
  const passesLast = (values[at - 1] ?? -Infinity) >= value;
  const [first = 0, last = 0] = [values[0], values.at(-1)];
  /** Toward an end that holds, in the same shares as before. */
  const squeezed = (one: number, end: number) => end + ((one - end) * (value - end)) / (before - end);
  return values.map((one, k) => {
    if (k === at) return value;
    if (k > at && passesNext) return last + moved > most ? squeezed(one, most) : one + moved;
    if (k < at && passesLast) return first + moved < least ? squeezed(one, least) : one + moved;
    return one;
  });
}

/** The same for a list that must fall. */
export const inFallingOrder = (values: readonly number[], at: number, value: number): number[] =>
  inOrder(
    values.map((one) => -one),
    at,
    -value,
  ).map((one) => -one);
