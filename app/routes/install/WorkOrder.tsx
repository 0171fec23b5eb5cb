/*
 * Decides: what to do next, and what must not be forgotten.
 * Seen in three seconds: the next step with its caution, what holds it, what is undone and not yet redone, the hours left.
 */

import { Check, Lock, Printer } from "lucide-react";
import { useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import styled from "styled-components";
import { wordOf } from "~/core/air/content";
import { entriesOf } from "~/core/book/entries";
import { planJoints } from "~/core/joints/joints";
import { commonTorquesNM } from "~/core/joints/torque";
import type { Fact, WorkStep } from "~/core/order/facts";
import { interimOf } from "~/core/order/interim";
import { type KitSource, kitOf } from "~/core/order/kit";
import { overPan, PAN_M3 } from "~/core/order/pans";
import {
  FROM_NOTHING,
  hoursLeft,
  makerOf,
  type Progress,
  progressOf,
  startsFrom,
  untilDelivery,
} from "~/core/order/progress";
import { riskSpares } from "~/core/parts/buying";
import { clipLines } from "~/core/parts/clips";
import { type Job, type Plan, type PortRef, schoolOf } from "~/core/plan/types";
import { contentAfter } from "~/core/work/opened";
import { positive } from "~/fields/checks";
import { Photos } from "~/fields/Photos";
import { QuantityField } from "~/fields/QuantityField";
import { TakeReadings } from "~/fields/TakeReadings";
import { Term } from "~/fields/Term";
import { buyText } from "~/messages/buying";
import { counted } from "~/messages/counted";
import { provisionalOf } from "~/messages/notes";
import { minutesText } from "~/messages/service";
import { momentText } from "~/messages/when";
import {
  awaitedText,
  cautionText,
  holdText,
  interimText,
  namer,
  orderFaultText,
  placeTexts,
  stepIdText,
  stepText,
  stepWords,
  toolsText,
  undoneText,
  waitText,
} from "~/messages/workOrder";
import { Plumbing } from "~/plumbing/Plumbing";
import { usePlumbing } from "~/plumbing/usePlumbing";
import { useJob, useTrade } from "~/state/job";
import { KeepAwake } from "~/ui/awake";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { Select, TextField } from "~/ui/fields";
import { Sheet } from "~/ui/place";
import { useNarrow } from "~/ui/useNarrow";
import { PlanDrawing } from "./PlanDrawing";

const Next = styled.section`
  margin: 0 16px 10px; background: var(--raised); border: 1px solid var(--hairline); padding: 10px 14px;
  h3 { font-size: 26px; line-height: 1.15; margin: 2px 0 4px; b { font-weight: 800; } }
  .small { color: var(--soft); margin: 0; }
  .caution { border-left: 5px solid var(--danger); padding-left: 9px; font-weight: 600; margin: 6px 0; }
  .held { display: flex; gap: 8px; align-items: center; font-weight: 650; margin: 6px 0; }
`;
const Row = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px; align-items: center; margin-top: 8px;
`;
/** What is done beside what it is: the tick at the right hand's thumb. */
const Beside = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px 16px; align-items: center;
  > :first-child { flex: 1 1 320px; min-width: 0; }
  > :last-child { display: flex; flex-wrap: wrap; gap: 8px; margin: 0; }
  @media (max-width: 600px) { > :last-child { flex: 1 1 100%; } }
`;
const Tick = styled(Button)`
  && { min-height: 72px; min-width: 190px; font-size: 20px; }
  @media (max-width: 600px) { && { flex: 1; } }
`;
const Columns = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) 260px; gap: 0;
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
`;
const Ledger = styled(Sheet)`
  h3 { display: flex; justify-content: space-between; }
  ul { list-style: none; margin: 0; padding: 0; }
  li { display: flex; justify-content: space-between; gap: 8px; border-bottom: 1px solid var(--hairline); padding: 4px 0; }
  li::before { content: "◇ "; }
  li span { flex: 1; }
  li small { color: var(--soft); }
