/*
 * Decides: what joins to what, and how the valves of a line-up stand.
 * Seen in three seconds: which tank feeds, where the return goes, which way is live.
 */
import { Minus, Pause, Play, Plus } from "lucide-react";
import { useMemo, useRef, useState } from "react";
import { Link, useOutletContext } from "react-router";
import styled from "styled-components";
import { shownIn } from "~/core/drawing/room";
import { type Spot, spotOf } from "~/core/edit/adding";
import { isStopOf } from "~/core/findings/findings";
import type { Id } from "~/core/kinds/record";
import { freePorts } from "~/core/plan/joining";
import { type PlacedPort, portKey } from "~/core/plan/ports";
import { percentText } from "~/core/units/format";
import { outcomeText } from "~/messages/outcomes";
import { FlowMarks } from "~/plumbing/FlowMarks";
import { Plumbing } from "~/plumbing/Plumbing";
import { usePlumbing } from "~/plumbing/usePlumbing";
import { useExplored, useJob } from "~/state/job";
import { Button, ToggleButton } from "~/ui/button";
import { gestureOf } from "~/ui/gesture";
import { useNarrow } from "~/ui/useNarrow";
import { AddPart, useAdd } from "../job/AddPart";
import { useLocalActions } from "../job/shortcuts";
import { LineUps } from "./LineUps";
import { ManifoldDialog } from "./ManifoldDialog";
import { JoiningSays, Nubs } from "./Nubs";
import { PlanOutline } from "./PlanOutline";
import { OtherPlan, useDifferences } from "./Plans";
import { PlansDialog } from "./PlansDialog";
import { Tidy } from "./Tidy";
import { useOperate } from "./useOperate";
import { usePinch } from "./usePinch";
import { UNDER_PX, useRoom } from "./useRoom";
import { InVehicle } from "./vehicle/InVehicle";

export const meta = () => [{ title: "Lay out · Iron Keel" }];

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
  display: flex; position: absolute; left: 12px; bottom: 6px; z-index: 3; background: var(--panel); border: 1px solid var(--hairline); border-radius: 2px;
  @media (max-width: 600px) { display: none; }
`;
const Stage = styled.div`
  position: relative; min-height: 0; display: grid;
  &[hidden] { display: none; }
  [data-pinched] + canvas { visibility: hidden; }
  @media (max-width: 600px) { display: none; }
`;
const Canvas = styled.div`
  overflow: auto; position: relative; min-height: 0; min-width: 0;
  background-image: linear-gradient(var(--hairline) 1px, transparent 1px), linear-gradient(90deg, var(--hairline) 1px, transparent 1px);
  background-size: 40px 40px; background-position: -1px -1px; background-blend-mode: normal;
  touch-action: pan-x pan-y;
  svg { display: block; will-change: transform; }
  @media (max-width: 600px) { display: none; }
`;
const Wash = styled.div`
  background: color-mix(in srgb, var(--ground) 82%, transparent); min-height: 100%; min-width: max-content; display: grid; place-items: start;
  padding-bottom: ${UNDER_PX}px;
`;
const Note = styled.p`
  position: absolute; left: 16px; top: 16px; max-width: 440px; background: var(--raised); padding: 12px 14px; border: 1px solid var(--hairline); margin: 0;
