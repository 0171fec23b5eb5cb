/*
 * Decides: what is looked at next, and what is taken apart.
 * Seen in three seconds: what is likely wrong in words, its line beside the healthy one, the one next step with its minutes.
 */
import { useCallback, useEffect, useMemo, useState } from "react";
import styled from "styled-components";
import { entriesOf, type FaultFound } from "~/core/book/entries";
import type { CareGroup, CareReading, Diagnosis } from "~/core/care/diagnose";
import { knownFromBook } from "~/core/care/fromBook";
import { type Symptom, symptoms } from "~/core/care/looks";
import type { Study, StudyAsked, StudyVisit } from "~/core/care/study";
import { gaugeUnit, vacuumUnit } from "~/core/units/trade";
import { LookField } from "~/fields/LookField";
import { QuantityField } from "~/fields/QuantityField";
import {
  groupText,
  lookTexts,
  mendTexts,
  outcomeTexts,
  shareText,
  stateTexts,
  symptomTexts,
  visitText,
} from "~/messages/diagnosis";
import { nameOf } from "~/messages/notes";
import { storageFault } from "~/messages/storage";
import { useExplored, useJob, useTrade } from "~/state/job";
import { useStudy } from "~/state/work";
import { entriesOfAll } from "~/store/book";
import { Button } from "~/ui/button";
import { Select } from "~/ui/fields";
import { Caution, Sheet } from "~/ui/place";
import { say as toast } from "~/ui/toast";

