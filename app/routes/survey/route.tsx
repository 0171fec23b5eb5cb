/*
 * Decides: what is measured, what is only assumed, and how much fuel is where.
 * Seen in three seconds: each tank's shape with its level and its ports wet or dry, and what is still to be measured.
 */
import { lazy, Suspense, useState } from "react";
import styled from "styled-components";
import { presetFuel } from "~/core/fuel/fuel";
import { type GradeId, gradeIds, grades } from "~/core/fuel/grades";
import { assumedFigures } from "~/core/plan/assumed";
import { newId } from "~/core/plan/ids";
import type { AntiSiphonSchool, SectionPoint, Tank, TankShape } from "~/core/plan/types";
import { capacityM3, heightsOf, levelOfVolumeM, polygonBelow, sectionOf } from "~/core/tanks/shape";
import { formatNumber, formatQuantity } from "~/core/units/format";
import { fieldNames } from "~/messages/fields";
import { nameOf } from "~/messages/notes";
import { sectionPath } from "~/plumbing/glyphs";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, Slider, TextField } from "~/ui/fields";
import { PlaceHead, Sheet } from "~/ui/place";
import { QuantityField } from "../job/fields";

const ViscosityChart = lazy(() => import("./ViscosityChart"));

export const meta = () => [{ title: "Survey · Iron Keel" }];

const Tanks = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(230px, 1fr)); gap: 12px; padding: 0 16px 12px;
`;
const TankBox = styled.section<{ $chosen: boolean }>`
  background: var(--raised); border: ${({ $chosen }) => ($chosen ? "2px solid var(--ink)" : "1px solid var(--hairline)")}; padding: 8px 10px;
  > button { border: 0; background: none; width: 100%; text-align: left; cursor: pointer; padding: 0; display: block; }
  svg { display: block; width: 100%; }
  b { font-stretch: 84%; font-size: 15px; }
`;
const Fields = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(140px, 1fr)); gap: 8px 14px;
`;

export default function Survey() {
  const { job, plan, select, selectedId, dispatch } = useJob();
  const tank = job.tanks.find(({ id }) => id === selectedId) ?? job.tanks[0];
  const assumed = assumedFigures(job, plan);
  const addTank = () => {
    const id = newId();
    void dispatch({
      name: "addTank",
      id,
      tankName: `Tank ${job.tanks.length + 1}`,
      position: { xM: 2.2, yM: 0.4 - job.tanks.length * 1.2, zM: 0.2 },
    }).then(() => select(id));
  };
  return (
    <div>
      <PlaceHead>
        <h2>Survey</h2>
        <p>What is here, and what it is worth.</p>
        <Button onPress={addTank}>Add tank</Button>
      </PlaceHead>
      <Tanks>
        {job.tanks.map((one) => (
          <TankSection key={one.id} tank={one} isChosen={one.id === tank?.id} />
        ))}
        {job.tanks.length === 0 && (
          <p>No tank yet. Add one, then measure it: its section is drawn as you type.</p>
        )}
      </Tanks>
      {tank && <TankFields key={tank.id} tank={tank} />}
      <SiteAndFuel />
      <LimitsAndSchools />
      <Sheet>
        <h3>Still to be measured: {assumed.length}</h3>
        {assumed.length === 0 ? (
          <p>Every figure has been measured or is the maker's.</p>
        ) : (
          <p style={{ fontSize: 13, columns: "2 300px" }}>
            {assumed.map(({ id, field }) => (
              <span key={`${id}${field}`} style={{ display: "block" }}>
                <b>{nameOf(job, id)}</b>: {fieldNames[field] ?? field}
              </span>
            ))}
          </p>
        )}
      </Sheet>
    </div>
  );
}

const halo = { paintOrder: "stroke", stroke: "var(--raised)", strokeWidth: 3 } as const;
const W = 220;
const H = 120;

