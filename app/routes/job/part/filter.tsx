import type { Filtering } from "~/core/kinds/families";
import { newId } from "~/core/kinds/ids";
import { QuantityField } from "~/fields/QuantityField";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";

/** How far its element is loaded at present; without one, fitting one. */
export function LoadingNow({ filter }: { filter: Filtering }) {
  const { plan, dispatch } = useJob();
  const element = filter.element;
  if (!element) {
    return (
      <Button
        onPress={() =>
          void dispatch({ name: "editPart", id: filter.id, change: { element: { id: newId() } } })
        }
      >
        Fit an element
      </Button>
    );
  }
  return (
    <QuantityField
      label="Clogging (clean is 1)"
      dimension="ratio"
      unit=""
      value={plan.conditions.loading[element.id] ?? 1}
      check={(si) => (si >= 1 ? null : "A clean element is 1.")}
      onCommit={(si) =>
        void dispatch({
          name: "setConditions",
          change: { loading: { [element.id]: si } },
        })
      }
    />
  );
}
