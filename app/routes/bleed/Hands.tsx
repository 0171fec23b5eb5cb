/** The hands of a bleed that is practised: spanner, key, bulb or lever, jug, handles; and the way back. */
import { Pause, Play, RotateCcw, Undo2 } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";
import { dearestOf } from "~/core/air/practice";
import { ENOUGH, KEY_CYCLE_S, LIFTED_M, mostDryS } from "~/core/air/procedure";
import { lidKey, QUARTERS_OFF } from "~/core/air/session";
import type { Id } from "~/core/kinds/record";
import { schoolOf } from "~/core/plan/types";
import { isOpen, settingOf } from "~/core/plan/valves";
import { airRefusalText, dearestText, jointName, leftText, scenarioText } from "~/messages/bleeding";
import { nameOf } from "~/messages/notes";
import { useJob, useTrade } from "~/state/job";
import { Button, ToggleButton } from "~/ui/button";
import { Select } from "~/ui/fields";
import { Table } from "~/ui/table";
import { markOf, type Trainer } from "./useTrainer";

const Dock = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px 18px; align-items: flex-end; margin: 0 16px 8px;
  > div { display: flex; flex-direction: column; gap: 3px; }
  > div > span { font-size: 13px; font-weight: 650; }
  > div > div { display: flex; flex-wrap: wrap; gap: 4px; }
  button { min-height: 44px; }
`;
const Row = styled.div`
  display: flex; flex-wrap: wrap; gap: 6px 14px; align-items: center; margin: 0 16px 6px;
  b.big { font-size: 26px; font-weight: 750; font-stretch: 88%; }
  .push { margin-left: auto; }
`;
const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, "0")}`;

const JUG_M3 = 100e-6;

/** What is left of the air, the time, and the way back to before a mistake. */
export function AirLeft({ trainer }: { trainer: Trainer }) {
  const { pan } = useTrade();
  const { air, trained, moments, backTo, speed, setSpeed, again, refused } = trainer;
  if (!air || !trained) return null;
  const left = air.roomM3 > 0 ? air.airM3 / air.roomM3 : 0;
  const last = moments.at(-1);
  return (
    <Row>
      <b className="big">{pan(air.airM3)}</b> of air left, {leftText(left)}
      {left <= ENOUGH && ": bled"}
      {refused && <span role="alert">{airRefusalText(refused)}</span>}
      <span className="push">{clock(trained.session.atS)}</span>
      <Button aria-label={speed === 0 ? "Go on" : "Pause"} onPress={() => setSpeed(speed === 0 ? 1 : 0)}>
        {speed === 0 ? <Play size={16} aria-hidden /> : <Pause size={16} aria-hidden />}
      </Button>
      <ToggleButton isSelected={speed === 4} onChange={(is) => setSpeed(is ? 4 : 1)}>
        4×
      </ToggleButton>
      <Button isDisabled={!last} onPress={() => backTo(moments.length - 1)}>
        <Undo2 size={16} aria-hidden />{" "}
        {last ? `Back to ${clock(last.atS)}, before: ${last.label}` : "Nothing done yet"}
      </Button>
      <Button $quiet onPress={again}>
        <RotateCcw size={16} aria-hidden /> Begin again
      </Button>
    </Row>
  );
}

