/*
 * Decides: what is looked at next, and what is taken apart.
 * Seen in three seconds: what is likely wrong in words, its line beside the healthy one, the one next step with its minutes.
 */
import { useEffect, useMemo, useState } from "react";
import styled from "styled-components";
import { entriesOf, type FaultFound } from "~/core/book/entries";
import {
  type CareGroup,
  type CareReading,
  Diagnoser,
  type Diagnosis,
  type Visit,
} from "~/core/care/diagnose";
import { knownFromBook } from "~/core/care/fromBook";
import { type Symptom, symptoms } from "~/core/care/looks";
import { drawnFault, SimulatedSystem, type Trial, trial } from "~/core/care/simulate";
import { type PlainVisit, visitsOf } from "~/core/care/visits";
import { fuelWay } from "~/core/hydraulics/route";
import { fromSi } from "~/core/units/factors";
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
import { useJob, useTrade } from "~/state/job";
import { entriesOfAll } from "~/store/book";
import { Button } from "~/ui/button";
import { Select } from "~/ui/fields";
import { LineChart } from "~/ui/lazyChart";
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
const dashes: (number[] | undefined)[] = [
  [8, 4],
  [2, 3],
  [12, 3, 2, 3],
];

/** A group by its name: its kind, and what of the plan it holds. */
function groupName(diagnoser: Diagnoser, group: string, name: (id: string) => string): string {
  const mine = diagnoser.faults.filter((one) => one.group === group).toSorted((a, b) => a.atM - b.atM);
  const [first] = mine;
  return first ? groupText({ kind: first.kind, ids: mine.map(({ at }) => at) }, name) : group;
}

/** A hidden fault to find, what its system answers, and the minutes spent. */
interface Practice {
  system: SimulatedSystem;
  seed: number;
  minutes: number;
}
const VISITS_OF_METHOD = 5;

export default function FindFault() {
  const { network, plan, lineUp, book } = useJob();
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
  const diagnoser = useMemo(() => {
    if (shop === null) return null;
    if (!lineUp) return null;
    const turned: Partial<Record<string, number>> = {};
    // What was found in all of the shop's jobs turns what is looked for first.
    for (const { fault } of shop) turned[fault] = (turned[fault] ?? 0) + 1;
    return new Diagnoser(network, lineUp, plan.conditions, turned);
  }, [network, lineUp, plan.conditions, shop]);
  if (shop === null) return <Sheet role="status">Laying each fault over the plan…</Sheet>;
  if (!lineUp || !diagnoser?.isReady)
    return (
      <Sheet>
        Nothing is fed in this line-up as it stands: choose one that runs, or mend its Stops first.
      </Sheet>
    );
  return <Search key={lineUp.id} diagnoser={diagnoser} />;
}