`;
const Band = styled.button`
  display: grid; grid-template-columns: minmax(110px, 150px) 56px 64px 76px minmax(0, 1fr); gap: 8px; width: 100%; align-items: center; text-align: left; border: 0; border-bottom: 1px solid var(--hairline); background: none; color: inherit; font: inherit; padding: 3px 0; min-height: 36px; cursor: pointer;
  @media (pointer: coarse) { min-height: 48px; }
  @media (max-width: 600px) { grid-template-columns: minmax(90px, 1fr) 40px 58px 62px; svg { display: none; } }
  &[aria-expanded="true"] { font-weight: 650; }
  &:focus-visible { outline: 2px solid var(--act); outline-offset: -2px; }
  > :nth-child(n + 2):nth-child(-n + 4) { text-align: right; }
`;
const Steps = styled.ol`
  margin: 4px 0 8px; padding: 0; list-style: none;
  li { display: grid; grid-template-columns: 36px 1fr auto; gap: 8px; align-items: center; min-height: 36px; border-bottom: 1px dotted var(--hairline); }
  li[data-done="true"] { color: var(--soft); }
  @media (pointer: coarse) { li { min-height: 48px; } }
`;
const Prints = styled.nav`
  display: flex; flex-wrap: wrap; gap: 4px 12px; align-items: center; align-self: flex-end;
  a { color: var(--act); display: inline-flex; align-items: center; min-height: max(28px, var(--finger)); }
  @media print { display: none; }
