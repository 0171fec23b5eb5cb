/*
 * Decides: where each hole is cut, with which saw, and whether it may be.
 * Seen in three seconds: each hole to scale with what passes it, its saw, and what is wrong or not looked at.
 */
import styled from "styled-components";
import { type PassageHole, passageHoles, sawsOf } from "~/core/boards/passages";
import { passageTemplate, plateTemplate, type Template } from "~/core/boards/template";
import type { Change } from "~/core/edit/merge";
import { newId } from "~/core/kinds/ids";
import { sawsIn } from "~/core/parts/buying";
import { hosesOf } from "~/core/plan/lying";
import type { Opening, Passage, Plan } from "~/core/plan/types";
import { sawFor } from "~/core/tanks/opening";
import { notNegative, positive } from "~/fields/checks";
import { Photos } from "~/fields/Photos";
import { QuantityField } from "~/fields/QuantityField";
import { TemplateButtons } from "~/fields/TemplateButtons";
import { counted } from "~/messages/counted";
import { nameOf } from "~/messages/notes";
import { behindTexts, edgeTexts, madeTexts, passageTexts, throughTexts } from "~/messages/passages";
import { useBox } from "~/state/box";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, Switch, TextField } from "~/ui/fields";
import { Caution, Sheet } from "~/ui/place";

const Row = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px; align-items: center; padding: 0 16px 8px;
  > p { flex: 1; margin: 0; min-width: 200px; font-weight: 600; }
`;
const One = styled.div`
  display: grid; grid-template-columns: 150px minmax(0, 1fr); gap: 14px;
  @media (max-width: 600px) { grid-template-columns: minmax(0, 1fr); }
`;
const Fields = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(140px, 1fr)); gap: 8px 12px; align-items: start;
`;
const options = <K extends string>(texts: Readonly<Record<K, string>>) =>
  (Object.keys(texts) as K[]).map((id) => ({ id, name: texts[id] }));
const NOT_LOOKED = "notLooked";

export function Openings() {
  const { job, plan, dispatch, say } = useJob();
  const box = useBox(say);
  const holes = passageHoles(plan, sawsOf(job.units), sawsIn(box.items));
  const all = plan.passages ?? [];
  const wrong = holes.filter(({ faults }) => faults.length > 0).length;
  const set = (passages: NonNullable<Change<Plan>["passages"]>) =>
    void dispatch({ name: "editPlan", change: { passages } });
  const add = () =>
    set([
      ...all,
      {
        id: newId(),
        name: `Hole ${all.length + 1}`,
        through: "bulkhead",
        made: "cored",
        wallM: 0.012,
        runs: [],
      },
    ]);
  return (
    <>
      <Row>
        <p>
          {all.length === 0
            ? "No hole is told yet: each passage of a hose through a floor or wall stands here before it is cut."
            : `${counted(all.length, "hole")}, ${wrong === 0 ? "all settled" : `${wrong} not settled`}; ${counted(all.length, "core")} of swarf to catch and count out.`}
        </p>
        <Button $main={all.length === 0} onPress={add}>
          Add a hole
        </Button>
      </Row>
      <Caution>
        Look behind before the saw starts: tank, wires, chassis. A tank that held petrol is never drilled
        without a licensed cleaner. Battery off, eyes covered, swarf caught and every piece counted out.
      </Caution>
      <Plates />
      {holes.map((hole) => (
        <HoleCard
          key={hole.passage.id}
          hole={hole}
          set={(change) => set(all.map((one) => (one.id === hole.passage.id ? { ...one, ...change } : one)))}
          remove={() => set(all.filter(({ id }) => id !== hole.passage.id))}
        />
      ))}
    </>
  );
}

/** Holes of the tanks' plates, which are surveyed with their tank. */
function Plates() {
  const { job, select } = useJob();
  const { length, bore } = useTrade();
  const plates = job.tanks.filter(({ opening }) => opening && opening.holes.length > 0);
  if (plates.length === 0) return null;
  return (
    <Sheet>
      <h3>In the tanks' plates</h3>
      {plates.map((tank) => (
        <div key={tank.id}>
          <p style={{ margin: "4px 0" }}>
            <Button $quiet onPress={() => select(tank.id)}>
              {tank.name}
            </Button>{" "}
            {(tank.opening?.holes ?? []).map((hole) => {
              const saw = sawFor(hole);
              return (
                <span key={hole.id}>
                  {hole.use} {bore(hole.diameterM)}, {saw === null ? "no saw" : `${bore(saw)} saw`}, at{" "}
                  {length(hole.aM)} and {length(hole.bM)};{" "}
                </span>
              );
            })}
          </p>
          {tank.opening && (
            <TemplateButtons
              template={() => plateTemplate(`${tank.name} plate`, tank.opening as Opening, ({ use }) => use)}
            />
          )}
        </div>
      ))}
    </Sheet>
  );
}

