/*
 * Decides: what joins to what, and how the valves of a line-up stand.
 * Seen in three seconds: which tank feeds, where the return goes, which way is live.
 */
import { Minus, Pause, Play, Plus } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Link, useOutletContext } from "react-router";
import styled from "styled-components";
import { isConsumer, isValve } from "~/core/kinds/families";
import { newId } from "~/core/kinds/ids";
import type { Id } from "~/core/kinds/record";
import type { NewPartKind } from "~/core/plan/blank";
import type { Purpose } from "~/core/plan/types";
import { neighbourSettings } from "~/core/plan/valves";
import { newPartKinds } from "~/messages/kinds";
import { nameOf } from "~/messages/notes";
import { outcomeText } from "~/messages/outcomes";
import { FlowMarks } from "~/plumbing/FlowMarks";
import { LEAST_FIT } from "~/plumbing/labels";
import { Plumbing } from "~/plumbing/Plumbing";
import { settingText } from "~/plumbing/settingText";
import { usePlumbing } from "~/plumbing/usePlumbing";
import { fileName, saveText } from "~/state/files";
import { useExplored, useJob } from "~/state/job";
import { Button, ToggleButton } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { Select, Switch, TextField } from "~/ui/fields";
import { gestureOf } from "~/ui/gesture";
import { say } from "~/ui/toast";
import { useLocalActions } from "../job/shortcuts";
import { InVehicle } from "./InVehicle";
import { ManifoldDialog } from "./ManifoldDialog";
import { OtherPlan, useDifferences } from "./Plans";
import { PlansDialog } from "./PlansDialog";

export const meta = () => [{ title: "Lay out · Iron Keel" }];

/** Left free under the drawing for the buttons of its size. */
const UNDER_PX = 38;

const Frame = styled.div`
  height: 100%; display: grid; grid-template-rows: auto minmax(0, 1fr);
  &[data-compares="true"] { grid-template-rows: auto minmax(0, 1fr) auto minmax(0, 1fr); }
  @media (max-width: 600px) { height: auto; display: block; }
`;
const Bar = styled.div`
  display: flex; flex-wrap: wrap; gap: 6px; align-items: center; padding: 6px 10px; border-bottom: 1px solid var(--hairline); background: var(--panel);
  > .grow { flex: 1; }
`;
const Zoom = styled.div`
  display: flex; position: absolute; right: 14px; bottom: 6px; z-index: 3; background: color-mix(in srgb, var(--ground) 80%, transparent);
  @media (max-width: 600px) { display: none; }
`;
const Stage = styled.div`
  position: relative; min-height: 0; display: grid;
  &[hidden] { display: none; }
  @media (max-width: 600px) { display: none; }
`;
const Canvas = styled.div`
  overflow: auto; position: relative; min-height: 0; min-width: 0;
  background-image: linear-gradient(var(--hairline) 1px, transparent 1px), linear-gradient(90deg, var(--hairline) 1px, transparent 1px);
  background-size: 40px 40px; background-position: -1px -1px; background-blend-mode: normal;
  svg { display: block; }
  @media (max-width: 600px) { display: none; }
`;
const Wash = styled.div`
  background: color-mix(in srgb, var(--ground) 82%, transparent); min-height: 100%; min-width: max-content; display: grid; place-items: start;
  padding-bottom: ${UNDER_PX}px;
`;
const Note = styled.p`
  position: absolute; left: 16px; top: 16px; max-width: 440px; background: var(--raised); padding: 12px 14px; border: 1px solid var(--hairline); margin: 0;
`;
const Outline = styled.ol`
  display: none; list-style: none; margin: 0; padding: 0;
  @media (max-width: 600px) { display: block; }
  button { width: 100%; text-align: left; min-height: 48px; padding: 6px 14px; border: 0; border-bottom: 1px solid var(--hairline); background: none; display: flex; justify-content: space-between; gap: 12px; cursor: pointer; }
  button[aria-pressed="true"] { background: color-mix(in srgb, var(--act) 12%, transparent); }
  small { color: var(--soft); font-size: 13px; }
`;