/** The tank's section to scale with its level; the level is set on the slider under it. */
function TankSection({ tank, isChosen }: { tank: Tank; isChosen: boolean }) {
  const { job, plan, select, dispatch } = useJob();
  const stored = plan.conditions.aboardM3[tank.id] ?? 0;
  const [draft, setDraft] = useState<number | null>(null);
  const aboard = draft ?? stored;
  const { units } = job;
  const section = sectionOf(tank.shape);
  const { lowM, highM } = heightsOf(tank.shape);
  const ys = section.map(([y]) => y);
  const [left, right] = [Math.min(...ys), Math.max(...ys)];
  const scale = Math.min((W - 20) / (right - left), (H - 12) / (highM - lowM));
  const place = ([y, z]: SectionPoint): [number, number] => [
    W / 2 + ((left + right) / 2 - y) * scale,
    6 + (highM - z) * scale,
  ];
  const levelM = levelOfVolumeM(tank.shape, aboard);
  const wet = polygonBelow(section, levelM);
  const capacity = capacityM3(tank.shape);
  return (
    <TankBox $chosen={isChosen} aria-label={tank.name}>
      <button type="button" onClick={() => select(tank.id)} aria-pressed={isChosen}>
        <b>{tank.name}</b>{" "}
        <span>
          {formatQuantity("volume", aboard, units.volume)} of{" "}
          {formatQuantity("volume", capacity, units.volume)}
        </span>
        <svg
          viewBox={`0 0 ${W} ${H}`}
          role="img"
          aria-label={`${tank.name}: fuel ${formatQuantity("length", levelM - lowM, units.length)} deep`}
        >
          <path d={sectionPath(section, place)} fill="var(--ground)" />
          {wet.length > 2 && <path d={sectionPath(wet, place)} fill="var(--atRest)" />}
          <path d={sectionPath(section, place)} fill="none" stroke="var(--ink)" strokeWidth={2} />
          {tank.ports.map((port) => {
            const [x, y] = place([port.mouth.yM, port.mouth.zM]);
            const isWet = port.mouth.zM < levelM;
            return (
              <g key={port.id}>
                <path
                  d={`M${x} ${y}V${place([0, port.outside.zM])[1]}`}
                  stroke={port.role === "return" ? "var(--back)" : "var(--ink)"}
                  strokeWidth={1.6}
                  strokeDasharray={port.role === "return" ? "4 3" : undefined}
                />
                <circle
                  cx={x}
                  cy={y}
                  r={4}
                  fill={isWet ? "var(--ink)" : "var(--raised)"}
                  stroke={port.role === "return" ? "var(--back)" : "var(--ink)"}
                  strokeWidth={1.6}
                />
                <text x={x + 7} y={y + 4} fontSize={12} fill="var(--ink)" style={halo}>
                  {port.name}
                  {isWet ? "" : ", dry"}
                </text>
              </g>
            );
          })}
        </svg>
      </button>
      <Slider
        label="Aboard"
        value={aboard}
        min={0}
        max={capacity}
        step={capacity / 200}
        output={`${formatQuantity("length", levelM - lowM, units.length)} deep`}
        onChange={setDraft}
        onEnd={(m3) => {
          void dispatch({
            name: "setConditions",
            change: { aboardM3: { [tank.id]: Math.min(capacity, m3) } },
          }).then(() => setDraft(null));
        }}
      />
    </TankBox>
  );
}

const moreThanNothing = (si: number) => (si > 0 ? null : "Must be more than nothing.");