function HoleCard({
  hole,
  set,
  remove,
}: {
  hole: PassageHole;
  set: (change: Change<Passage>) => void;
  remove: () => void;
}) {
  const { job, plan } = useJob();
  const { length } = useTrade();
  const { passage, saw, passM, isOwned, edge, faults } = hole;
  const unit = job.units.length;
  const field = (label: string, value: number | undefined, commit: (m: number) => void, check = positive) => (
    <QuantityField
      label={label}
      dimension="length"
      unit={unit}
      value={value}
      check={check}
      onCommit={commit}
    />
  );
  const [a, b] = passage.fromEdgeM ?? [];
  return (
    <Sheet>
      <h3>
        {passage.name}:{" "}
        {saw.saw ? `${isOwned ? `your ${length(saw.saw.diameterM)}` : saw.saw.name} saw` : "no saw"}
      </h3>
      <One>
        <HoleDrawing hole={hole} />
        <div>
          <p style={{ margin: "0 0 6px" }}>
            {passM > 0
              ? `${length(passM)} passes, ${length(saw.needM)} is needed`
              : "Nothing is said to pass it"}
            ; edge: {edgeTexts[edge]}.
          </p>
          {faults.length > 0 && (
            <ul style={{ margin: "0 0 8px", paddingLeft: 18 }}>
              {faults.map((code) => (
                <li key={code}>
                  {code === "behind" && passage.behind
                    ? `${behindTexts[passage.behind]} lies behind it`
                    : passageTexts[code][0]}
                  . {passageTexts[code][1]}
                </li>
              ))}
            </ul>
          )}
          <Fields>
            <TextField label="Name" value={passage.name} onCommit={(name) => set({ name })} />
            <Select
              label="Through"
              value={passage.through}
              options={options(throughTexts)}
              onChange={(through) => set({ through })}
            />
            <Select
              label="Made of"
              value={passage.made}
              options={options(madeTexts)}
              onChange={(made) => set({ made })}
            />
            {field("Thick", passage.wallM, (wallM) => set({ wallM }))}
            <Select
              label="Behind it lies"
              value={passage.behind ?? NOT_LOOKED}
              options={[{ id: NOT_LOOKED, name: "not looked at" }, ...options(behindTexts)]}
              onChange={(behind) =>
                set({
                  behind: behind === NOT_LOOKED ? undefined : (behind as NonNullable<Passage["behind"]>),
                })
              }
            />
            {field("From one edge", a, (m) => set({ fromEdgeM: [m, b ?? m] }), notNegative)}
            {field("From the other edge", b, (m) => set({ fromEdgeM: [a ?? m, m] }), notNegative)}
            {field("Wires beside, over all", passage.alsoM, (alsoM) => set({ alsoM }))}
            {field("Grommet's wall", passage.grommetM, (grommetM) => set({ grommetM }))}
            {field("Sleeve's length", passage.sleeveM, (sleeveM) => set({ sleeveM }))}
            <Select
              label="Another hose passes"
              value={null}
              placeholder="choose one"
              options={hosesOf(plan)
                .filter(({ id }) => !passage.runs.includes(id))
                .map(({ id }) => ({ id, name: nameOf(job, id) }))}
              onChange={(id) => set({ runs: [...passage.runs, id] })}
            />
          </Fields>
          <div>
            {passage.runs.map((id) => (
              <Switch key={id} isOn onChange={() => set({ runs: passage.runs.filter((one) => one !== id) })}>
                {nameOf(job, id)} passes
              </Switch>
            ))}
          </div>
          <Photos ofId={passage.id} name={`Behind ${passage.name}`} />
          {passageTemplate(hole) && <TemplateButtons template={() => passageTemplate(hole) as Template} />}
          <Button onPress={remove}>Take this hole out</Button>
        </div>
      </One>
    </Sheet>
  );
}

/** The hole from the front and what passes it, to one scale; the saw's ring round it. */
function HoleDrawing({ hole: { passage, saw, passM, faults } }: { hole: PassageHole }) {
  const { plan } = useJob();
  const { length } = useTrade();
  const sawM = saw.saw?.diameterM ?? saw.needM;
  const k = 100 / Math.max(0.01, sawM * 1.25);
  const outers = passage.runs.flatMap(
    (id) => hosesOf(plan).find((run) => run.id === id)?.product.outerDiameterM ?? [],
  );
  const isBad = faults.includes("noSaw") || faults.includes("nearEdge") || faults.includes("behind");
  const ring = Math.max(0, passM / 2 - Math.max(0, ...outers) / 2);
  return (
    <svg
      viewBox="0 0 140 140"
      role="img"
      aria-label={`Hole of ${length(sawM)}, ${length(passM)} passes`}
      style={{ width: "100%", maxWidth: 150 }}
    >
      <rect x={2} y={2} width={136} height={116} fill="var(--panel)" stroke="var(--hairline)" />
      <circle
        cx={70}
        cy={60}
        r={(sawM / 2) * k}
        fill="var(--raised)"
        stroke={isBad ? "var(--danger)" : "var(--ink)"}
        strokeWidth={2.4}
        strokeDasharray={passage.behind === undefined ? "5 4" : undefined}
      />
      {passage.grommetM !== undefined && (
        <circle
          cx={70}
          cy={60}
          r={(sawM / 2 - passage.grommetM / 2) * k}
          fill="none"
          stroke="var(--idle)"
          strokeWidth={Math.max(2, passage.grommetM * k)}
        />
      )}
      {outers.map((outer, i) => {
        const angle = (2 * Math.PI * i) / outers.length;
        const r = outers.length === 1 ? 0 : ring;
        return (
          <circle
            key={passage.runs[i]}
            cx={70 + r * k * Math.cos(angle)}
            cy={60 + r * k * Math.sin(angle)}
            r={(outer / 2) * k}
            fill="var(--atRest)"
            stroke="var(--ink)"
          />
        );
      })}
      <path
        d={`M70 ${60 - (sawM / 2) * k - 5}V${60 + (sawM / 2) * k + 5}M${70 - (sawM / 2) * k - 5} 60H${70 + (sawM / 2) * k + 5}`}
        stroke="var(--ink)"
        strokeDasharray="8 2 2 2"
        strokeWidth={0.8}
      />
      <text x={70} y={134} textAnchor="middle" fontSize={12} fill="var(--ink)">
        {length(sawM)}
      </text>
    </svg>
  );
}
