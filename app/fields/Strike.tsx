import type { Id } from "~/core/kinds/record";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";

/** Strikes an entry of the book: it stays in the book and no longer counts. */
export function Strike({ entryId, what }: { entryId: Id; what: string }) {
  const { enter } = useJob();
  return (
    <Button $quiet aria-label={`Strike the ${what}`} onPress={() => void enter({ kind: "strike", entryId })}>
      Strike
    </Button>
  );
}
