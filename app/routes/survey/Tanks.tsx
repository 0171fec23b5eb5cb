/*
 * Decides: what each tank is, and how much of its fuel can be had at which attitude.
 * Seen in three seconds: the chosen tank to scale, its fuel lying level as it tilts, and which mouth is dry.
 */
import { Plus } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import { newId } from "~/core/kinds/ids";
import type { Tank } from "~/core/plan/types";
import { type Attitude, fittedAttitude, LEVEL } from "~/core/tanks/attitude";
import { floorUnder } from "~/core/tanks/floor";
import { capacityM3, soundingOf } from "~/core/tanks/tank";
import { formatNumber } from "~/core/units/format";
import { sideWords } from "~/messages/sides";
import { useJob } from "~/state/job";
import { Button, ToggleButton } from "~/ui/button";
import { Slider } from "~/ui/fields";
import { GradeGlyph } from "~/ui/glyphs";
import { Tabs } from "~/ui/tabs";
import { useAhead } from "~/ui/useAhead";
import { ConditionPanel } from "./ConditionPanel";
import { DipPanel } from "./DipPanel";
import { OpeningPanel } from "./OpeningPanel";
import { PickupPanel } from "./PickupPanel";
import { ReturnPanel } from "./ReturnPanel";
import { ShapePanel } from "./ShapePanel";
import { PlanDrawing, ProfileDrawing, SectionDrawing } from "./TankDrawing";
import { SurveyedTankProvider, useTank, useUnits } from "./tankContext";
import { VentPanel } from "./VentPanel";
import { WeightPanel } from "./WeightPanel";

const Tank3d = lazy(() => import("./Tank3d"));

const Columns = styled.div`
  display: grid; grid-template-columns: minmax(280px, 384px) minmax(0, 1fr); gap: 12px; padding: 0 16px 16px; align-items: start;
  @media (max-width: 900px) { grid-template-columns: 1fr; }
`;
const Held = styled.div`
  position: sticky; top: 0; display: grid; gap: 6px;
  @media (max-width: 900px) { position: static; }
`;
const Chips = styled.div`
  display: flex; gap: 6px; flex-wrap: wrap; padding: 0 16px 8px;
`;
const Chip = styled(ToggleButton)`
  && { justify-content: flex-start; gap: 8px; border-color: var(--hairline); color: var(--ink); background: var(--raised); }
  &&[data-selected] { border: 2px solid var(--ink); background: var(--raised); color: var(--ink); }
  small { color: var(--soft); font-weight: 450; font-size: 13px; }
`;
const Row = styled.div`
  display: flex; gap: 4px; align-items: center; justify-content: space-between; flex-wrap: wrap;
  > span { font-size: 14px; }
`;
const Sliders = styled.div`
  display: grid; grid-template-columns: 1fr 1fr; gap: 0 16px;
  > :last-child { grid-column: 1 / -1; }
`;

type View = "sections" | "plan" | "solid";
const views: { id: View; name: string }[] = [
  { id: "sections", name: "Sections" },
  { id: "plan", name: "Plan" },
  { id: "solid", name: "3-D" },
];
const panels = ["shape", "dip", "pickup", "return", "vent", "opening", "condition", "weight"] as const;
export type PanelId = (typeof panels)[number];

const MOST_TILT_DEG = 45;

export function Tanks() {
  const { job, plan, selectedId, select, findings, dispatch } = useJob();
  const { volume } = useUnits();
  const addTank = () => {
    const id = newId();
    void dispatch({
      name: "addTank",
      id,
      tankName: `Tank ${job.tanks.length + 1}`,
      position: { xM: 2.2, yM: 0.4 - job.tanks.length * 1.2, zM: 0.2 },
    }).then(() => select(id));
  };
  const add = (
    <Button onPress={addTank}>
      <Plus size={16} /> Add tank
    </Button>
  );
  // The tank that was looked at last stays with the address: a job opens where it was left.
  const [asked, ask] = useSearchParams();
  const tank =
    job.tanks.find(({ id }) => id === selectedId) ??
    job.tanks.find(({ id }) => id === asked.get("tank")) ??
    job.tanks[0];
  const chooseTank = (id: string) => {
    select(id);
    ask(
      (now) => {
        now.set("tank", id);
        return now;
      },
      { replace: true, preventScrollReset: true },
    );
  };
  const [held, setAttitude] = useState<Attitude | null>(null);
  const [trying, setTrying] = useAhead<{ tankId: string; m3: number }>();
  if (!tank)
    return (
      <div style={{ padding: "0 16px" }}>
        <p>No tank yet. Add one, then measure it: it is drawn as you type.</p>
        {add}
      </div>
    );
  const stored = plan.conditions.aboardM3[tank.id] ?? 0;
  const attitude = held ?? fittedAttitude(tank);
  const aboardM3 = trying?.tankId === tank.id ? trying.m3 : stored;
  return (
    <>
      <Chips role="group" aria-label="Tanks">
        {job.tanks.map((one) => {
          const grade = findings.find(({ ids, setAside }) => !setAside && ids[0] === one.id)?.grade;
          return (
            <Chip key={one.id} isSelected={one.id === tank.id} onChange={() => chooseTank(one.id)}>
              {one.name}
              <small>
                {volume(plan.conditions.aboardM3[one.id] ?? 0)} of {volume(capacityM3(one))}
              </small>
              {grade && <GradeGlyph grade={grade} size={13} />}
            </Chip>
          );
        })}
        {add}
      </Chips>
      <SurveyedTankProvider
        key={tank.id}
        tank={tank}
        attitude={attitude}
        setAttitude={setAttitude}
        aboardM3={aboardM3}
      >
        <Worked tank={tank} onTry={(m3, save) => setTrying({ tankId: tank.id, m3 }, save)} />
      </SurveyedTankProvider>
    </>
  );
}