function Search({ diagnoser }: { diagnoser: Diagnoser }) {
  const { job, plan, book, lineUp, enter, say } = useJob();
  const known = useMemo(() => (lineUp ? knownFromBook(book, plan, lineUp) : []), [book, plan, lineUp]);
  const [readings, setReadings] = useState<CareReading[]>([]);
  const [done, setDone] = useState<ReadonlySet<string>>(new Set());
  const [practice, setPractice] = useState<Practice | null>(null);
  const [chosen, choose] = useState<string | null>(null);
  const [debrief, setDebrief] = useState<{
    truth: string | null;
    answer: string;
    own: Trial;
    minutes: number;
  } | null>(null);
  const visits = useMemo(() => visitsOf(diagnoser), [diagnoser]);
  const found = useMemo(
    () => (readings.length > 0 ? diagnoser.diagnose(readings) : null),
    [diagnoser, readings],
  );
  const next = useMemo(
    () =>
      diagnoser.next(
        readings,
        visits.filter(({ id }) => !done.has(id)),
      ),
    [diagnoser, readings, visits, done],
  );
  const name = (id: string) => plan.lineUps.find((one) => one.id === id)?.name ?? nameOf(job, id);
  const portName = (port: string) => {
    const place = diagnoser.network.ports.get(port);
    return place ? `${place.ownerName}, ${place.name}` : port;
  };
  const add = (visit: PlainVisit, read: CareReading[]) => {
    setReadings((all) => [...all, ...read]);
    setDone((all) => new Set([...all, visit.id]));
    choose(null);
  };
  const again = () => {
    setReadings([]);
    setDone(new Set());
    setPractice(null);
    setDebrief(null);
  };
  const begin = () => {
    again();
    const seed = Math.floor(Math.random() * 1e6);
    const system = new SimulatedSystem(diagnoser, drawnFault(diagnoser, seed), seed + 1);
    setReadings(system.told());
    setPractice({ system, seed, minutes: 0 });
  };
  // Who practises chooses alone: what is quick stands first, whatever it tells.
  const steps = practice ? [...next].sort((a, b) => a.minutes - b.minutes || (a.id < b.id ? -1 : 1)) : next;
  const visit = steps.find(({ id }) => id === chosen) ?? steps[0];
  const groupNames = [...new Set(diagnoser.faults.map(({ group }) => group))].map((group) => ({
    id: group,
    name: groupName(diagnoser, group, name),
  }));
  const answer = (group: string) => {
    if (!practice) return;
    const { system, seed, minutes } = practice;
    const own = trial(diagnoser, visits, system.fault, seed + 1, VISITS_OF_METHOD);
    setDebrief({ truth: system.fault?.fault.group ?? null, answer: group, own, minutes });
  };
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
        {practice ? (
          <Verdict role="status">Something may be wrong: {practice.minutes} minutes spent.</Verdict>
        ) : found ? (
          <Answer found={found} name={name} />
        ) : (
          <Verdict>What is wrong? Say what is known, then read once.</Verdict>
        )}
        {debrief ? (
          <Debrief debrief={debrief} diagnoser={diagnoser} name={name} />
        ) : (
          visit && (
            <Step
              key={`${visit.id} ${readings.length}`}
              visit={visit}
              diagnoser={diagnoser}
              portName={portName}
              name={name}
              onRead={(read) => add(visit, read)}
              onAsk={
                practice &&
                (() => {
                  add(visit, practice.system.visit(visit));
                  setPractice({ ...practice, minutes: practice.minutes + visit.minutes });
                })
              }
              others={steps}
              onChoose={choose}
            />
          )
        )}
        {practice && !debrief && (
          <Select
            label="It is"
            value={null}
            placeholder="say what it is"
            options={[{ id: "nothing", name: "Nothing is wrong" }, ...groupNames]}
            onChange={answer}
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
            <Suspects diagnoser={diagnoser} ranked={found.ranked} name={name} />
          </>
        )}
        <div style={{ display: "flex", flexWrap: "wrap", gap: 10 }}>
          {readings.length > 0 && <Button onPress={again}>Begin again</Button>}
          {readings.length === 0 && known.length > 0 && (
            <Button onPress={() => setReadings(known)}>Take what the log says: {known.length}</Button>
          )}
          <Button $quiet onPress={begin}>
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
        isPractice={practice !== null}
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

/** The healthy line and each suspect's own, along the way; what was read stands as dots. */
function Suspects({
  diagnoser,
  ranked,
  name,
}: {
  diagnoser: Diagnoser;
  ranked: readonly CareGroup[];
  name: (id: string) => string;
}) {
  const { units } = useJob().job;
  const unit = gaugeUnit(units, -1);
  const series = useMemo(() => {
    const lineOf = (solved: ReturnType<Diagnoser["solvedWith"]>) =>
      solved?.outcome === "solved"
        ? (fuelWay(solved)?.legs ?? [])
            .filter(({ side }) => side === "feed")
            .flatMap(({ points }) =>
              points.map(({ atM, gaugePa }) => ({ x: atM, y: fromSi("pressure", gaugePa, unit) })),
            )
        : [];
    return [
      { name: "nothing wrong", colour: "ink" as const, points: lineOf(diagnoser.solvedHealthy()) },
      ...ranked.slice(0, 3).flatMap((group, i) => {
        const points = lineOf(diagnoser.solvedWith(group.faultIds[0] ?? "", group.size));
        return points.length > 0
          ? [{ name: groupText(group, name), colour: "vacuum" as const, dash: dashes[i], points }]
          : [];
      }),
    ];
  }, [diagnoser, ranked, unit, name]);
  return (
    <LineChart
      label="Pressure along the feed: nothing wrong, and with each suspect"
      x="along the feed, m"
      y={unit}
      height={190}
      series={series}
    />
  );
}

interface StepProps {
  visit: Visit;
  diagnoser: Diagnoser;
  portName: (port: string) => string;
  name: (id: string) => string;
  onRead: (read: CareReading[]) => void;
  onAsk: (() => void) | null;
  others: readonly Visit[];
  onChoose: (id: string) => void;
}

function Step({ visit, diagnoser, portName, name, onRead, onAsk, others, onChoose }: StepProps) {
  const { units } = useJob().job;
  const trade = useTrade();
  const places = visit.kind === "look" ? [] : diagnoser.placesOf(visit);
  const [values, setValues] = useState<Record<string, number>>({});
  const isWhole = places.every(({ port }) => values[port] !== undefined);
  return (
    <Next>
      <b>{visitText(visit, portName)}</b>, {visit.minutes} min
      {visit.kind === "look" && !onAsk && visit.ifThen.length > 0 && (
        <p style={{ margin: "2px 0" }}>
          {[...new Map(visit.ifThen.map(({ reads, group }) => [reads, groupName(diagnoser, group, name)]))]
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
            {places.map(({ port, state }) => {
              const healthy = diagnoser.healthyPa(port, state);
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
  debrief: { truth, answer, own, minutes },
  diagnoser,
  name,
}: {
  debrief: { truth: string | null; answer: string; own: Trial; minutes: number };
  diagnoser: Diagnoser;
  name: (id: string) => string;
}) {
  const isRight = truth === null ? answer === "nothing" : answer === truth;
  const knew = own.after.find(({ groups, outcome }) =>
    truth === null ? outcome === "nothingShows" : outcome === "found" && groups[0] === truth,
  );
  return (
    <Next role="status">
      <b>{isRight ? "Right." : "Not that."}</b>{" "}
      {truth === null ? "Nothing was wrong." : `${groupName(diagnoser, truth, name)}.`} You spent {minutes}{" "}
      minutes;{" "}
      {knew
        ? `the proposed steps would have told it in ${knew.minutes}.`
        : "the proposed steps would not have been sure after five."}
    </Next>
  );
}
