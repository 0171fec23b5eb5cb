import type { Id } from "../kinds/record";
import type { Book, BookEntry } from "./entries";

/** The strikes of a book, by what they strike. */
function strikesOf(book: Book): Map<Id, Id[]> {
  const strikes = new Map<Id, Id[]>();
  for (const entry of book) {
    if (entry.kind !== "strike") continue;
    const known = strikes.get(entry.entryId);
    if (known) known.push(entry.id);
    else strikes.set(entry.entryId, [entry.id]);
  }
  return strikes;
}

/**
 * The entries that count: those no standing strike names, without the strikes themselves. The order of the book is
 * kept; two books joined need not have a strike after what it strikes.
 */
export function standingOf(book: Book): BookEntry[] {
  const strikes = strikesOf(book);
  if (strikes.size === 0) return [...book];
  const known = new Map<Id, boolean>();
  // A ring of strikes is refused where entries are read; here each link is asked once, so that it ends all the same.
  const isStruck = (id: Id): boolean => {
    const found = known.get(id);
    if (found !== undefined) return found;
    known.set(id, false);
    const struck = (strikes.get(id) ?? []).some((strike) => !isStruck(strike));
    known.set(id, struck);
    return struck;
  };
  return book.filter((entry) => entry.kind !== "strike" && !isStruck(entry.id));
}