const zooms = [0.5, 0.62, 0.75, 0.87, 1, 1.2, 1.5];

export default function LayOut() {
  const open = useJob();
  const { job, plan, network, lineUp, dispatch, select, selectedId, focusFinding } = open;
  const { verdict } = useExplored();
  const openSheet = useOutletContext<() => void>();
  const plumbing = usePlumbing(network);
  const canvas = useRef<HTMLDivElement>(null);
  const [zoom, setZoom] = useState<number | null>(null);
  const [fit, setFit] = useState(1);
  const [isMoving, setMoving] = useState(true);
  const [editing, setEditing] = useState(false);
  const [planning, setPlanning] = useState(false);
  const [manifold, setManifold] = useState(false);
  const [inVehicle, setInVehicle] = useState(false);
  const [otherId, setOther] = useState<Id | null>(null);
  const other = job.plans.find(({ id }) => id === otherId && id !== plan.id) ?? null;
  const { here } = useDifferences(other);
  const { placed } = plumbing;
  useEffect(() => {
    const box = canvas.current;
    if (!box || !placed) return;
    const measure = () =>
      setFit(
        Math.max(
          0.5,
          Math.min(
            1.15,
            (box.clientWidth - 4) / placed.width,
            Math.max((box.clientHeight - UNDER_PX - 4) / placed.height, LEAST_FIT),
          ),
        ),
      );
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(box);
    return () => observer.disconnect();
  }, [placed]);
  const scale = zoom ?? fit;

  /** On a narrow screen a row of the outline opens what can be done with it. */
  const inspect = (id: Id) => {
    select(id);
    openSheet();
  };
  const operate = (id: Id) => {
    const part = plan.parts.find((one) => one.id === id);
    if (!part || !lineUp || !isValve(part)) return;
    const now = lineUp.valves[id] ?? { kind: "unset" };
    const next =
      part.kind === "bank"
        ? undefined
        : (neighbourSettings(part, now).at(-1) ?? neighbourSettings(part, now)[0]);
    if (!next) return;
    const last =
      part.kind === "selector" && now.kind === "position" && part.positions.at(-1)?.id === now.position
        ? part.positions[0]
        : undefined;
    const setting = last ? { kind: "position" as const, position: last.id } : next;
    void dispatch({ name: "setValve", lineUpId: lineUp.id, valveId: id, setting }).then((result) => {
      if (result.ok)
        say({
          text: `${part.name}: ${settingText(part, setting)} in ${lineUp.name}.`,
          action: { label: "Undo", run: () => void open.undo() },
        });
    });
  };
  useLocalActions([
    { id: "operate", name: "Move the chosen valve", key: "v", run: () => selectedId && operate(selectedId) },
    {
      id: "takeOut",
      name: "Take the chosen part out",
      key: "Delete",
      run: () =>
        plan.parts.some(({ id }) => id === selectedId) &&
        void dispatch({ name: "removePart", id: selectedId as Id }),
    },
    {
      id: "pause",
      name: isMoving ? "Hold the flow marks" : "Let the flow marks move",
      key: "m",
      run: () => setMoving(!isMoving),
    },
    { id: "lineUps", name: "Make and change line-ups", key: "e", run: () => setEditing(true) },
  ]);
  const addTank = () => {
    const id = newId();
    const count = job.tanks.length;
    void dispatch({
      name: "addTank",
      id,
      tankName: `Tank ${count + 1}`,
      position: { xM: 2.2, yM: 0.4 - count * 1.2, zM: 0.2 },
    }).then(() => select(id));
  };
  const addEngine = () => {
    const id = newId();
    void dispatch({ name: "addEngine", id, engineName: "Engine", position: { xM: 0, yM: 0, zM: 0.5 } }).then(
      () => select(id),
    );
  };
  const addPart = (kind: (typeof addable)[number]["id"]) => {
    const id = newId();
    if (kind === "generator" || kind === "heater") {
      const engineName = kind === "generator" ? "Generator" : "Heater";
      void dispatch({ name: "addEngine", id, kind, engineName, position: { xM: 0, yM: -0.5, zM: 0.5 } }).then(
        () => select(id),
      );
      return;
    }
    void dispatch({ name: "addPart", id, kind, position: { xM: 1, yM: 0.2, zM: 0.6 } }).then(() =>
      select(id),
    );
  };
  const step = (by: number) => {
    const at = zooms.findIndex((z) => z >= scale - 0.01);
    setZoom(zooms[Math.max(0, Math.min(zooms.length - 1, (at < 0 ? zooms.length - 1 : at) + by))] ?? 1);
  };
  const isEmpty = job.tanks.length + plan.parts.length + job.consumers.length === 0;
  return (
    <Frame data-compares={other !== null}>
      <Bar>
        <Button onPress={addTank}>Add tank</Button>
        <Button onPress={addEngine}>Add engine</Button>
        <div style={{ width: 118 }}>
          <Select
            label="Add a part"
            hideLabel
            value={null}
            placeholder="Add a part"
            options={addable}
            onChange={addPart}
          />
        </div>
        <Button onPress={() => setEditing(true)}>Line-ups…</Button>
        <Button onPress={() => setPlanning(true)}>Plans…</Button>
        <Button onPress={() => setManifold(true)}>Manifold…</Button>
        <ToggleButton isSelected={inVehicle} onChange={setInVehicle}>
          In the vehicle
        </ToggleButton>
        <Link to={`/job/${job.id}/print/valves`}>Valve table</Link>
        <span className="grow" />
        {verdict && <span role="status">{outcomeText(verdict, job.units)}</span>}
      </Bar>
      {inVehicle && <InVehicle />}
      <Stage hidden={inVehicle}>
        <Zoom>
          <Button
            $quiet
            aria-label={isMoving ? "Hold the flow marks" : "Let the flow marks move"}
            onPress={() => setMoving(!isMoving)}
          >
            {isMoving ? <Pause size={16} /> : <Play size={16} />}
          </Button>
          <Button $quiet aria-label="Smaller" onPress={() => step(-1)}>
            <Minus size={16} />
          </Button>
          <Button $quiet aria-label="Fit the drawing" onPress={() => setZoom(null)}>
            {Math.round(scale * 100)} %
          </Button>
          <Button $quiet aria-label="Larger" onPress={() => step(1)}>
            <Plus size={16} />
          </Button>
        </Zoom>
        <Canvas ref={canvas} tabIndex={0} aria-label="Plumbing" role="region">
          <Wash>
            {placed && !isEmpty && (
              <svg
                width={placed.width * scale}
                height={placed.height * scale}
                viewBox={`0 0 ${placed.width} ${placed.height}`}
                data-status={plumbing.status}
              >
                <Plumbing
                  network={network}
                  placed={placed}
                  verdict={verdict}
                  units={job.units}
                  selectedId={selectedId}
                  glowIds={focusFinding?.ids ?? none}
                  onSelect={select}
                  onOperate={operate}
                  onNudge={(id, dx, dy) =>
                    void dispatch({ name: "nudge", id, dx, dy }, gestureOf(`nudge:${id}`))
                  }
                  scale={scale}
                  differences={here}
                />
              </svg>
            )}
          </Wash>
          {isEmpty && (
            <Note>
              <b>Nothing is laid out yet.</b> Add a tank and an engine, choose a port of one and join it to
              the other. A part is let into a hose: choose the hose, then the part.
            </Note>
          )}
          {plumbing.status === "failed" && (
            <Note>
              The drawing could not be laid out. The plan itself is whole: the outline on a narrow screen and
              every other place work on it.
            </Note>
          )}
          {plumbing.status === "laying" && !placed && !isEmpty && <Note aria-busy="true">Drawing…</Note>}
        </Canvas>
        {placed && !isEmpty && (
          <FlowMarks
            network={network}
            placed={placed}
            verdict={verdict}
            scale={scale}
            view={canvas}
            isMoving={isMoving && !inVehicle}
          />
        )}
      </Stage>
      <Outline aria-label="Plumbing as an outline">
        {[...job.tanks, ...plan.parts, ...job.consumers].map((item) => (
          <li key={item.id}>
            <button type="button" aria-pressed={selectedId === item.id} onClick={() => inspect(item.id)}>
              <span>{item.name}</span>
              <small>
                {"kind" in item && !isConsumer(item) && isValve(item)
                  ? settingText(item, lineUp?.valves[item.id])
                  : ""}
              </small>
            </button>
          </li>
        ))}
        {plan.runs.map((run) => (
          <li key={run.id}>
            <button type="button" aria-pressed={selectedId === run.id} onClick={() => inspect(run.id)}>
              <span>{nameOf(job, run.id)}</span>
              <small>hose</small>
            </button>
          </li>
        ))}
      </Outline>
      {other && <OtherPlan other={other} scale={scale} />}
      <LineUps isOpen={editing} onOpenChange={setEditing} />
      <PlansDialog
        isOpen={planning}
        onOpenChange={setPlanning}
        otherId={other?.id ?? null}
        onCompare={setOther}
      />
      <ManifoldDialog isOpen={manifold} onOpenChange={setManifold} />
    </Frame>
  );
}