function Worked({ tank, onTry }: { tank: Tank; onTry: (m3: number, save?: () => Promise<unknown>) => void }) {
  const { job, dispatch } = useJob();
  const sides = sideWords(job.kind);
  const { attitude, setAttitude, aboardM3, tilted, offset } = useTank();
  const { volume, length } = useUnits();
  const [view, setView] = useState<View>("sections");
  const [asked, ask] = useSearchParams();
  const panel = panels.find((one) => one === asked.get("panel")) ?? "shape";
  const setPanel = (next: PanelId) =>
    ask(
      (now) => {
        now.set("panel", next);
        return now;
      },
      { replace: true, preventScrollReset: true },
    );
  const [sectionIndex, setSectionIndex] = useState(0);
  const [corner, setCorner] = useState<number | null>(null);
  const capacity = tilted.capacityM3;
  const { xM, yM } = soundingOf(tank);
  const depthM = Math.max(0, tilted.levelAt(xM, yM, offset) - floorUnder(tank, xM, yM));
  const isLevel = attitude.pitchDeg === 0 && attitude.rollDeg === 0;
  const tilt = (name: "pitchDeg" | "rollDeg", label: string, ends: readonly [string, string]) => (
    <Slider
      label={label}
      value={attitude[name]}
      min={-MOST_TILT_DEG}
      max={MOST_TILT_DEG}
      step={0.5}
      output={`${formatNumber(attitude[name])}°`}
      ends={ends}
      onChange={(deg) => setAttitude({ ...attitude, [name]: deg })}
    />
  );
  return (
    <Columns>
      <Held>
        <Row>
          <span>
            <b>{volume(aboardM3)}</b>, {length(depthM)} deep
          </span>
          <span style={{ display: "flex", gap: 4 }}>
            {views.map(({ id, name }) => (
              <ToggleButton key={id} isSelected={view === id} onChange={() => setView(id)}>
                {name}
              </ToggleButton>
            ))}
          </span>
        </Row>
        {view === "sections" && (
          <>
            <SectionDrawing
              sectionIndex={sectionIndex}
              corner={corner}
              onCorner={setCorner}
              isEditing={panel === "shape"}
            />
            <ProfileDrawing />
          </>
        )}
        {view === "plan" && <PlanDrawing />}
        {view === "solid" && (
          <Suspense fallback={<p style={{ height: 380 }}>Drawing…</p>}>
            <Tank3d />
          </Suspense>
        )}
        <Sliders>
          {tilt("pitchDeg", "Pitch", [`${sides.front} down`, `${sides.front} up`])}
          {tilt("rollDeg", "Roll", [`${sides.port} down`, `${sides.starboard} down`])}
          <Slider
            label="Aboard"
            value={Math.min(capacity, aboardM3)}
            min={0}
            max={capacity}
            step={capacity / 200}
            output={volume(aboardM3)}
            onChange={(m3) => onTry(m3)}
            onEnd={(m3) => {
              const aboard = Math.min(capacity, m3);
              onTry(aboard, () =>
                dispatch({ name: "setConditions", change: { aboardM3: { [tank.id]: aboard } } }),
              );
            }}
          />
        </Sliders>
        {!isLevel && (
          <Row>
            <Button onPress={() => setAttitude(LEVEL)}>Stand it level</Button>
          </Row>
        )}
      </Held>
      <Tabs<PanelId>
        label={`What is asked of ${tank.name}`}
        chosen={panel}
        onChoose={setPanel}
        tabs={[
          {
            id: "shape",
            name: "Shape",
            body: () => (
              <ShapePanel
                sectionIndex={sectionIndex}
                onSection={setSectionIndex}
                corner={corner}
                onCorner={setCorner}
              />
            ),
          },
          { id: "dip", name: "Dip", body: () => <DipPanel /> },
          { id: "pickup", name: "Pickup", body: () => <PickupPanel /> },
          { id: "return", name: "Return", body: () => <ReturnPanel /> },
          { id: "vent", name: "Vent", body: () => <VentPanel /> },
          { id: "opening", name: "Opening", body: () => <OpeningPanel /> },
          { id: "condition", name: "Condition", body: () => <ConditionPanel /> },
          { id: "weight", name: "Weight", body: () => <WeightPanel /> },
        ]}
      />
    </Columns>
  );
}
