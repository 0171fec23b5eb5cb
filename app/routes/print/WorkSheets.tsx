/** Sheets of the work: the order with its holds and what is undone, torques, leaks, and what it will take. */

import { useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import { entriesOf } from "~/core/book/entries";
import { planJoints } from "~/core/joints/joints";
import { estimateOf } from "~/core/order/estimate";
import { progressOf, startsFrom, trulyHeld } from "~/core/order/progress";
import { portKey } from "~/core/plan/ports";
import { leakStates } from "~/core/work/leakStates";
import { leakTest } from "~/core/work/leakTest";
import { positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { leakStateNames, underText } from "~/messages/leaks";
import { minutesText } from "~/messages/service";
import { dayText } from "~/messages/when";
import {
  cautionText,
  holdText,
  namer,
  placeTexts,
  stepText,
  toolsText,
  undoneText,
} from "~/messages/workOrder";
import { useJob, useTrade } from "~/state/job";

/** What is typed on paper that stays white by night too; it is not printed. */
const Rate = styled.div`
  max-width: 280px; background: var(--ground); padding: 8px; color: var(--ink);
  @media print { display: none; }
`;

function useProgress() {
  const { job, plan, book } = useJob();
  const [asked] = useSearchParams();
  const from = asked.get("from");
  return useMemo(() => {
    const before = startsFrom(job, plan, from);
    return { before, progress: progressOf(job, before, plan, book), name: namer(job, before, plan) };
  }, [job, plan, book, from]);
}

/** Every step in its order, with what holds it, what to mind and what is undone. */
export function WorkSheet() {
  const { job, plan, book } = useJob();
  const trade = useTrade();
  const { before, progress, name } = useProgress();
  const joints = useMemo(() => planJoints(job, plan), [job, plan]);
  const asides = entriesOf(book, "holdAside").filter(({ planId }) => planId === plan.id);
  return (
    <>
      <h1>
        {job.name}: work order, {plan.name}
      </h1>
      <p>
        {before ? `From ${before.name}.` : "From nothing."} {progress.done.size} of {progress.steps.length}{" "}
        steps done.
      </p>
      <table>
        <thead>
          <tr>
            <th>Step</th>
            <th>What</th>
            <th>Where</th>
            <th>Takes</th>
            <th>Done</th>
          </tr>
        </thead>
        <tbody>
          {progress.steps.map((step, i) => {
            const holds = trulyHeld(progress, step);
            const caution = cautionText(step, joints);
            return (
              <tr key={step.id}>
                <td>{i + 1}</td>
                <td>
                  <b>{stepText(job, before, plan, step)}</b>
                  {caution && <div>{caution}</div>}
                  {toolsText(step.verb) && <div>With {toolsText(step.verb)}.</div>}
                  {step.litresM3 > 0 && <div>{trade.pan(step.litresM3)} into the pan, at the least.</div>}
                  {holds[0] && <div>Held: {holdText(holds[0], name)}</div>}
                </td>
                <td>{placeTexts[step.place] ?? step.place}</td>
                <td>
                  {minutesText(step.workMin * 60)}
                  {step.people > 1 && `, ${step.people} people`}
                  {step.waitMin > 0 && `, then wait ${minutesText(step.waitMin * 60)}`}
                </td>
                <td>{progress.done.has(step.id) ? "✓" : ""}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <h2>Undone and not yet redone</h2>
      {progress.ledger.length === 0 ? (
        <p>Nothing.</p>
      ) : (
        <ul>
          {progress.ledger.map((one) => (
            <li key={`${one.fact}${one.value}`}>◇ {undoneText(one, name)}</li>
          ))}
        </ul>
      )}
      {asides.length > 0 && (
        <>
          <h2>Holds set aside</h2>
          <ul>
            {asides.map(({ id, stepId, reason, by }) => (
              <li key={id}>
                {stepId}: {reason} ({by})
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}

/** Every joint that is made, with what it was set to, with what and when; the rest to be filled in by hand. */
export function TorqueSheet() {
  const { job, plan, book } = useJob();
  const trade = useTrade();
  const { before, progress } = useProgress();
  const set = entriesOf(book, "torqueSet").filter(({ planId }) => planId === plan.id);
  const joins = progress.steps.filter(({ verb, port }) => verb === "join" && port !== undefined);
  return (
    <>
      <h1>
        {job.name}: torques, {plan.name}
      </h1>
      <p>
        The maker's figure first. New washers, the old ones counted out; a second spanner on plastic. The
        high-pressure side belongs to a licensed workshop.
      </p>
      <table>
        <thead>
          <tr>
            <th>Joint</th>
            <th>Maker's figure</th>
            <th>Set to</th>
            <th>With</th>
            <th>When</th>
          </tr>
        </thead>
        <tbody>
          {joins.map((step) => {
            const key = portKey({ part: step.of[0] ?? "", port: step.port ?? "" });
            const last = set.findLast(({ joint }) => portKey(joint) === key);
            return (
              <tr key={step.id}>
                <td>{stepText(job, before, plan, step)}</td>
                <td />
                <td>{last ? trade.moment(last.momentNM) : ""}</td>
                <td>{last?.tool ?? ""}</td>
                <td>{last ? dayText(last.at) : ""}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}

/** Every joint of the line-up in each state, and what was seen. */
export function LeakSheet() {
  const { job, plan, book, network, lineUp, stored } = useJob();
  if (!lineUp) return <p>No line-up is chosen.</p>;
  return (
    <>
      <h1>
        {job.name}: leak test, {lineUp.name}
      </h1>
      <p>Dry cloth, no flame. A joint under vacuum shows no drop: look for bubbles after it.</p>
      {leakStates.map((state) => {
        const { wetted } = leakTest(network, lineUp, plan.conditions, state, book, stored?.way ?? null);
        return (
          <section key={state}>
            <h2>{leakStateNames[state]}</h2>
            <table>
              <thead>
                <tr>
                  <th>Joint</th>
                  <th>Stands</th>
                  <th>Seen</th>
                </tr>
              </thead>
              <tbody>
                {wetted.map((joint) => (
                  <tr key={joint.key}>
                    <td>
                      {joint.partName}, {joint.portName}
                    </td>
                    <td>{underText(joint.now, joint.nowPa, job.units)}</td>
                    <td>{joint.check?.result ?? ""}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        );
      })}
    </>
  );
}

/** What the customer is told it takes: hours, people, parts, and what is assumed; at the shop's own rate. */
export function EstimateSheet() {
  const { job, plan } = useJob();
  const trade = useTrade();
  const { before, progress } = useProgress();
  const [rate, setRate] = useState<number | undefined>();
  const estimate = estimateOf(job, plan, progress, 1, rate ?? null);
  return (
    <>
      <h1>
        {job.name}: estimate, {plan.name}
      </h1>
      <Rate>
        <QuantityField
          label="Your rate for an hour of one pair of hands"
          dimension="ratio"
          unit=""
          value={rate}
          check={positive}
          onCommit={setRate}
        />
      </Rate>
      <p>{before ? `From ${before.name} to ${plan.name}.` : `${plan.name}, from nothing.`}</p>
      <table>
        <thead>
          <tr>
            <th>Where</th>
            <th>Hands</th>
            <th>Waits</th>
          </tr>
        </thead>
        <tbody>
          {estimate.places.map(({ place, handsMin, waitMin }) => (
            <tr key={place}>
              <td>{placeTexts[place] ?? place}</td>
              <td>{minutesText(handsMin * 60)}</td>
              <td>{waitMin > 0 ? minutesText(waitMin * 60) : ""}</td>
            </tr>
          ))}
          <tr>
            <td>
              <b>In all</b>
            </td>
            <td>
              <b>{minutesText(estimate.handsMin * 60)}</b>
            </td>
            <td>{minutesText(estimate.elapsedMin * 60)} from first to last</td>
          </tr>
        </tbody>
      </table>
      {estimate.labour !== null && <p>Labour at that rate: {Math.round(estimate.labour)}.</p>}
      <p>
        {estimate.parts} parts and {trade.run(estimate.hoseM)} of hose; ends, washers and clamps by the list
        to buy.
      </p>
      <p>
        Minutes by a table of common practice, not measured on this {job.kind}. Not in it: what is found when
        it is opened, parts that come late, travel, and work that belongs to a licensed trade.
      </p>
    </>
  );
}