function TankFields({ tank }: { tank: Tank }) {
  const { job, dispatch } = useJob();
  const { units } = job;
  const { shape } = tank;
  const edit = (change: Partial<Tank>, field?: string, entered?: string) =>
    void dispatch({
      name: "editTank",
      id: tank.id,
      change: {
        ...change,
        ...(field ? { given: { ...tank.given, [field]: { entered, basis: "measured" as const } } } : {}),
      },
    });
  const length = (
    label: string,
    value: number,
    field: string,
    make: (si: number) => Partial<Tank>,
    check = moreThanNothing as (si: number) => string | null,
  ) => (
    <QuantityField
      key={field}
      label={label}
      dimension="length"
      unit={units.length}
      value={value}
      check={check}
      basis={tank.given?.[field]?.basis ?? "assumed"}
      entered={tank.given?.[field]?.entered}
      onCommit={(si, entered) => edit(make(si), field, entered)}
    />
  );
  const anyHeight = () => null;
  const toSection = () =>
    edit({
      shape: {
        kind: "prism",
        lengthM: shape.lengthM,
        section: sectionOf(shape).map(([y, z]) => [y, z] as SectionPoint),
      },
    });
  const setPoint = (i: number, point: SectionPoint) =>
    shape.kind === "prism" &&
    edit({ shape: { ...shape, section: shape.section.map((one, k) => (k === i ? point : one)) } }, "section");
  return (
    <Sheet>
      <h3>{tank.name}, measured</h3>
      <Fields>
        <TextField label="Name" value={tank.name} onCommit={(name) => edit({ name })} />
        {length("Length", shape.lengthM, "lengthM", (lengthM) => ({ shape: { ...shape, lengthM } }))}
        {shape.kind === "box" &&
          length("Width", shape.widthM, "widthM", (widthM) => ({ shape: { ...shape, widthM } }))}
        {shape.kind === "box" &&
          length("Height", shape.heightM, "heightM", (heightM) => ({ shape: { ...shape, heightM } }))}
        {length(
          "Bottom over datum",
          tank.origin.zM,
          "origin",
          (zM) => ({ origin: { ...tank.origin, zM } }),
          anyHeight,
        )}
      </Fields>
      {shape.kind === "box" ? (
        <Button onPress={toSection}>Draw its section point by point</Button>
      ) : (
        <details>
          <summary>Section, {shape.section.length} points across and up</summary>
          <Fields>
            {shape.section.map(([y, z], i) => [
              <QuantityField
                key={`y${i}`}
                label={`${i + 1} across`}
                dimension="length"
                unit={units.length}
                value={y}
                onCommit={(si) => setPoint(i, [si, z])}
              />,
              <QuantityField
                key={`z${i}`}
                label={`${i + 1} up`}
                dimension="length"
                unit={units.length}
                value={z}
                onCommit={(si) => setPoint(i, [y, si])}
              />,
            ])}
          </Fields>
          <Button onPress={() => edit({ shape: withPoint(shape) }, "section")}>Add a point</Button>
          {shape.section.length > 3 && (
            <Button
              onPress={() => edit({ shape: { ...shape, section: shape.section.slice(0, -1) } }, "section")}
            >
              Drop the last
            </Button>
          )}
        </details>
      )}
      <h3 style={{ marginTop: 10 }}>Ports</h3>
      <Fields>
        {tank.ports.map((port) => {
          const set = (change: Partial<typeof port>) =>
            edit(
              { ports: tank.ports.map((one) => (one.id === port.id ? { ...one, ...change } : one)) },
              port.id,
            );
          const basis = tank.given?.[port.id]?.basis ?? "assumed";
          return [
            <QuantityField
              key={`m${port.id}`}
              label={`${port.name}: mouth over the bottom`}
              dimension="length"
              unit={units.length}
              value={port.mouth.zM}
              basis={basis}
              onCommit={(zM) => set({ mouth: { ...port.mouth, zM } })}
            />,
            <QuantityField
              key={`o${port.id}`}
              label={`${port.name}: hose goes on at`}
              dimension="length"
              unit={units.length}
              value={port.outside.zM}
              basis={basis}
              onCommit={(zM) => set({ outside: { ...port.outside, zM } })}
            />,
            <QuantityField
              key={`b${port.id}`}
              label={`${port.name}: bore`}
              dimension="length"
              unit={units.bore}
              value={port.boreM}
              check={moreThanNothing}
              basis={basis}
              onCommit={(boreM) => set({ boreM })}
            />,
          ];
        })}
      </Fields>
    </Sheet>
  );
}

/** A new corner in the middle of the last side, so that the outline does not cross itself. */
function withPoint(shape: Extract<TankShape, { kind: "prism" }>): TankShape {
  const [first, last] = [shape.section[0], shape.section.at(-1)] as [SectionPoint, SectionPoint];
  return { ...shape, section: [...shape.section, [(first[0] + last[0]) / 2, (first[1] + last[1]) / 2]] };
}

const shutOffSchools: { id: AntiSiphonSchool; name: string }[] = [
  { id: "abycH33", name: "ABYC H-33" },
  { id: "iso10088", name: "ISO 10088" },
];

