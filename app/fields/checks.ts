/** Why a number is refused where it is typed; null where it is taken. */
import type { Bounds } from "~/core/kinds/fields";

export const positive = (si: number): string | null => (si > 0 ? null : "Must be greater than zero.");
export const notNegative = (si: number): string | null => (si >= 0 ? null : "Must not be less than zero.");

/** By the bounds of a figure; `say` writes a bound in the unit of the field. */
export const within =
  ({ over, least, most, isWhole }: Bounds, say: (si: number) => string) =>
  (si: number): string | null => {
    if (over !== undefined && !(si > over))
      return over === 0 ? positive(si) : `Must be greater than ${say(over)}.`;
    if (least !== undefined && !(si >= least))
      return least === 0 ? notNegative(si) : `Must be at least ${say(least)}.`;
    if (!(si <= most)) return `Must be at most ${say(most)}.`;
    return isWhole && !Number.isInteger(si) ? "Must be a whole number." : null;
  };