`;
const zooms = [0.5, 0.62, 0.75, 0.87, 1, 1.2, 1.5];

export default function LayOut() {
  const open = useJob();
  const { job, plan, network, dispatch, select, selectedId, focusFinding, findings, lineUp } = open;
  const { verdict } = useExplored();
  const openSheet = useOutletContext<() => void>();
  const placed = usePlumbing(network);
  const canvas = useRef<HTMLDivElement>(null);
  const isNarrow = useNarrow();
  const [zoom, setZoom] = useState<number | null>(null);
  const [isMoving, setMoving] = useState(true);
  const [editing, setEditing] = useState(false);
  const [tidying, setTidying] = useState(false);
  const [planning, setPlanning] = useState(false);
  const [manifold, setManifold] = useState(false);
  const [wantsVehicle, setInVehicle] = useState(false);
  // A fill, vent or drain is no way of the plumbing: it lies in the vehicle alone.
  const inVehicle = wantsVehicle || (plan.tankLines?.some(({ id }) => id === selectedId) ?? false);
  const [otherId, setOther] = useState<Id | null>(null);
  const other = job.plans.find(({ id }) => id === otherId && id !== plan.id) ?? null;
  const { here } = useDifferences(other);
  const room = useRoom(canvas);
  const fit = shownIn(room, placed);
  const scale = zoom ?? fit;
  usePinch(canvas, scale, setZoom);

  /** On a narrow screen a row of the outline opens what can be done with it. */
  const inspect = (id: Id) => {
    select(id);
    openSheet();
  };
  const operate = useOperate();
  // Of the chosen line-up, or of whichever.
  const stopIds = useMemo(
    () =>
      new Set(
        findings
          .filter((finding) => isStopOf(finding, lineUp?.id, true))
          .flatMap(({ ids }) => ids.slice(0, 1)),
      ),
    [findings, lineUp?.id],
  );
  const [begun, begin] = useState<PlacedPort | null>(null);
  const [spot, setSpot] = useState<Spot | null>(null);
  /** What has the focus on the drawing, or is chosen. */
  const atHand = (): Id | null =>
    document.activeElement?.closest("[data-drawing] [data-id]")?.getAttribute("data-id") ?? selectedId;
  const spotAt = () => spotOf(job, plan, atHand(), freePorts(job, plan));
  /** Takes the first free port of what is at hand, one that gives before others. */
  const joinFrom = () => {
    const own = freePorts(job, plan).filter(({ ref }) => ref.part === atHand());
    const port = own.find(({ role }) => role === "out" || role === "outlet") ?? own[0];
    if (!port) return;
    begin(port);
    document.querySelector<SVGGElement>(`[data-nub="${CSS.escape(portKey(port.ref))}"]`)?.focus();
  };
  /** Stands a part elsewhere, by cells of the drawing. */
  const move = (id: Id, dx: number, dy: number) => {
    const at = placed.cells.get(id);
    if (at && (dx !== 0 || dy !== 0))
      void dispatch({ name: "put", id, x: at.x + dx, y: at.y + dy }, gestureOf(`put:${id}`));
  };
  const add = useAdd();
  const addTank = () => void add({ kind: "tank", name: "" }, { kind: "loose" });
  const addEngine = () => void add({ kind: "consumer", consumer: "engine" }, { kind: "loose" });
  useLocalActions([
    { id: "operate", name: "Move the chosen valve", key: "v", run: () => selectedId && operate(selectedId) },
    {
      id: "takeOut",
      name: "Delete the chosen part from the plan",
      key: "Delete",
      run: () => {
        const id = atHand();
        if (plan.parts.some((part) => part.id === id)) void dispatch({ name: "removePart", id: id as Id });
        else if (plan.runs.some((run) => run.id === id)) void dispatch({ name: "disconnect", id: id as Id });
      },
    },
    { id: "addTank", name: "Add tank", key: "t", run: () => addTank() },
    { id: "addEngine", name: "Add engine", key: "g", run: () => addEngine() },
    { id: "add", name: "Add a part at what is chosen", key: "a", run: () => setSpot(spotAt()) },
    { id: "letIn", name: "Let a part into the chosen hose", key: "i", run: () => setSpot(spotAt()) },
    { id: "join", name: "Join a free port of what is chosen", key: "j", run: joinFrom },
    {
      id: "pause",
      name: isMoving ? "Stop the moving flow marks" : "Let the flow marks move",
      key: "m",
      run: () => setMoving(!isMoving),
    },
    { id: "tidy", name: "Lay the drawing out anew, by what it gains", run: () => setTidying(true) },
    { id: "lineUps", name: "Make and change line-ups", key: "e", run: () => setEditing(true) },
  ]);
  // What is held is let go when it is taken otherwise, by an undo or in another tab.
  const heldPort =
    begun && freePorts(job, plan).some(({ ref }) => portKey(ref) === portKey(begun.ref)) ? begun : null;
  const joining = {
    from: heldPort,
    begin,
    onGround: ({ ref }: PlacedPort) => setSpot({ kind: "port", ref }),
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
        <Button onPress={() => setSpot(spotAt())}>Add a part</Button>
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
        <JoiningSays from={heldPort} />
        <Zoom>
          <Button
            $quiet
            aria-label={isMoving ? "Stop the moving flow marks" : "Let the flow marks move"}
            onPress={() => setMoving(!isMoving)}
          >
            {isMoving ? <Pause size={16} /> : <Play size={16} />}
          </Button>
          <Button $quiet aria-label="Smaller" onPress={() => step(-1)}>
            <Minus size={16} />
          </Button>
          <Button $quiet aria-label="Fit the drawing" onPress={() => setZoom(null)}>
            {percentText(scale)}
          </Button>
          <Button $quiet aria-label="Larger" onPress={() => step(1)}>
            <Plus size={16} />
          </Button>
          <Button $quiet onPress={() => setTidying(true)} isDisabled={isEmpty}>
            Tidy…
          </Button>
        </Zoom>
        <Canvas ref={canvas} tabIndex={-1} aria-label="Plumbing" role="region" data-ground>
          <Wash>
            {!isEmpty && (
              <svg
                width={placed.width * scale}
                height={placed.height * scale}
                viewBox={`0 0 ${placed.width} ${placed.height}`}
                overflow="visible"
                data-drawing
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
                  onMove={move}
                  scale={scale}
                  differences={here}
                  stopIds={stopIds}
                />
                <Nubs placed={placed} scale={scale} joining={joining} />
              </svg>
            )}
          </Wash>
          {isEmpty && !isNarrow && <Note>{nothingYet}</Note>}
        </Canvas>
        {!isEmpty && (
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
      {isEmpty && isNarrow && <p style={{ padding: "12px 14px" }}>{nothingYet}</p>}
      {isNarrow && <PlanOutline onInspect={inspect} onPort={(ref) => setSpot({ kind: "port", ref })} />}
      {other && <OtherPlan other={other} scale={scale} />}
      {tidying && <Tidy network={network} room={room} onClose={() => setTidying(false)} />}
      {spot && <AddPart spot={spot} isOpen goesOn onOpenChange={(open) => !open && setSpot(null)} />}
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

const none: readonly Id[] = [];

const nothingYet = (
  <>
    <b>Nothing is laid out yet.</b> Add a tank and an engine, choose a port of one and join it to the other. A
    part is let into a hose: choose the hose, then the part.
  </>
);