/** What findings are judged by where no maker says otherwise: common practice, and the user's to change. */
function LimitsAndSchools() {
  const { job, plan, dispatch } = useJob();
  const { units } = job;
  const { limits } = plan;
  const set = (change: Partial<typeof limits>) =>
    void dispatch({ name: "editPlan", change: { limits: { ...limits, ...change } } });
  const suction = (label: string, field: "suctionCleanPa" | "suctionChangePa" | "suctionNeverPa") => (
    <QuantityField
      label={label}
      dimension="pressure"
      unit={units.pressure}
      value={limits[field]}
      check={moreThanNothing}
      onCommit={(pa) => set({ [field]: pa })}
    />
  );
  return (
    <Sheet>
      <h3>Limits and schools</h3>
      <p style={{ fontSize: 13, color: "var(--soft)" }}>
        Common practice, no source; a maker's limit on the pump or engine goes before these.
      </p>
      <Fields>
        {suction("Suction with clean filters", "suctionCleanPa")}
        {suction("Suction at which to change", "suctionChangePa")}
        {suction("Suction never to pass", "suctionNeverPa")}
        <QuantityField
          label="Free air that is too much"
          dimension="ratio"
          unit="%"
          value={limits.freeAirFraction}
          check={(si) => (si > 0 && si <= 1 ? null : "More than 0, at most 100 %.")}
          onCommit={(freeAirFraction) => set({ freeAirFraction })}
        />
        <Select
          label="Shut-off at the tank by"
          value={job.schools.shutOff}
          options={shutOffSchools}
          onChange={(shutOff) =>
            void dispatch({ name: "editJob", change: { schools: { ...job.schools, shutOff } } })
          }
        />
      </Fields>
    </Sheet>
  );
}

function SiteAndFuel() {
  const { job, dispatch } = useJob();
  const { units, site, fuel } = job;
  const [chart, setChart] = useState(false);
  const setSite = (change: Partial<typeof site>, field: string, entered: string) =>
    void dispatch({
      name: "editJob",
      change: {
        site: { ...site, ...change, given: { ...site.given, [field]: { entered, basis: "measured" } } },
      },
    });
  const setFuel = (change: Partial<typeof fuel>) =>
    void dispatch({ name: "editJob", change: { fuel: { ...fuel, ...change } } });
  const basis = (field: string) => site.given?.[field]?.basis ?? "assumed";
  const [first, second] = fuel.viscosityPoints;
  return (
    <Sheet>
      <h3>Site and fuel</h3>
      <Fields>
        <TextField
          label="Job"
          value={job.name}
          onCommit={(jobName) => void dispatch({ name: "rename", jobName })}
        />
        <QuantityField
          label="Altitude"
          dimension="length"
          unit="m"
          value={site.altitudeM}
          basis={basis("altitudeM")}
          onCommit={(altitudeM, entered) => setSite({ altitudeM }, "altitudeM", entered)}
        />
        <QuantityField
          label="Coldest"
          dimension="temperature"
          unit={units.temperature}
          value={site.ambientLowC}
          basis={basis("ambientLowC")}
          check={(si) => (si < site.ambientHighC ? null : "Must be below the hottest.")}
          onCommit={(ambientLowC, entered) => setSite({ ambientLowC }, "ambientLowC", entered)}
        />
        <QuantityField
          label="Hottest"
          dimension="temperature"
          unit={units.temperature}
          value={site.ambientHighC}
          basis={basis("ambientHighC")}
          check={(si) => (si > site.ambientLowC ? null : "Must be above the coldest.")}
          onCommit={(ambientHighC, entered) => setSite({ ambientHighC }, "ambientHighC", entered)}
        />
        <Select
          label="Fuel"
          value={fuel.grade}
          options={gradeIds.map((id) => ({ id, name: grades[id].standard }))}
          onChange={(grade: GradeId) =>
            void dispatch({ name: "editJob", change: { fuel: presetFuel(grade) } })
          }
        />
        <QuantityField
          label="Density at 15 °C"
          dimension="density"
          unit="kg/m3"
          value={fuel.density15KgM3}
          onCommit={(density15KgM3) => setFuel({ density15KgM3 })}
        />
        <QuantityField
          label={`Viscosity at ${formatNumber(first.tempC)} °C`}
          dimension="viscosity"
          unit="mm2/s"
          value={first.mm2S}
          onCommit={(mm2S) => setFuel({ viscosityPoints: [{ ...first, mm2S }, second] })}
        />
        <QuantityField
          label={`Viscosity at ${formatNumber(second.tempC)} °C`}
          dimension="viscosity"
          unit="mm2/s"
          value={second.mm2S}
          onCommit={(mm2S) => setFuel({ viscosityPoints: [first, { ...second, mm2S }] })}
        />
      </Fields>
      <Button onPress={() => setChart(!chart)} aria-expanded={chart}>
        Density and viscosity over temperature
      </Button>
      {chart && (
        <Suspense fallback={<p>Drawing…</p>}>
          <ViscosityChart fuel={fuel} site={site} />
        </Suspense>
      )}
    </Sheet>
  );
}
