/** Sheets of the fitting: clips by run, labels for hose ends, cut cards of tubes, and the list of holes. */
import { useMemo } from "react";
import styled from "styled-components";
import { passageHoles, sawsOf } from "~/core/boards/passages";
import { sawsIn } from "~/core/parts/buying";
import { CLIP_AT_END_M, clipCounts, clipLines } from "~/core/parts/clips";
import { cutCard } from "~/core/parts/cutCard";
import { runSheet } from "~/core/parts/partsList";
import { lyingRuns } from "~/core/plan/lying";
import { runSides } from "~/core/work/runSides";
import { bandPaint, clipWhyTexts, cutStepText, labelText } from "~/messages/fit";
import { edgeTexts, passageTexts } from "~/messages/passages";
import { useBox } from "~/state/box";
import { useJob, useTrade } from "~/state/job";

const Labels = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(220px, 1fr)); gap: 6px;
  > div { border: 1px solid #111; padding: 6px 8px; display: grid; grid-template-columns: 12px 1fr; gap: 8px; break-inside: avoid; }
  > div > i { background: #111; }
  > div[data-side="return"] > i { background: repeating-linear-gradient(0deg, #111 0 5px, #fff 5px 10px); }
  > div[data-side="none"] > i { background: none; }
  b { display: block; font-size: 16px; } small { font-size: 12px; }
`;

/** Its colour is told in words too. */
const Band = styled.span`
  display: block; width: fit-content; padding: 0 8px; margin: 2px 0; color: #fff; font-size: 12px; font-weight: 700;
  text-shadow: 0 0 2px #000, 0 0 2px #000; print-color-adjust: exact;
`;

/** Every clip with its place along the run, and how many of each size. */
export function ClipSheet() {
  const { job, plan } = useJob();
  const { length } = useTrade();
  const lines = clipLines(job, plan);
  return (
    <>
      <h1>{job.name}: clips</h1>
      <p>
        {clipCounts(lines)
          .map(({ outsideM, count }) => `${count} for ${length(outsideM)} outside`)
          .join("; ")}
        . Ties in place of clips only where nothing hot or moving is near.
      </p>
      <table>
        <thead>
          <tr>
            <th>Run</th>
            <th>Outside</th>
            <th>Clips, from the first end</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.runId}>
              <td>
                {line.from} to {line.to}
              </td>
              <td>{length(line.outsideM)}</td>
              <td>
                {line.clips.map(({ atM, why }) => `${length(atM)} ${clipWhyTexts[why]}`).join("; ")}
                {line.besideBends > 0 && `; and ${line.besideBends} beside its bends`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** Two labels a run, one an end; a return's bar is broken, so that it is told without colour. */
export function LabelSheet() {
  const { job, plan, solver } = useJob();
  const { length } = useTrade();
  const sides = useMemo(() => runSides(solver, plan, plan.conditions), [solver, plan]);
  return (
    <>
      <h1>{job.name}: labels</h1>
      <p>
        Print on film, wrap an end each within {length(CLIP_AT_END_M)} of its joint. A full bar feeds a
        consumer, a broken bar returns from it, none is neither.
      </p>
      <Labels>
        {lyingRuns(job, plan).flatMap(({ run, from, to, line }) =>
          [from, to].map((end, i) => (
            <div key={`${run.id}${i}`} data-side={sides.get(run.id) ?? "none"}>
              <i />
              <span>
                <b>{labelText(run, from.ownerName, line ? to.name : to.ownerName)}</b>
                {run.colour && <Band style={{ background: bandPaint[run.colour] }}>{run.colour}</Band>}
                <small>
                  goes on {end.ownerName}, {end.name}
                </small>
              </span>
            </div>
          )),
        )}
      </Labels>
    </>
  );
}

/** What is done to each rigid tube, in its order. */
export function CutSheet() {
  const { job, plan, network } = useJob();
  const { length } = useTrade();
  const lines = runSheet(job, plan);
  const cards = lyingRuns(job, plan).flatMap((lying) => cutCard(plan, lying) ?? []);
  return (
    <>
      <h1>{job.name}: cut cards</h1>
      {cards.length === 0 && <p>No rigid tube in this plan.</p>}
      {cards.map((card) => {
        const line = lines.find(({ id }) => id === card.runId);
        return (
          <section key={card.runId} style={{ breakInside: "avoid" }}>
            <h3>
              {line ? `${line.from} to ${line.to}` : network.plan.name}: cut to {length(card.cutM)}
            </h3>
            <ol>
              {(card.steps ?? []).map((step, i) => (
                <li key={`${step.kind}${i}`}>{cutStepText(step, length)}</li>
              ))}
            </ol>
            {card.steps === null && <p>Its route was not traced: no marks.</p>}
          </section>
        );
      })}
    </>
  );
}

/** Every hole with its saw, its place, and what its edge needs. */
export function HoleSheet() {
  const { job, plan, say } = useJob();
  const { length } = useTrade();
  const box = useBox(say);
  const holes = passageHoles(plan, sawsOf(job.units), sawsIn(box.items));
  return (
    <>
      <h1>{job.name}: holes</h1>
      <p>
        Battery off, eyes covered. Look behind each before the saw starts; catch the swarf, count every piece
        out: {holes.length} cores.
      </p>
      <table>
        <thead>
          <tr>
            <th>Hole</th>
            <th>Saw</th>
            <th>From two edges</th>
            <th>Edge</th>
            <th>Not settled</th>
          </tr>
        </thead>
        <tbody>
          {holes.map(({ passage, saw, isOwned, edge, faults }) => (
            <tr key={passage.id}>
              <td>{passage.name}</td>
              <td>
                {saw.saw ? (isOwned ? `your ${length(saw.saw.diameterM)}` : saw.saw.name) : "none fits"}
              </td>
              <td>{passage.fromEdgeM?.map(length).join(" and ") ?? "not told"}</td>
              <td>{edgeTexts[edge]}</td>
              <td>{faults.map((fault) => passageTexts[fault][0]).join("; ")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