const addable: { id: NewPartKind | "generator" | "heater"; name: string }[] = [
  ...newPartKinds,
  { id: "generator", name: "Generator" },
  { id: "heater", name: "Heater" },
];
const none: readonly Id[] = [];
const purposes: { id: Purpose; name: string }[] = [
  { id: "run", name: "run" },
  { id: "transfer", name: "transfer" },
  { id: "polish", name: "polish" },
  { id: "prime", name: "prime" },
];

function LineUps({ isOpen, onOpenChange }: { isOpen: boolean; onOpenChange: (open: boolean) => void }) {
  const { job, plan, lineUp, dispatch, chooseLineUp, stored, say } = useJob();
  const saveInp = async () => {
    if (stored?.result.outcome !== "solved") return say("This line-up has no solution to save.");
    const { exportInp } = await import("~/core/export/inp");
    saveText(
      `${fileName(job.name)}-${fileName(stored.lineUp.name)}.inp`,
      exportInp(stored.result),
      "text/plain",
    );
  };
  const add = () => {
    const id = newId();
    void dispatch({ name: "addLineUp", id, lineUpName: `Line-up ${plan.lineUps.length + 1}` }).then(() =>
      chooseLineUp(id),
    );
  };
  const copy = () => {
    if (!lineUp) return;
    const id = newId();
    void dispatch({ name: "duplicateLineUp", id, from: lineUp.id, lineUpName: `${lineUp.name} copy` }).then(
      () => chooseLineUp(id),
    );
  };
  return (
    <Dialog title="Line-ups" isOpen={isOpen} onOpenChange={onOpenChange}>
      {plan.lineUps.length > 0 && (
        <Select label="Chosen" value={lineUp?.id ?? null} options={plan.lineUps} onChange={chooseLineUp} />
      )}
      {lineUp && (
        <>
          <TextField
            label="Name"
            value={lineUp.name}
            onCommit={(name) => void dispatch({ name: "editLineUp", id: lineUp.id, change: { name } })}
          />
          <Select
            label="Purpose"
            value={lineUp.purpose}
            options={purposes}
            onChange={(purpose) => void dispatch({ name: "editLineUp", id: lineUp.id, change: { purpose } })}
          />
          <Switch
            isOn={lineUp.intendedTransfer}
            onChange={(on) =>
              void dispatch({ name: "editLineUp", id: lineUp.id, change: { intendedTransfer: on } })
            }
          >
            Fuel is meant to end in another tank
          </Switch>
        </>
      )}
      <Actions>
        {lineUp && (
          <Button onPress={() => void dispatch({ name: "removeLineUp", id: lineUp.id })}>
            Delete {lineUp.name}
          </Button>
        )}
        {lineUp && <Button onPress={() => void saveInp()}>Save for EPANET</Button>}
        {lineUp && <Button onPress={copy}>Duplicate</Button>}
        <Button $main onPress={add}>
          New line-up
        </Button>
      </Actions>
    </Dialog>
  );
}