/** Find what is wrong: the trainee says what it is before the answer is told. */
export function FindIt({ trainer }: { trainer: Trainer }) {
  const { job } = useJob();
  const { trained, hide, moments } = trainer;
  const [said, setSaid] = useState<{ of: object; text: string } | null>(null);
  if (!trained) return null;
  const { scenario, couldBe, session } = trained;
  if (!scenario)
    return (
      <Row>
        <Button onPress={() => hide(Date.now() % 1_000_000)}>Hide a fault, and find it</Button>
      </Row>
    );
  const name = (id: Id) => nameOf(job, id);
  const texts = [...new Set(couldBe.map((one) => scenarioText(one, name)))];
  const truth = scenarioText(scenario, name);
  const answer = said?.of === trained ? said.text : null;
  return (
    <Row>
      <div style={{ minWidth: 260 }}>
        <Select
          label="Something is wrong. What is it?"
          value={answer}
          options={texts.map((text) => ({ id: text, name: text }))}
          onChange={(text) => setSaid({ of: trained, text })}
        />
      </div>
      <span role="status" style={{ fontWeight: 650, alignSelf: "flex-end" }}>
        {answer !== null &&
          (answer === truth
            ? `Right: ${truth}. Found after ${session.atS.toFixed(0)} s and ${moments.length} acts.`
            : `No: that is not it. Look where the air comes from, and say it again.`)}
      </span>
      <Button $quiet onPress={() => setSaid({ of: trained, text: truth })}>
        Tell me
      </Button>
      <Button $quiet onPress={() => hide(Date.now() % 1_000_000)}>
        Another
      </Button>
    </Row>
  );
}

export function Hands({ trainer, chosen }: { trainer: Trainer; chosen: string | null }) {
  const { job, plan } = useJob();
  const { pan } = useTrade();
  const { trained, act, press } = trainer;
  const [quarters, setQuarters] = useState<Readonly<Record<string, number>>>({});
  if (!trained) return null;
  const { session, joints, task, picture } = trained;
  const joint = joints.find(({ key }) => key === chosen) ?? null;
  const movers = [...new Set(joints.flatMap((one) => one.movers))];
  const name = (id: Id) => nameOf(job, id);
  const kindOf = (id: Id) => plan.parts.find((part) => part.id === id)?.kind;
  const isTimed = schoolOf(job.schools, "priming") === "keyCycles";
  const isLever = schoolOf(job.schools, "primer") === "liftLever";
  const now = { ...task.lineUp, valves: session.valves };
  const valves = plan.parts.filter((part) => part.kind === "twoWay");
  const tank = job.tanks.find(({ id }) => id === task.way.stations[0]?.id);
  const turn = (by: number) => {
    if (!joint) return;
    const to = Math.max(0, Math.min(QUARTERS_OFF, (quarters[joint.key] ?? 0) + by));
    setQuarters({ ...quarters, [joint.key]: to });
    act(`${jointName(joint)} ${to === 0 ? "shut" : `${to}/4 turn open`}`, [
      { do: "open", joint: joint.key, quarters: to },
    ]);
  };
  const turned = joint && session.isOpen(joint.key) ? (quarters[joint.key] ?? 2) : 0;
  const came = joint && session.came.get(joint.key);
  return (
    <Dock>
      <div>
        <span>
          {joint
            ? `Spanner, ${jointName(joint)}: ${turned === 0 ? "shut" : `${turned}/4 turn`}`
            : "Choose a joint on the drawing"}
          {turned > 0 && came
            ? `, ${pan(came.fuelM3)} came${came.solidS >= 3 ? ", solid" : came.solidS > 0 ? "" : ", air"}`
            : ""}
        </span>
        <div>
          <Button isDisabled={!joint || turned === 0} onPress={() => turn(-1)}>
            −¼ turn
          </Button>
          <Button isDisabled={!joint || turned >= QUARTERS_OFF} onPress={() => turn(1)}>
            +¼ turn
          </Button>
        </div>
      </div>
      {movers.map((id) => {
        const kind = kindOf(id);
        if (kind === "bulb" || (kind === "liftPump" && isLever))
          return (
            <div key={id}>
              <span>{name(id)}</span>
              <Button onPress={() => act(`${name(id)}, a stroke`, [{ do: "strokes", id, count: 1 }])}>
                {kind === "bulb" ? "Squeeze" : "Lever stroke"}
              </Button>
            </div>
          );
        if (isTimed && kind !== "primingPump")
          return (
            <div key={id}>
              <span>Key, {KEY_CYCLE_S} s a press</span>
              <Button $main={session.runs(id)} onPress={() => press(id, `key, ${name(id)}`)}>
                {session.runs(id) ? `${name(id)} runs` : `Press: ${name(id)}`}
              </Button>
            </div>
          );
        return (
          <div key={id}>
            <span>{name(id)}</span>
            <ToggleButton
              isSelected={session.runs(id)}
              onChange={(on) => act(`${name(id)} ${on ? "on" : "off"}`, [{ do: "pump", id, on }])}
            >
              {session.runs(id) ? "Runs" : "Off"}
            </ToggleButton>
          </div>
        );
      })}
      {tank && schoolOf(job.schools, "priming") === "tankLifted" && (
        <div>
          <span>{tank.name}, or a can</span>
          <ToggleButton
            isSelected={session.isLifted(tank.id)}
            onChange={(up) =>
              act(`${tank.name} ${up ? "lifted" : "put down"}`, [
                { do: "lift", id: tank.id, m: up ? LIFTED_M : 0 },
              ])
            }
          >
            {session.isLifted(tank.id) ? "Lifted" : "Down"}
          </ToggleButton>
        </div>
      )}
      <div>
        <span>Jug, {pan(JUG_M3)} at a lid</span>
        <div>
          {picture.vessels.map(({ partId, name }) => (
            <Button
              key={partId}
              onPress={() =>
                act(`jug at ${name}`, [
                  { do: "open", joint: lidKey(partId), quarters: QUARTERS_OFF },
                  { do: "pour", id: partId, m3: JUG_M3 },
                  { do: "shut", joint: lidKey(partId) },
                ])
              }
            >
              {name}
            </Button>
          ))}
        </div>
      </div>
      {valves.length > 0 && (
        <div>
          <span>Handles</span>
          <div>
            {valves.map((valve) => {
              const open = isOpen(valve, ["a", "b"], settingOf(now, valve));
              return (
                <ToggleButton
                  key={valve.id}
                  isSelected={open}
                  onChange={(to) =>
                    act(`${valve.name} ${to ? "opened" : "shut"}`, [
                      {
                        do: "valve",
                        id: valve.id,
                        setting: { kind: "position", position: to ? "open" : "shut" },
                      },
                    ])
                  }
                >
                  {valve.name}: {open ? "open" : "shut"}
                </ToggleButton>
              );
            })}
          </div>
        </div>
      )}
    </Dock>
  );
}

