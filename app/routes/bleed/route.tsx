/*
 * Decides: which joint to open next, what to run, and when to stop.
 * Seen in three seconds: where the air is on the way, the joint whose turn it is, how much comes, what air is left.
 */
import { Printer } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import styled from "styled-components";
import { bledSoFar, type PumpShare, pumpShareOf, stepKey } from "~/core/air/bled";
import { GALLERY_OPENS_PA } from "~/core/air/cells";
import { type Content, contentOf, missingIn } from "~/core/air/content";
import { COLD_C, ENOUGH, type ProcedureStep } from "~/core/air/procedure";
import type { Proved } from "~/core/air/report";
import type { BledStep, EntryDraft } from "~/core/book/entries";
import { isFiltering } from "~/core/kinds/families";
import { partsOf, portKey } from "~/core/plan/ports";
import { percentText } from "~/core/units/format";
import { panUnit } from "~/core/units/trade";
import { notNegative } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { SchoolNote } from "~/fields/SchoolNote";
import { jointName, leftText, secondsText, whyNotText } from "~/messages/bleeding";
import { counted } from "~/messages/counted";
import { nameOf } from "~/messages/notes";
import { useJob, useTrade } from "~/state/job";
import { useBleedPlan } from "~/state/work";
import { KeepAwake } from "~/ui/awake";
import { Button, ToggleButton } from "~/ui/button";
import { Select } from "~/ui/fields";
import { GradeGlyph } from "~/ui/glyphs";
import { Caution, PlaceHead, Sheet } from "~/ui/place";
import { AirDrawing } from "./AirDrawing";
import { AirLeft, FindIt, Hands, ThisBleed } from "./Hands";
import { Steps } from "./Steps";
import { type Trained, useTrainer } from "./useTrainer";

export const meta = () => [{ title: "Bleed · Iron Keel" }];

const Row = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: flex-end; margin: 0 16px 8px;
  > label, > div:first-child { min-width: 220px; }
  .modes { display: flex; gap: 0; button { border-radius: 0; min-height: max(36px, var(--finger)); } }
  @media (pointer: coarse) { .modes button { min-height: 44px; } }
`;
const Says = styled.p`
  margin: 0 16px 8px; font-size: 17px; font-weight: 600; display: flex; flex-wrap: wrap; gap: 4px 8px; align-items: center; flex: 1; min-width: 220px;
`;
const Why = styled.ul`
  margin: 0 16px 8px; padding-left: 20px; li { margin: 3px 0; }
