/*
 * Decides: which of the alternatives is built.
 * Seen in three seconds: the figures of both side by side, the better one of each told, and what differs on the drawings.
 */

import { useMemo } from "react";
import styled from "styled-components";
import { LineUpSolver } from "~/core/hydraulics/solve";
import { judgeLineUp } from "~/core/hydraulics/worst";
import type { Id } from "~/core/kinds/record";
import { buildNetwork } from "~/core/network/network";
import { type Difference, planDifferences } from "~/core/plan/compare";
import type { Plan } from "~/core/plan/types";
import { formatNumber } from "~/core/units/format";
import { type Trade } from "~/core/units/trade";
import { type PlanFigures, planFigures } from "~/core/work/planFigures";
import { counted } from "~/messages/counted";
import { nameOf } from "~/messages/notes";
import { Plumbing } from "~/plumbing/Plumbing";
import { usePlumbing } from "~/plumbing/usePlumbing";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Table } from "~/ui/table";

const Strip = styled.div`
  border-top: 1.5px solid var(--ink); border-bottom: 1px solid var(--hairline); background: var(--panel); overflow-x: auto;
  table { font-size: 13px; width: 100%; font-stretch: 84%; }
  th, td { padding: 3px 8px; white-space: nowrap; }
  td b { font-weight: 700; }
`;
const Drawing = styled.div`
  overflow: auto; min-height: 0; position: relative;
  svg { display: block; }
`;

interface Row {
  name: string;
  /** Shown where the user has given prices. */
  isOfPrices?: true;
  of: (figures: PlanFigures) => string;
  /** Larger is better; null where it is neither. */
  worth: (figures: PlanFigures) => number | null;
}

const rows = (say: Trade, name: (id: string) => string): Row[] => [
  {
    name: "Margin at worst",
    of: ({ marginPa }) => (marginPa === null ? "starves" : say.vacuum(marginPa)),
    worth: ({ marginPa }) => marginPa ?? -1e9,
  },
  { name: "Costs most", of: ({ worstPartId }) => (worstPartId ? name(worstPartId) : "–"), worth: () => null },
  {
    name: "Dead fuel",
    of: ({ deadM3 }) => say.volume(deadM3),
    worth: ({ deadM3 }) => -deadM3,
  },
  {
    name: "Can leak at",
    of: ({ leakPoints, joints }) => `${leakPoints}, ${joints} screwed`,
    worth: ({ leakPoints }) => -leakPoints,
  },
  { name: "Hose", of: ({ hoseM }) => say.run(hoseM), worth: ({ hoseM }) => -hoseM },
  {
    name: "Filter change",
    of: ({ filterChangeSteps }) => counted(filterChangeSteps, "step"),
    worth: ({ filterChangeSteps }) => -filterChangeSteps,
  },
  {
    name: "First cost",
    isOfPrices: true,
    of: ({ cost }) =>
      cost === null
        ? "no price yet"
        : `${formatNumber(cost.first, 4)}${cost.unpriced > 0 ? `, ${cost.unpriced} lines without` : ""}`,
    worth: ({ cost }) => (cost === null || cost.unpriced > 0 ? null : -cost.first),
  },
  {
    name: "Elements, 1,000 h",
    isOfPrices: true,
    of: ({ cost }) => (cost === null || cost.elements1000h === 0 ? "–" : formatNumber(cost.elements1000h, 3)),
    worth: ({ cost }) => (cost === null || cost.elements1000h === 0 ? null : -cost.elements1000h),
  },
  {
    name: "Stop, Mend, Watch",
    of: ({ findings }) => `${findings.stop}, ${findings.mend}, ${findings.watch}`,
    worth: ({ findings }) => -(findings.stop * 1e6 + findings.mend * 1e3 + findings.watch),
  },
];

function Figures({ plans, differences }: { plans: readonly Plan[]; differences: number }) {
  const { job, book, dispatch } = useJob();
  const figures = useMemo(() => plans.map((plan) => planFigures(job, plan, book)), [job, plans, book]);
  const isPriced = figures.some(({ cost }) => cost !== null);
  const shown = rows(useTrade(), (id) => nameOf(job, id)).filter((row) => isPriced || !row.isOfPrices);
  const best = (row: Row, at: PlanFigures) => {
    const worths = figures.map(row.worth);
    const own = row.worth(at);
    return (
      own !== null &&
      worths.every((worth) => worth === null || worth <= own) &&
      worths.some((worth) => worth !== own)
    );
  };
  return (
    <Strip tabIndex={0} role="region" aria-label="Plans side by side">
      <Table>
        <thead>
          <tr>
            <th>Plan</th>
            {shown.map(({ name }) => (
              <th key={name} className="n">
                {name}
              </th>
            ))}
            <th>{differences} differ</th>
          </tr>
        </thead>
        <tbody>
          {figures.map((one) => (
            <tr key={one.planId}>
              <td>
                <b>{one.name}</b>
                {one.planId === job.currentPlanId && ", current"}
              </td>
              {shown.map((row) => (
                <td key={row.name} className="n">
                  {best(row, one) ? (
                    <b>
                      {row.of(one)}{" "}
                      <span role="img" aria-label="better">
                        ✓
                      </span>
                    </b>
                  ) : (
                    row.of(one)
                  )}
                </td>
              ))}
              <td>
                {one.planId !== job.currentPlanId && (
                  <Button $quiet onPress={() => void dispatch({ name: "choosePlan", id: one.planId })}>
                    Work on it
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Strip>
  );
}

/** Drawn from the other plan's side what is only there is new, what it has not is gone. */
const seenFrom = (differences: ReadonlyMap<Id, Difference>): Map<Id, Difference> =>
  new Map(
    [...differences].map(([id, one]) => [
      id,
      one === "added" ? "removed" : one === "removed" ? "added" : one,
    ]),
  );

export function useDifferences(other: Plan | null): {
  here: Map<Id, Difference>;
  there: Map<Id, Difference>;
} {
  const { plan } = useJob();
  return useMemo(() => {
    const here = other ? planDifferences(other, plan) : new Map<Id, Difference>();
    return { here, there: seenFrom(here) };
  }, [plan, other]);
}

/** The other plan under the current one: its figures beside ours, its drawing with what differs marked. */
export function OtherPlan({ other, scale }: { other: Plan; scale: number }) {
  const { job, plan, lineUp, select, selectedId } = useJob();
  const network = useMemo(() => buildNetwork(job, other), [job, other]);
  const placed = usePlumbing(network);
  const { there } = useDifferences(other);
  const verdict = useMemo(() => {
    const same =
      other.lineUps.find(({ id, name }) => id === lineUp?.id || name === lineUp?.name) ?? other.lineUps[0];
    return same ? judgeLineUp(new LineUpSolver(network), same, other.conditions) : null;
  }, [network, other, lineUp]);
  const plans = useMemo(() => [plan, other], [plan, other]);
  return (
    <>
      <Figures plans={plans} differences={there.size} />
      <Drawing tabIndex={0} role="region" aria-label={`Plumbing of ${other.name}`}>
        {placed && (
          <svg
            width={placed.width * scale}
            height={placed.height * scale}
            viewBox={`0 0 ${placed.width} ${placed.height}`}
          >
            <Plumbing
              network={network}
              placed={placed}
              verdict={verdict}
              units={job.units}
              selectedId={selectedId}
              glowIds={none}
              onSelect={select}
              scale={scale}
              differences={there}
            />
          </svg>
        )}
      </Drawing>
    </>
  );
}

const none: readonly Id[] = [];