const Verdict = styled.p`
  font-size: 19px; font-weight: 650; margin: 0 0 4px;
`;
const Groups = styled.ol`
  list-style: none; margin: 8px 0 0; padding: 0;
  li { display: grid; grid-template-columns: 150px minmax(0, 1fr) auto; gap: 4px 12px; align-items: center; border-bottom: 1px solid var(--hairline); min-height: 36px; }
  li > i { display: block; height: 12px; background: var(--ink); } li > span:last-child { color: var(--soft); }
  @media (max-width: 700px) { li { grid-template-columns: 70px minmax(0, 1fr); } li > :nth-child(3) { grid-column: 2; } }
`;
const Next = styled.div`
  border-left: 6px solid var(--act); padding: 6px 12px; margin: 12px 0;
  b { font-size: 18px; } .fields { display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: end; margin-top: 6px; } .fields > * { min-width: 150px; }
`;
const Told = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(210px, 1fr)); gap: 6px 14px;
`;

/** A group by its name: its kind, and what of the plan it holds. */
function groupName({ groups }: Study, group: string, name: (id: string) => string): string {
  const found = groups.find((one) => one.group === group);
  return found ? groupText(found, name) : group;
}

const NOTHING_READ: StudyAsked = { readings: [], done: [] };

export default function FindFault() {
  const { lineUp, book } = useJob();
  const [shop, setShop] = useState<readonly FaultFound[] | null>(null);
  useEffect(() => {
    let isOver = false;
    void entriesOfAll("faultFound").then(
      (byJob) => !isOver && setShop([...byJob.values()].flat()),
      // Where the other jobs cannot be read, this one's own tell.
      (error: unknown) => {
        if (isOver) return;
        setShop(entriesOf(book, "faultFound"));
        toast({ text: storageFault(error), lasts: true });
      },
    );
    return () => {
      isOver = true;
    };
  }, [book]);
  const turned = useMemo(() => {
    if (shop === null) return null;
    // What was found in all of the shop's jobs turns what is looked for first.
    const counts: Partial<Record<string, number>> = {};
    for (const { fault } of shop) counts[fault] = (counts[fault] ?? 0) + 1;
    return counts;
  }, [shop]);
  return <Search key={lineUp?.id ?? ""} turned={turned} />;
}

/** What was last told of this search, while the next answer is on its way. */
function useToldStudy(turned: Parameters<typeof useStudy>[2], asked: StudyAsked) {
  const { job, lineUp } = useJob();
  const work = useStudy(job, lineUp ?? null, turned, asked);
  const [told, tell] = useState<Study | null | undefined>(undefined);
  if (work.status === "done" && work.value !== told) tell(work.value);
  return { told, work };
}

/** The suspects' own lines over the Keel, the likeliest the strongest; gone with the place. */
function useOverKeel(told: Study | null | undefined, name: (id: string) => string) {
  const { suspect } = useExplored();
  const { plan, job } = useJob();
  const lines = told?.suspects;
  const healthy = told?.healthy;
  // The Keel stands at the stored load, the suspects at full: where the two differ, the healthy line at full stands too.
  const isFull = job.consumers.every(({ id }) => (plan.conditions.load[id] ?? 1) === 1);
  useEffect(() => {
    const drawn = (lines ?? []).map(({ legs, ...group }, i) => ({
      name: groupText(group, name),
      legs,
      is: i === 0 ? ("likeliest" as const) : ("possible" as const),
    }));
    const beside = { name: "nothing wrong, at full load", legs: healthy ?? [], is: "healthy" as const };
    suspect(isFull || drawn.length === 0 ? drawn : [beside, ...drawn]);
    return () => suspect([]);
  }, [lines, healthy, isFull, name, suspect]);
}

function Search({ turned }: { turned: Parameters<typeof useStudy>[2] }) {
  const { job, plan, book, lineUp, network, enter, say } = useJob();
  const known = useMemo(() => (lineUp ? knownFromBook(book, plan, lineUp) : []), [book, plan, lineUp]);
  const [asked, ask] = useState<StudyAsked>(NOTHING_READ);
  const [chosen, choose] = useState<string | null>(null);
  const [answer, setAnswer] = useState<string | null>(null);
  const { told, work } = useToldStudy(turned, asked);
  const name = useCallback(
    (id: string) => plan.lineUps.find((one) => one.id === id)?.name ?? nameOf(job, id),
    [plan, job],
  );
  useOverKeel(told, name);
  const portName = (port: string) => {
    const place = network.ports.get(port);
    return place ? `${place.ownerName}, ${place.name}` : port;
  };
  if (told === undefined)
    return work.status === "failed" ? (
      <Sheet role="alert">The search could not be made: {work.reason}.</Sheet>
    ) : (
      <Sheet role="status">Laying each fault over the plan…</Sheet>
    );
  if (told === null)
    return (
      <Sheet>
        Nothing is fed in this line-up as it stands: choose one that runs, or mend its Stops first.
      </Sheet>
    );
  const { practice } = asked;
  const { found, readings } = told;
  // What stands on the page is then of before the last reading.
  const fault = work.status === "failed" ? work.reason : null;
  const setReadings = (next: CareReading[]) => ask({ ...asked, readings: next });
  const add = (visit: StudyVisit, read: CareReading[]) => {
    ask({ ...asked, readings: [...asked.readings, ...read], done: [...asked.done, visit.id] });
    choose(null);
  };
  const again = (next: StudyAsked = NOTHING_READ) => {
    ask(next);
    choose(null);
    setAnswer(null);
  };
  // Who practises chooses alone: what is quick stands first, whatever it tells.
  const steps = practice
    ? told.next.toSorted((a, b) => a.minutes - b.minutes || (a.id < b.id ? -1 : 1))
    : told.next;
  const visit = steps.find(({ id }) => id === chosen) ?? steps[0];
  const confirm = ({ kind, ids }: CareGroup) => {
    if (!lineUp) return;
    // What is of the fuel and of no place, such as wax, is of the line-up that it stopped.
    const ofId = ids[0] === undefined || ids[0] === job.id ? lineUp.id : ids[0];
    void enter({ kind: "faultFound", lineUpId: lineUp.id, fault: kind, ofId, note: "" }).then((result) => {
      if (result.ok)
        say("Kept in the book: what was found turns what is looked for first. Read again after the mend.");
    });
  };
  return (
    <>
      <Sheet>
        {fault !== null && (
          <p role="alert">The last reading could not be weighed: {fault}. Take it back, or enter it again.</p>
        )}
        {practice ? (
          <Verdict role="status">Something may be wrong: {told.minutes} minutes spent.</Verdict>
        ) : found ? (
          <Answer found={found} name={name} />
        ) : (
          <Verdict>What is wrong? Say what is known, then read once.</Verdict>
        )}
        {answer !== null && told.practised ? (
          <Debrief answer={answer} practised={told.practised} told={told} name={name} />
        ) : (
          visit && (
            <Step
              key={`${visit.id} ${readings.length}`}
              visit={visit}
              told={told}
              portName={portName}
              name={name}
              onRead={(read) => add(visit, read)}
              onAsk={practice ? () => add(visit, []) : null}
              others={steps}
              onChoose={choose}
            />
          )
        )}
        {practice && answer === null && (
          <Select
            label="It is"
            value={null}
            placeholder="say what it is"
            options={[
              { id: "nothing", name: "Nothing is wrong" },
              ...told.groups.map((one) => ({ id: one.group, name: groupText(one, name) })),
            ]}
            onChange={(group) => {
              setAnswer(group);
              ask({ ...asked, practice: { ...practice, isOver: true } });
            }}
          />
        )}
        {found && !practice && found.ranked.length > 0 && found.outcome !== "nothingShows" && (
          <>
            <Groups aria-label="What it may be">
              {found.ranked.slice(0, 4).map((group) => (
                <li key={group.group}>
                  <i style={{ width: `${Math.max(2, 100 * group.share)}%` }} />
                  <span>{groupText(group, name)}</span>
                  {found.outcome === "found" && group === found.ranked[0] ? (
                    <Button onPress={() => confirm(group)}>Confirmed: it was this</Button>
                  ) : (
                    <span>{shareText(group.share)}</span>
                  )}
                </li>
              ))}
            </Groups>
            <p style={{ margin: "6px 0" }}>
              {told.suspects.length > 0 && "Their own lines lie over the Keel, at full load."}
            </p>
          </>
        )}
        <div style={{ display: "flex", flexWrap: "wrap", gap: 10 }}>
          {(readings.length > 0 || practice) && <Button onPress={() => again()}>Begin again</Button>}
          {readings.length === 0 && known.length > 0 && (
            <Button onPress={() => setReadings(known)}>Take what the log says: {known.length}</Button>
          )}
          <Button
            $quiet
            onPress={() =>
              again({ ...NOTHING_READ, practice: { seed: Math.floor(Math.random() * 1e6), isOver: false } })
            }
          >
            Practise: a fault is hidden
          </Button>
        </div>
      </Sheet>
      {!practice && <Symptoms readings={readings} setReadings={setReadings} />}
      <Readings
        readings={readings}
        badIndex={found?.badIndex ?? null}
        portName={portName}
        setReadings={setReadings}
        isPractice={practice !== undefined}
      />
      <Caution>
        Undo nothing under pressure, and no high-pressure line ever. Keep hands and clothes clear of what
        turns and is hot. Two faults at once are often taken for one: after each mend, read again.
      </Caution>
    </>
  );
}

function Answer({ found, name }: { found: Diagnosis; name: (id: string) => string }) {
  const [first] = found.ranked;
  if (found.outcome === "nothingShows" || !first)
    return <Verdict role="status">{outcomeTexts[found.outcome]}.</Verdict>;
  return (
    <>
      <Verdict role="status">
        {found.outcome === "found"
          ? `${groupText(first, name)}: ${shareText(first.share)}.`
          : `${outcomeTexts[found.outcome]}.`}
      </Verdict>
      {found.outcome === "found" && <p>{mendTexts[first.kind]}</p>}
    </>
  );
}

interface StepProps {
  visit: StudyVisit;
  told: Study;
  portName: (port: string) => string;
  name: (id: string) => string;
  onRead: (read: CareReading[]) => void;
  onAsk: (() => void) | null;
  others: readonly StudyVisit[];
  onChoose: (id: string) => void;
}

function Step({ visit, told, portName, name, onRead, onAsk, others, onChoose }: StepProps) {
  const { units } = useJob().job;
  const trade = useTrade();
  const { places } = visit;
  const [values, setValues] = useState<Record<string, number>>({});
  const isWhole = places.every(({ port }) => values[port] !== undefined);
  return (
    <Next>
      <b>{visitText(visit, portName)}</b>, {visit.minutes} min
      {visit.kind === "look" && !onAsk && visit.ifThen.length > 0 && (
        <p style={{ margin: "2px 0" }}>
          {[...new Map(visit.ifThen.map(({ reads, group }) => [reads, groupName(told, group, name)]))]
            .map(([reads, group]) => `${reads}: ${group}`)
            .join("; ")}
          .
        </p>
      )}
      <div className="fields">
        {onAsk ? (
          <Button $main onPress={onAsk}>
            Do it
          </Button>
        ) : visit.kind === "look" ? (
          (["yes", "no"] as const).map((said) => (
            <Button
              key={said}
              $main={said === "yes"}
              onPress={() =>
                onRead([
                  {
                    kind: "look",
                    look: visit.look ?? "bubbles",
                    seen: said === "yes",
                    ...(visit.port !== undefined && { port: visit.port }),
                  },
                ])
              }
            >
              {said === "yes" ? "Yes" : "No"}
            </Button>
          ))
        ) : (
          <>
            {places.map(({ port, healthyPa: healthy }) => {
              const isVacuum = healthy < 0;
              return (
                <QuantityField
                  key={port}
                  label={`${portName(port)}: the plan says ${isVacuum ? `${trade.vacuum(-healthy)} of vacuum` : trade.gauge(healthy)}`}
                  dimension="pressure"
                  unit={isVacuum ? vacuumUnit(units) : gaugeUnit(units, healthy)}
                  value={
                    values[port] === undefined
                      ? undefined
                      : isVacuum
                        ? -(values[port] as number)
                        : values[port]
                  }
                  onCommit={(si) => setValues({ ...values, [port]: isVacuum ? -si : si })}
                />
              );
            })}
            <Button
              $main
              isDisabled={!isWhole}
              onPress={() =>
                onRead(
                  places.map(({ port, state }) => ({
                    kind: "gauge",
                    port,
                    state,
                    gaugePa: values[port] as number,
                  })),
                )
              }
            >
              Read
            </Button>
          </>
        )}
        <Select
          label="Another step instead"
          value={null}
          placeholder="choose one"
          options={others
            .filter(({ id }) => id !== visit.id)
            .map((one) => ({ id: one.id, name: `${visitText(one, portName)}, ${one.minutes} min` }))}
          onChange={onChoose}
        />
      </div>
    </Next>
  );
}

function Symptoms({
  readings,
  setReadings,
}: {
  readings: readonly CareReading[];
  setReadings: (all: CareReading[]) => void;
}) {
  const said = (symptom: Symptom) =>
    readings.find(
      (one): one is Extract<CareReading, { kind: "symptom" }> =>
        one.kind === "symptom" && one.symptom === symptom,
    )?.has;
  const set = (symptom: Symptom, has: boolean | undefined) => {
    const rest = readings.filter((one) => one.kind !== "symptom" || one.symptom !== symptom);
    setReadings(has === undefined ? rest : [...rest, { kind: "symptom", symptom, has }]);
  };
  return (
    <Sheet>
      <h3>What its owner says</h3>
      <Told>
        {symptoms.map((symptom) => (
          <LookField
            key={symptom}
            label={symptomTexts[symptom]}
            value={said(symptom)}
            onChange={(has) => set(symptom, has)}
          />
        ))}
      </Told>
    </Sheet>
  );
}

function Readings({
  readings,
  badIndex,
  portName,
  setReadings,
  isPractice,
}: {
  readings: readonly CareReading[];
  badIndex: number | null;
  portName: (port: string) => string;
  setReadings: (all: CareReading[]) => void;
  isPractice: boolean;
}) {
  const trade = useTrade();
  if (readings.length === 0) return null;
  const text = (one: CareReading) => {
    if (one.kind === "symptom") return `${symptomTexts[one.symptom]}: ${one.has ? "yes" : "no"}`;
    if (one.kind === "look")
      return `${lookTexts[one.look]}${one.port ? ` at ${portName(one.port)}` : ""}: ${one.seen ? "yes" : "no"}`;
    return `${portName(one.port)}, ${stateTexts[one.state]}: ${one.gaugePa < 0 ? `${trade.vacuum(-one.gaugePa)} of vacuum` : trade.gauge(one.gaugePa)}`;
  };
  return (
    <Sheet>
      <h3>Known so far</h3>
      <ul style={{ margin: 0, paddingLeft: 18 }}>
        {readings.map((one, i) => (
          <li key={i} style={{ color: i === badIndex ? "var(--danger)" : undefined }}>
            {text(one)}
            {i === badIndex && ": it does not fit the others. Read it again."}{" "}
            {!isPractice && (
              <Button $quiet onPress={() => setReadings(readings.filter((_, k) => k !== i))}>
                Take it back
              </Button>
            )}
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

/** What was hidden, what the method's own visits would have cost, and when it would have known. */
function Debrief({
  answer,
  practised: { truth, own },
  told,
  name,
}: {
  answer: string;
  practised: NonNullable<Study["practised"]>;
  told: Study;
  name: (id: string) => string;
}) {
  const isRight = truth === null ? answer === "nothing" : answer === truth;
  const knew = own.after.find(({ groups, outcome }) =>
    truth === null ? outcome === "nothingShows" : outcome === "found" && groups[0] === truth,
  );
  return (
    <Next role="status">
      <b>{isRight ? "Right." : "Not that."}</b>{" "}
      {truth === null ? "Nothing was wrong." : `${groupName(told, truth, name)}.`} You spent {told.minutes}{" "}
      minutes;{" "}
      {knew
        ? `the proposed steps would have told it in ${knew.minutes}.`
        : "the proposed steps would not have been sure after five."}
    </Next>
  );
}
