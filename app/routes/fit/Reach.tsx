/*
 * Decides: whether each filter can be changed where it hangs, what would make it quicker, and what comes out of and with a tank.
 * Seen in three seconds: minutes and millilitres of each change, what costs the time, what is in the way.
 */
import { useMemo } from "react";
import styled from "styled-components";
import { boardsJudged } from "~/core/boards/board";
import type { Tank } from "~/core/plan/types";
import { GOOD_CHANGE_S } from "~/core/service/elementChange";
import { type PlanChange, planChanges } from "~/core/service/planChanges";
import { holeFaults } from "~/core/tanks/opening";
import { wayOutLacks } from "~/core/tanks/wayOut";
import { positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { counted } from "~/messages/counted";
import { minutesText, serviceStepTexts } from "~/messages/service";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Caution, Sheet } from "~/ui/place";
import { Table } from "~/ui/table";

const Bar = styled.div`
  position: relative; display: flex; height: 26px; border: 1.4px solid var(--ink); background: var(--panel); max-width: 100%;
  i { display: block; height: 100%; border-right: 1px solid var(--raised); background: var(--idle); }
  i[data-blocked="true"] { background: repeating-linear-gradient(45deg, var(--danger) 0 3px, var(--raised) 3px 6px); }
`;
const Track = styled.div`
  position: relative; padding-bottom: 18px;
  > b { position: absolute; top: -4px; bottom: 0; width: 0; border-left: 2.4px solid var(--danger); font-size: 12px; font-weight: 600; padding-left: 4px; white-space: nowrap; display: flex; align-items: flex-end; }
`;
const Hatch = styled.div`
  display: grid; grid-template-columns: 110px 110px; gap: 6px;
`;
const Steps = styled.ol`
  columns: 2 260px; margin: 8px 0 0; padding-left: 24px;
  li { break-inside: avoid; }
  [data-blocked="true"] { color: var(--danger); font-weight: 650; }
`;

export function Reach() {
  const { job, plan, solver, select } = useJob();
  const trade = useTrade();
  const changes = useMemo(
    () => planChanges(solver, plan.conditions, boardsJudged(job, plan), job.kind),
    [job, plan, solver],
  );
  const longest = Math.max(GOOD_CHANGE_S * 1.15, ...changes.map(({ change }) => change.seconds));
  return (
    <>
      {changes.length === 0 && <Sheet>No filter in this plan: nothing to change.</Sheet>}
      {changes.map(({ part, change, isDuplex, board }: PlanChange) => (
        <Sheet key={part.id}>
          <h3>
            <Button $quiet onPress={() => select(part.id)}>
              {part.name}
            </Button>{" "}
            {minutesText(change.seconds)}, {trade.pan(change.cupM3)} into the cup
            {change.spilledM3 > 0 && `, ${trade.pan(change.spilledM3)} beside it`}
          </h3>
          <Track>
            <Bar
              role="img"
              aria-label={`${minutesText(change.seconds)} of work`}
              style={{ width: `${(100 * change.seconds) / longest}%` }}
            >
              {change.steps.map(({ id, seconds, isBlocked }, i) => (
                <i
                  key={`${id}${i}`}
                  data-blocked={isBlocked}
                  style={{ flexGrow: seconds, opacity: i % 2 === 0 ? 1 : 0.7 }}
                  title={`${serviceStepTexts[id]}: ${minutesText(seconds)}`}
                />
              ))}
            </Bar>
            <b style={{ left: `${(100 * GOOD_CHANGE_S) / longest}%` }}>15 min</b>
          </Track>
          <p style={{ margin: 0 }}>
            {isDuplex ? "The engine runs on meanwhile, on the other filter." : "The engine stands meanwhile."}{" "}
            {board === null
              ? "It hangs on no board: what stands round it is not known."
              : change.steps.some(({ isBlocked }) => isBlocked)
                ? `On ${board}, with rooms taken or out of reach: those steps take twice as long.`
                : `On ${board}, every room free.`}
          </p>
          <details>
            <summary style={{ cursor: "pointer", paddingTop: 6 }}>{change.steps.length} steps</summary>
            <Steps>
              {change.steps.map(({ id, seconds, cupM3, isBlocked }, i) => (
                <li key={`${id}${i}`} data-blocked={isBlocked}>
                  {serviceStepTexts[id]}: {minutesText(seconds)}
                  {cupM3 > 0 && `, ${trade.pan(cupM3)}`}
                  {isBlocked && ", its room is taken or out of reach"}
                </li>
              ))}
            </Steps>
          </details>
        </Sheet>
      ))}
      <TanksOut />
      <Caution>
        Seconds a step are common practice: your own timings go first. Gloves and eye protection, no flame,
        pan and rag before anything is opened; fuel on a hot exhaust burns. The filter maker's manual goes
        before this list.
      </Caution>
    </>
  );
}

/** What is lifted out of each tank and the tank out of its place, against the room there is. */
function TanksOut() {
  const { job, select, dispatch } = useJob();
  const { length } = useTrade();
  if (job.tanks.length === 0) return null;
  const setOut = (tank: Tank, side: "widthM" | "heightM", m: number) =>
    void dispatch({
      name: "editTank",
      id: tank.id,
      change: { wayOut: { widthM: m, heightM: m, ...tank.wayOut, [side]: m } },
    });
  return (
    <Sheet>
      <h3>Out of the tank, and the tank out</h3>
      <Table>
        <thead>
          <tr>
            <th>Tank</th>
            <th>Lifted out of its plate</th>
            <th>Hatch it must pass</th>
            <th>The tank itself</th>
          </tr>
        </thead>
        <tbody>
          {job.tanks.map((tank) => {
            const lacks = wayOutLacks(tank);
            const holes = tank.opening?.holes ?? [];
            const short = holeFaults(tank).flatMap((fault) => (fault.code === "noRoomAbove" ? [fault] : []));
            return (
              <tr key={tank.id}>
                <td>
                  <Button $quiet onPress={() => select(tank.id)}>
                    {tank.name}
                  </Button>
                </td>
                <td>
                  {tank.opening
                    ? `${counted(holes.length, "part")} under ${length(tank.opening.roomAboveM)}: ${short.length === 0 ? "each lifts out" : short.map(({ holeId, shortM }) => `the ${holes.find(({ id }) => id === holeId)?.use ?? "part"} lacks ${length(shortM)}`).join(", ")}`
                    : "no plate surveyed"}
                </td>
                <td>
                  <Hatch>
                    {(["widthM", "heightM"] as const).map((side) => (
                      <QuantityField
                        key={side}
                        label={side === "widthM" ? "One way" : "Other way"}
                        dimension="length"
                        unit={job.units.length}
                        value={tank.wayOut?.[side]}
                        check={positive}
                        onCommit={(m) => setOut(tank, side, m)}
                      />
                    ))}
                  </Hatch>
                </td>
                <td>
                  {!lacks
                    ? "not measured"
                    : lacks.shortM + lacks.longM === 0
                      ? "comes out"
                      : `lacks ${[lacks.shortM, lacks.longM]
                          .filter((m) => m > 0)
                          .map(length)
                          .join(" and ")}`}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Table>
    </Sheet>
  );
}