`;
const sheets = [
  ["work", "Order"],
  ["torque", "Torques"],
  ["leak", "Leak sheet"],
  ["estimate", "Estimate"],
] as const;

export function WorkOrder() {
  const { job, plan, book, network, enter, dispatch, stored, selectedId, select, chooseLineUp } = useJob();
  const trade = useTrade();
  const placed = usePlumbing(network);
  const isNarrow = useNarrow();
  const [asked, ask] = useSearchParams();
  const from = asked.get("from");
  const before = startsFrom(job, plan, from);
  const setFrom = (id: string) => {
    const next = new URLSearchParams(asked);
    next.set("from", id);
    ask(next, { replace: true, preventScrollReset: true });
  };
  const progress = useMemo(() => progressOf(job, before, plan, book), [job, before, plan, book]);
  const [people, setPeople] = useState<1 | 2>(1);
  const ahead = useMemo(() => hoursLeft(progress, people), [progress, people]);
  const waits = useMemo(() => {
    const name = namer(job, before, plan);
    return [
      waitText(untilDelivery(progress, plan, people), name),
      interimText(interimOf(job, before, plan, progress, people), name),
    ].filter(Boolean);
  }, [progress, plan, people, job, before]);
  const [chosenId, choose] = useState<string | null>(null);
  const [aside, setAside] = useState<Fact | null>(null);
  const chosen = progress.steps.find(({ id }) => id === chosenId && !progress.done.has(id));
  const shown = chosen ? { step: chosen, holds: progress.holds.get(chosen.id) ?? [] } : progress.next;
  const source = useMemo<KitSource>(
    () => ({ job, plan, joints: planJoints(job, plan), clips: clipLines(job, plan) }),
    [job, plan],
  );
  const kit = (shown ? kitOf(source, shown.step) : []).map(
    ({ what, count }) => `${count} × ${buyText(what, job.units)}`,
  );
  const caution = shown && cautionText(shown.step, source.joints);
  const tick = (step: WorkStep, isDone: boolean) => {
    choose(null);
    void enter({ kind: "stepDone", stepId: step.id, isDone });
  };
  const options = [
    { id: FROM_NOTHING, name: "nothing there yet" },
    ...job.plans.filter(({ id }) => id !== plan.id).map(({ id, name }) => ({ id, name })),
  ];
  const head = (
    <Row style={{ margin: "0 16px 8px" }}>
      <div style={{ minWidth: 200 }}>
        <Select label="From" value={before ? before.id : FROM_NOTHING} options={options} onChange={setFrom} />
      </div>
      {job.plans.length > 1 && (
        <div style={{ minWidth: 200 }}>
          <Select
            label="To"
            value={plan.id}
            options={job.plans}
            onChange={(id) => void dispatch({ name: "choosePlan", id })}
          />
        </div>
      )}
      <p style={{ flex: 1, margin: 0, minWidth: 200, fontWeight: 600, alignSelf: "flex-end" }}>
        {summary(progress, ahead.finishMin, people)}
        {waits.map((text) => ` ${text}`)}
      </p>
      <Button
        onPress={() => setPeople(people === 1 ? 2 : 1)}
        aria-label={`Planned for ${counted(people, "person")}; press for ${people === 1 ? "two" : "one"}`}
      >
        {people === 1 ? "One person" : "Two people"}
      </Button>
      <KeepAwake />
      <Prints aria-label="To print">
        <Printer size={16} aria-hidden />
        {sheets.map(([id, text]) => (
          <Link key={id} to={`/job/${job.id}/print/${id}${from ? `?from=${from}` : ""}`}>
            {text}
          </Link>
        ))}
      </Prints>
    </Row>
  );
  return (
    <>
      {/* On a phone the step that is next stands first, under the thumb. */}
      {!isNarrow && head}
      {progress.fault && (
        <Sheet role="alert">{orderFaultText(progress.fault, namer(job, before, plan))}</Sheet>
      )}
      {shown && (
        <Next aria-label="The next step" aria-live="polite">
          <Beside>
            <div>
              <p className="small">
                {shown === progress.next ? "Next" : "Chosen"}, step {progress.steps.indexOf(shown.step) + 1}{" "}
                of {progress.steps.length}, {(placeTexts[shown.step.place] ?? "").toLowerCase()};{" "}
                {minutesText(shown.step.workMin * 60)}
                {shown.step.waitMin > 0 && ` and ${minutesText(shown.step.waitMin * 60)} to wait`},{" "}
                {counted(shown.step.people, "person")}
                {toolsText(shown.step.verb) && `; ${toolsText(shown.step.verb)}`}
              </p>
              <StepTitle step={shown.step} before={before} />
              {caution && <p className="caution">{caution}</p>}
              {kit.length > 0 && <p className="small">Lay out: {kit.join("; ")}.</p>}
              {shown.step.litresM3 > 0 && <p className="small">{intoPanText(shown.step, job, trade)}</p>}
              {shown.holds.length > 0 && (
                <p className="held">
                  <Lock size={18} aria-hidden />
                  <Term of="hold">Held</Term>. {holdText(shown.holds[0] as Fact, namer(job, before, plan))}
                  {shown.holds.length > 1 && ` And ${counted(shown.holds.length - 1, "thing")} more.`}
                </p>
              )}
              {shown.step.verb === "bleed" && (
                <p>
                  <Link
                    to={`/job/${job.id}/bleed?content=${wordOf(contentAfter(progress.steps))}`}
                    onClick={() => chooseLineUp(shown.step.of[0] ?? "")}
                  >
                    Bleed it by what this work opened
                  </Link>
                </p>
              )}
              {pictured(job, plan, shown.step) && (
                <Photos ofId={shown.step.of[0] ?? ""} name={stepText(job, before, plan, shown.step)} />
              )}
              {shown.step.verb === "baseline" && <TakeReadings isBaseline />}
              {shown.step.verb === "join" && shown.step.port !== undefined && (
                <Torque joint={{ part: shown.step.of[0] ?? "", port: shown.step.port }} />
              )}
            </div>
            <Row>
              <Tick $main isDisabled={shown.holds.length > 0} onPress={() => tick(shown.step, true)}>
                <Check size={26} /> Done
              </Tick>
              {shown.holds.length > 0 && (
                <>
                  <Button onPress={() => choose(makerOf(progress, shown.holds[0] as Fact)?.id ?? null)}>
                    Go to what holds it
                  </Button>
                  <Button onPress={() => setAside(shown.holds[0] as Fact)}>Set this hold aside…</Button>
                </>
              )}
              {chosen && <Button onPress={() => choose(null)}>Back to the next</Button>}
            </Row>
          </Beside>
        </Next>
      )}
      {isNarrow && head}
      <Columns>
        <div style={{ minWidth: 0 }}>
          {placed && (
            <PlanDrawing
              placed={placed}
              label="The plan with what is tight ticked, the next step marked and what is covered hatched"
            >
              {(scale) => (
                <Plumbing
                  network={network}
                  placed={placed}
                  verdict={stored}
                  units={job.units}
                  selectedId={selectedId}
                  glowIds={shown ? [...shown.step.of] : []}
                  hiddenIds={progress.hidden}
                  onSelect={select}
                  scale={scale}
                  doneKeys={progress.tight}
                />
              )}
            </PlanDrawing>
          )}
          <Sheet>
            <h3>By place</h3>
            <Bands progress={progress} ahead={ahead} before={before} onTick={tick} onChoose={choose} />
          </Sheet>
        </div>
        <LedgerOf progress={progress} before={before} />
      </Columns>
      {aside && shown && (
        <SetAside
          text={holdText(aside, namer(job, before, plan))}
          onClose={() => setAside(null)}
          onDone={(reason, by) => {
            setAside(null);
            void enter({ kind: "holdAside", stepId: shown.step.id, fact: aside.fact, reason, by });
          }}
        />
      )}
    </>
  );
}

function summary({ outcome, steps, done }: Progress, finishMin: number, people: number): string {
  if (outcome === "nothing") return "Nothing differs: there is no work.";
  const left = steps.length - done.size;
  if (steps.length > 0 && left === 0) return `All ${steps.length} steps are done.`;
  return `${done.size} of ${steps.length} steps done; ${minutesText(finishMin * 60)} left for ${counted(people, "person")}.`;
}

/** What comes out, and where one pan is not enough for it. */
const intoPanText = (step: WorkStep, { panM3 }: Job, trade: ReturnType<typeof useTrade>): string =>
  [
    `${trade.pan(step.litresM3)} into the pan, at the least.`,
    overPan([step], panM3).length > 0 &&
      `More than a pan of ${trade.pan(panM3 ?? PAN_M3)} may be carried with: use a larger one.`,
  ]
    .filter(Boolean)
    .join(" ");

function StepTitle({ step, before }: { step: WorkStep; before: Plan | null }) {
  const { job, plan } = useJob();
  const { verb, object } = stepWords(job, before, plan, step);
  return (
    <h3>
      <b>{verb}</b> {object}
    </h3>
  );
}

/** A box as part of a path. */
const box = (x: number, y: number, width: number, height: number): string =>
  `M${x} ${y}h${width}v${height}h${-width}z`;

function Bands({
  progress,
  ahead,
  before,
  onTick,
  onChoose,
}: {
  progress: Progress;
  ahead: ReturnType<typeof hoursLeft>;
  before: Plan | null;
  onTick: (step: WorkStep, isDone: boolean) => void;
  onChoose: (id: string) => void;
}) {
  const { job, plan } = useJob();
  const trade = useTrade();
  const [shown, setShown] = useState<string | null>(null);
  const { done, byPlace, now } = progress;
  const width = 320;
  const px = (minute: number) => (minute / Math.max(1, ahead.finishMin)) * width;
  return byPlace.map(({ place, steps: mine, left, leftMin, leftM3 }) => {
    const open = new Set(left.map(({ id }) => id));
    const slots = ahead.slots.filter(({ id }) => open.has(id));
    const worked = (isCritical: boolean) =>
      slots
        .filter(({ id }) => ahead.critical.has(id) === isCritical)
        .map(({ startMin, workedMin }) =>
          box(px(startMin), 5, Math.max(0.6, px(workedMin) - px(startMin)), 12),
        )
        .join("");
    const waited = slots
      .filter(({ workedMin, doneMin }) => doneMin > workedMin)
      .map(({ workedMin, doneMin }) => box(px(workedMin), 8, px(doneMin) - px(workedMin), 6))
      .join("");
    return (
      <div key={place}>
        <Band
          type="button"
          aria-expanded={shown === place}
          onClick={() => setShown(shown === place ? null : place)}
        >
          <span>{placeTexts[place]}</span>
          <span>{left.length === 0 ? <Check size={16} aria-label="done" /> : left.length}</span>
          <span>{left.length === 0 ? "done" : minutesText(leftMin * 60)}</span>
          <span>{leftM3 > 0 ? trade.pan(leftM3) : ""}</span>
          <svg viewBox={`0 0 ${width} 22`} width="100%" height="22" preserveAspectRatio="none" aria-hidden>
            <path d={worked(false)} fill="var(--idle)" />
            <path d={worked(true)} fill="var(--ink)" />
            <path d={waited} fill="none" stroke="var(--ink)" strokeDasharray="2 2" />
          </svg>
        </Band>
        {shown === place && (
          <Steps>
            {mine.map((step) => {
              const isDone = done.has(step.id);
              const text = stepText(job, before, plan, step);
              return (
                <li key={step.id} data-done={isDone}>
                  <span>
                    {isDone ? (
                      <Check size={18} aria-label="done" />
                    ) : now.includes(step) ? (
                      "○"
                    ) : (
                      <Lock size={15} aria-label="held" />
                    )}
                  </span>
                  <span>
                    {text}
                    {step.litresM3 > 0 && `, ${trade.pan(step.litresM3)}`}
                  </span>
                  {isDone ? (
                    <Button
                      $quiet
                      aria-label={`Take the tick back: ${text}`}
                      onPress={() => onTick(step, false)}
                    >
                      take back
                    </Button>
                  ) : (
                    <Button $quiet aria-label={`Show: ${text}`} onPress={() => onChoose(step.id)}>
                      show
                    </Button>
                  )}
                </li>
              );
            })}
          </Steps>
        )}
      </div>
    );
  });
}

function LedgerOf({ progress, before }: { progress: Progress; before: Plan | null }) {
  const { job, plan } = useJob();
  const name = namer(job, before, plan);
  const { ledger, steps, asides, noLongerWanted, done } = progress;
  const awaited = (plan.awaited ?? [])
    .filter((id) => !done.has(`checkIn:${id}`))
    .map((id) => awaitedText(name(id), plan.deliveries?.[id]));
  const spares = useMemo(
    () => riskSpares(job, plan).map(({ what, count }) => `${count} × ${buyText(what, job.units)}`),
    [job, plan],
  );
  return (
    <Ledger aria-label="Undone and not yet redone">
      <h3>
        <span>
          <Term of="ledger">Undone</Term> {ledger.length}
        </span>
        <small>redone by step</small>
      </h3>
      {ledger.length === 0 && <p>Nothing is undone that is to be redone.</p>}
      <ul>
        {ledger.map((one) => (
          <li key={one.fact}>
            <span>{undoneText(one, name)}</span>
            <small>{one.redoneBy ? steps.findIndex(({ id }) => id === one.redoneBy) + 1 : "none"}</small>
          </li>
        ))}
      </ul>
      <Standing title="Taped and labelled, left so" lines={progress.taped.map(name)} />
      <Standing title="Awaited" lines={awaited} />
      <Standing title="For the time being only" lines={provisionalOf(job)} />
      <Standing title="In hand before it is undone" lines={spares} />
      {asides.length > 0 && (
        <>
          <h3>Holds set aside {asides.length}</h3>
          <ul>
            {asides.map(({ id, reason, by, stepId }) => {
              const step = steps.find((one) => one.id === stepId);
              return (
                <li key={id}>
                  <span>
                    {step ? stepText(job, before, plan, step) : stepId}: {reason}, {by}
                  </span>
                </li>
              );
            })}
          </ul>
        </>
      )}
      {noLongerWanted.length > 0 && (
        <p>
          {counted(noLongerWanted.length, "step")} were done that the plan no longer wants:{" "}
          {noLongerWanted.map((id) => stepIdText(id, name)).join("; ")}.
        </p>
      )}
    </Ledger>
  );
}

/** What stands beside what is undone, until hand-over. */
function Standing({ title, lines }: { title: string; lines: readonly string[] }) {
  if (lines.length === 0) return null;
  return (
    <>
      <h3>
        {title} {lines.length}
      </h3>
      <ul>
        {lines.map((line) => (
          <li key={line}>
            <span>{line}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

function SetAside({
  text,
  onClose,
  onDone,
}: {
  text: string;
  onClose: () => void;
  onDone: (reason: string, by: string) => void;
}) {
  const [reason, setReason] = useState("");
  const [by, setBy] = useState("");
  return (
    <Dialog title="Set a hold aside" isOpen onOpenChange={(open) => !open && onClose()}>
      <p>
        {text} Setting it aside does not make it so: it is written down with reason and name, and it prints.
      </p>
      <TextField label="Reason" value={reason} onCommit={setReason} autoFocus />
      <TextField label="Who answers for it" value={by} onCommit={setBy} />
      <Actions>
        <Button onPress={onClose}>Keep the hold</Button>
        <Button $main isDisabled={reason === "" || by === ""} onPress={() => onDone(reason, by)}>
          Set aside
        </Button>
      </Actions>
    </Dialog>
  );
}

/** A step that a picture is worth being kept of: of a thing that the plan still has. */
const pictured = (job: Job, plan: Plan, { verb, of }: WorkStep): boolean =>
  ["undo", "join", "partOut", "unplug", "boardUp", "tankFitting", "photographBehind"].includes(verb) &&
  [...plan.parts, ...(plan.covers ?? []), ...plan.runs, ...job.tanks, ...job.consumers].some(
    ({ id }) => id === of[0],
  );

/** What a joint was tightened to: the maker's figure first, and with which tool. */
function Torque({ joint }: { joint: PortRef }) {
  const { job, plan, book, enter } = useJob();
  const trade = useTrade();
  const [tool, setTool] = useState("torque spanner");
  const school = schoolOf(job.schools, "torque");
  const common = commonTorquesNM(school);
  const last = entriesOf(book, "torqueSet").findLast(
    (one) => one.planId === plan.id && one.joint.part === joint.part && one.joint.port === joint.port,
  );
  return (
    <Row style={{ alignItems: "flex-end" }}>
      <QuantityField
        key={last?.id ?? "none"}
        label="Torque set, the maker's figure first"
        dimension="moment"
        unit={job.units.volume === "gal" ? "lb ft" : "N m"}
        value={last?.momentNM}
        check={positive}
        onCommit={(momentNM) => void enter({ kind: "torqueSet", joint, momentNM, tool })}
      />
      <TextField label="With" value={tool} onCommit={setTool} />
      <p className="small" style={{ flexBasis: "100%" }}>
        {last ? `Set to ${trade.moment(last.momentNM)} with ${last.tool}, ${momentText(last.at)}. ` : ""}
        To compare, common practice: banjo M12 to M14 {trade.moment(common.banjo[0])} to{" "}
        {trade.moment(common.banjo[1])}, sump flange {trade.moment(common.sumpFlange)}.
        {school === "lowerBySixth" &&
          " A banjo in aluminium is a sixth lower by this job's school: check it again when warm."}
      </p>
    </Row>
  );
}
