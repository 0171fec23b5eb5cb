/** What the book says of each joint. */
import { portKey } from "../plan/ports";
import { type Book, entriesOf, type LeakCheck } from "./entries";

/** The last look at each joint of a plan: overall, or in one state. A look of before states were told counts in each. */
export function lastLooks(book: Book, planId: string, state?: LeakCheck["state"]): Map<string, LeakCheck> {
  const looks = entriesOf(book, "leakCheck").filter(
    (look) => look.planId === planId && (!state || !look.state || look.state === state),
  );
  return new Map(looks.map((look) => [portKey(look.joint), look]));
}
