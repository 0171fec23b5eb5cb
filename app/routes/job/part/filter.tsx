import { useMemo } from "react";
import { judgeLineUp } from "~/core/hydraulics/worst";
import type { Filtering } from "~/core/kinds/families";
import { newId } from "~/core/kinds/ids";
import { formatNumber } from "~/core/units/format";
import { QuantityField } from "~/fields/QuantityField";
import { Term } from "~/fields/Term";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";

/** How far its element is loaded at present; without one, fitting one. */
export function LoadingNow({ filter }: { filter: Filtering }) {
  const { plan, dispatch, solver, lineUp } = useJob();
  const { vacuum } = useTrade();
  const element = filter.element;
  // What the gauge shows when the element is due: the figure that is looked for.
  const atChange = useMemo(() => {
    if (!element || !lineUp) return null;
    const { conditions } = plan;
    const loading = { ...conditions.loading, [element.id]: filter.changeLoading };
    return judgeLineUp(solver, lineUp, { ...conditions, loading }).suction;
  }, [element, lineUp, plan, solver, filter.changeLoading]);
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
    <>
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
      {atChange && (
        <p style={{ margin: "2px 0", fontSize: 13, color: "var(--soft)" }}>
          At its <Term of="change point" /> ({formatNumber(filter.changeLoading)}) the pump draws at{" "}
          {vacuum(atChange.vacuumPa)}. Common practice changes at {vacuum(plan.limits.suctionChangePa)} and
          never runs over {vacuum(plan.limits.suctionNeverPa)}.
        </p>
      )}
    </>
  );
}