`;

type Mode = "plan" | "practise" | "real";
const modes: [Mode, string][] = [
  ["plan", "Read"],
  ["practise", "Practise"],
  ["real", "For real"],
];

export default function Bleed() {
  const { job, plan, book, lineUp, enter, dispatch, select } = useJob();
  const trade = useTrade();
  const { pan } = trade;
  const [asked] = useSearchParams();
  const [word, setWord] = useState(asked.get("content") ?? "dry");
  const [mode, setMode] = useState<Mode>("plan");
  const [chosen, choose] = useState<string | null>(null);
  const content = useMemo<Content>(() => {
    const asked = contentOf(word);
    return asked && missingIn(plan, asked) === null ? asked : { kind: "dry" };
  }, [word, plan]);
  const [endId, setEndId] = useState<string>();
  const told = useMemo(
    () => (lineUp ? pumpShareOf(book, plan.id, lineUp.id) : null),
    [book, plan.id, lineUp],
  );
  const work = useBleedPlan(job, lineUp, content, { endId, pumpShare: told?.share });
  const start = useMemo(() => ({ content, endId }), [content, endId]);
  const trainer = useTrainer(job, lineUp, start, mode === "practise");
  const { trained } = trainer;
  const proved = work.status === "done" ? work.value : null;
  const procedure = proved?.procedure ?? null;
  const ticked = useMemo(
    () => (mode === "real" && lineUp ? bledSoFar(book, plan.id, lineUp.id) : null),
    [mode, book, plan.id, lineUp],
  );
  const { playTo, again } = trainer;
  const done = useMemo(() => {
    if (!procedure || !ticked) return [];
    const first = procedure.steps.findIndex((step, i) => !ticked.has(stepKey(step, i)));
    return first < 0 ? procedure.steps : procedure.steps.slice(0, first);
  }, [procedure, ticked]);
  // What was ticked shows on the drawing as the plan has it.
  useEffect(() => {
    if (done.length === 0) return;
    const timer = setTimeout(() => playTo(done), 0);
    return () => clearTimeout(timer);
  }, [done, playTo]);
  const name = (id: string) => nameOf(job, id);
  const contents = [
    { id: "dry", name: "all dry" },
    { id: "ranDry", name: "ran dry: air in the hoses" },
    ...partsOf(job, plan).flatMap((part) =>
      isFiltering(part) ? [{ id: `changed:${part.id}`, name: `${part.name} just changed` }] : [],
    ),
    ...(content.kind === "opened"
      ? [{ id: word, name: `${name(content.joint.split(".")[0] ?? "")}: one joint opened` }]
      : []),
  ];
  const chooseStep = (step: ProcedureStep) => {
    if (step.kind !== "bleed") return;
    choose(step.joint.key);
    select(step.joint.partId);
  };
  const tick = (step: ProcedureStep, key: string, came: BledStep["came"], seconds?: number) => {
    if (!lineUp) return;
    // What a pump took against what was computed tells what it gives.
    const isPumped = step.kind === "bleed" && step.by.kind === "pump";
    void enter({
      kind: "bled",
      lineUpId: lineUp.id,
      step: key,
      came,
      ...(seconds === undefined ? {} : { seconds }),
      ...(seconds !== undefined && isPumped ? { computedS: step.seconds } : {}),
    });
  };
  const outOfReach = (key: string, isOut: boolean) => {
    // What is screwed together is one joint, told where it begins.
    const joint = plan.joints.find(({ to }) => portKey(to) === key);
    const at = joint ? portKey(joint.from) : key;
    const { outOfReach: _, ...look } = plan.jointLooks?.[at] ?? {};
    const { [at]: __, ...others } = plan.jointLooks ?? {};
    const next = isOut ? { ...look, outOfReach: true } : look;
    const jointLooks = Object.keys(next).length > 0 ? { ...others, [at]: next } : others;
    void dispatch({ name: "editPlan", change: { jointLooks }, shown: { jointLooks: plan.jointLooks } });
  };
  const unreached = Object.entries(plan.jointLooks ?? {}).flatMap(([key, look]) =>
    look.outOfReach ? [key] : [],
  );
  const isPetrol = job.fuel.grade === "petrol";
  return (
    <div>
      <PlaceHead>
        <h2>Bleed</h2>
        <p>{lineUp?.name ?? "No line-up"}</p>
        <Link to={`/job/${job.id}/print/bleed`}>
          <Printer size={16} aria-hidden /> Bleed card
        </Link>
      </PlaceHead>
      <Row>
        <Select label="The lines are" value={word} options={contents} onChange={setWord} />
        {trained && trained.ends.length > 1 && (
          <Select
            label="Fuel comes out at"
            value={
              trained.ends.find(({ partId }) => partId === endId)?.partId ?? trained.ends[0]?.partId ?? null
            }
            options={trained.ends.map((end) => ({ id: end.partId, name: jointName(end) }))}
            onChange={setEndId}
          />
        )}
        <div className="modes" role="group" aria-label="What for">
          {modes.map(([id, text]) => (
            <ToggleButton
              key={id}
              isSelected={mode === id}
              onChange={() => {
                setMode(id);
                again();
              }}
            >
              {text}
            </ToggleButton>
          ))}
        </div>
        <KeepAwake />
        {mode === "real" && (
          <Button
            onPress={() => {
              again();
              if (lineUp) void enter({ kind: "bled", lineUpId: lineUp.id, step: "begin", came: "begun" });
            }}
            isDisabled={!procedure}
          >
            Begin a new bleed
          </Button>
        )}
      </Row>
      <Says aria-live="polite">
        <Summary work={work} pan={pan} />
      </Says>
      {isPetrol && (
        <Caution>
          Petrol: its vapour catches far from the joint. Outside, no flame or spark, never by pressure in the
          tank, never by mouth; a closed can under the joint, and the pump run no longer than it takes.
        </Caution>
      )}
      {procedure && procedure.whyNot.length > 0 && (
        <Why>
          {procedure.whyNot.map((reason) => (
            <li key={`${reason.code}${"at" in reason ? reason.at : ""}`}>
              {whyNotText(reason, name, trade)}
            </li>
          ))}
        </Why>
      )}
      {trained && (
        <AirDrawing
          picture={trained.picture}
          model={trained.session.model}
          joints={trained.joints}
          chosen={chosen}
          onChoose={choose}
          isOpen={(key) => trained.session.isOpen(key)}
          tick={trainer.tick}
        />
      )}
      {mode === "practise" && (
        <>
          <AirLeft trainer={trainer} />
          <Hands trainer={trainer} chosen={chosen} />
          <FindIt trainer={trainer} />
          <Sheet>
            <ThisBleed trainer={trainer} best={procedure} />
            <Button
              isDisabled={!trained || trained.session.atS === 0}
              onPress={() => trained && lineUp && void enter(practised(trained, lineUp.id))}
            >
              Keep this practice in the log
            </Button>
          </Sheet>
        </>
      )}
      {procedure && (
        <Steps
          procedure={procedure}
          nameOf={name}
          ticked={ticked}
          onTick={tick}
          onChoose={chooseStep}
          onOutOfReach={(key) => outOfReach(key, true)}
        />
      )}
      {unreached.length > 0 && (
        <Sheet>
          <h3>Out of reach</h3>
          {unreached.map((key) => (
            <p key={key}>
              A joint of {name(key.split(".")[0] ?? "")} is left shut.{" "}
              <Button $quiet onPress={() => outOfReach(key, false)}>
                It can be reached
              </Button>
            </p>
          ))}
        </Sheet>
      )}
      {mode === "real" && procedure && lineUp && (
        <Pan
          computedM3={procedure.panM3}
          measured={ticked?.get("pan")?.cameM3}
          onMeasure={(cameM3) =>
            void enter({ kind: "bled", lineUpId: lineUp.id, step: "pan", came: "done", cameM3 })
          }
        />
      )}
      {proved && procedure && <Proof proved={proved} told={told} />}
      <Caution>
        Eye protection and gloves; stand clear of the opened joint, face and hands away. Never push fuel by
        tank pressure above the tank's rating, and never petrol. Do not crank a dry high-pressure pump; the
        high-pressure side belongs to a licensed workshop, and the engine maker's manual goes first.
      </Caution>
      <SchoolNote matters={["priming", "primer", "filterFill"]} />
    </div>
  );
}

/** A bleed on the model as the book has it. */
const practised = ({ session }: Trained, lineUpId: string): EntryDraft => ({
  kind: "bled",
  lineUpId,
  step: "practice",
  came: "done",
  seconds: session.atS,
  cameM3: session.panM3,
  isPractice: true,
});

/** What came into the pan of a real bleed, against what the plan computes. */
function Pan({
  computedM3,
  measured,
  onMeasure,
}: {
  computedM3: number;
  measured: number | undefined;
  onMeasure: (m3: number) => void;
}) {
  const { job } = useJob();
  const { pan } = useTrade();
  return (
    <Sheet>
      <h3>The pan</h3>
      <QuantityField
        label="Measured in the pan"
        dimension="volume"
        unit={panUnit(job.units)}
        value={measured}
        check={notNegative}
        onCommit={onMeasure}
      />
      <p>
        The plan says {pan(computedM3)}.
        {measured !== undefined &&
          ` It is ${pan(Math.abs(measured - computedM3))} ${measured >= computedM3 ? "more" : "less"}.`}
      </p>
    </Sheet>
  );
}

function Summary({ work, pan }: { work: ReturnType<typeof useBleedPlan>; pan: (m3: number) => string }) {
  if (work.status === "working")
    return <>Looking for the way to bleed it{work.done > 0 ? `, try ${work.done}` : ""}…</>;
  if (work.status === "failed") return <>The bleed could not be worked out: {work.reason}</>;
  if (!work.value) return <>Nothing leads from a tank to a consumer in this line-up: open a way first.</>;
  const { procedure } = work.value;
  const { isBled } = procedure;
  // Nothing is opened: no pan, and what rests in heads is passed by the engine.
  const isClosed = procedure.steps.length > 0 && !procedure.steps.some(({ kind }) => kind === "bleed");
  return (
    <>
      {!isBled && <GradeGlyph grade="mend" />}
      <span>
        {isBled ? "Ends with" : "Air stays:"} {leftText(procedure.left)} of air
        {isBled && !isClosed ? "" : `, ${pan(procedure.airM3)}`}
        {isClosed
          ? `${isBled ? ", which the engine passes" : ""}. Nothing is opened. `
          : `. ${pan(procedure.panM3)} into the pan: one of ${pan(procedure.panRoomM3)}. `}
        {procedure.pouredM3 > 0 && `${pan(procedure.pouredM3)} filled by hand. `}
        {procedure.seconds > 0 && `Running in all ${secondsText(procedure.seconds)}.`}
      </span>
    </>
  );
}

/** What the procedure is worth on a worse day; a figure that does not hold is told. */
function Proof({ proved: { procedure, proof }, told }: { proved: Proved; told: PumpShare | null }) {
  const { gauge, pan, temperature } = useTrade();
  const days: [string, number | null][] = [
    ["the pump gives a fifth less", proof.weakPump],
    [`the fuel is at ${temperature(COLD_C)}`, proof.cold],
    ["the tank is at its lowest", proof.lowest],
  ];
  const bad = days.filter(([, left]) => left !== null && left > ENOUGH && procedure.left <= ENOUGH);
  const dry = procedure.dry.filter(({ seconds, limitS }) => seconds > limitS);
  return (
    <Sheet>
      <h3>Tried on the plan's own figures</h3>
      <p>
        Followed once more from the start it ends the same. Not reckoned with: air dissolved in the fuel, a
        gallery whose room its maker does not tell, a wet element that holds air back. Where a part does not
        say otherwise: head over a filter's outlet 8 % of it, lift pump dry 15 s at the most, dosing pump 60
        s, a gallery overflows at {gauge(GALLERY_OPENS_PA)}: common practice, assumed.
      </p>
      {told && (
        <p>
          Pumps are reckoned with {percentText(told.share)} of their curves: so the seconds of{" "}
          {counted(told.bleeds, "bleed")} before this one told.
        </p>
      )}
      {bad.map(([when, left]) => (
        <p key={when}>
          <GradeGlyph grade="watch" size={13} /> Where {when}, it leaves {leftText(left ?? 0)}: go on until it
          runs solid, and top up once more.
        </p>
      ))}
      {dry.map(({ id, seconds, limitS }) => (
        <p key={id}>
          <GradeGlyph grade="watch" size={13} /> The pump runs dry for {seconds.toFixed(0)} s in all; {limitS}{" "}
          s at a time is the most: let it rest between.
        </p>
      ))}
      {procedure.airM3 > 0 && <p>Left where it is: {pan(procedure.airM3)}.</p>}
    </Sheet>
  );
}