/** The bleed that is practised against the plan's best, in plain figures. */
export function ThisBleed({
  trainer,
  best,
}: {
  trainer: Trainer;
  best: { panM3: number; airM3: number; seconds: number } | null;
}) {
  const trade = useTrade();
  const { pan } = trade;
  const { trained, air, moments } = trainer;
  if (!trained || !air) return null;
  const { session } = trained;
  const rows: [string, string, string][] = [
    ["Air left", pan(air.airM3), best ? pan(best.airM3) : "–"],
    ["Into the pan", pan(session.panM3), best ? pan(best.panM3) : "–"],
    ["Pump dry", `${session.allDryS.toFixed(0)} s`, "–"],
    ["Time", `${session.atS.toFixed(0)} s`, best ? `${best.seconds.toFixed(0)} s` : "–"],
    ["Acts", String(moments.length), "–"],
  ];
  const dearest = dearestOf([...moments, { label: "", ...markOf(trained) }], {
    roomM3: air.roomM3,
    limitS: mostDryS.lift,
    bestPanM3: best?.panM3 ?? 0,
  });
  return (
    <>
      {dearest && <p style={{ margin: "0 0 6px" }}>{dearestText(dearest, trade)}</p>}
      <Table>
        <thead>
          <tr>
            <th>This bleed</th>
            <th className="n">now</th>
            <th className="n">plan's best</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([what, now, plan]) => (
            <tr key={what}>
              <td>{what}</td>
              <td className="n" style={{ fontWeight: 650 }}>
                {now}
              </td>
              <td className="n">{plan}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}
