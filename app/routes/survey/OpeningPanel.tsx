import { plateTemplate } from "~/core/boards/template";
import type { Change } from "~/core/edit/merge";
import { TemplateButtons } from "~/fields/TemplateButtons";
/*
 * Decides: where each hole goes in the plate, and with which saw.
 * Seen in three seconds: the plate to scale with its holes, and which of them cannot be cut as drawn.
 */

import { type KeyboardEvent, useState } from "react";
import styled from "styled-components";
import { newId } from "~/core/kinds/ids";
import type { HoleUse, Opening, PlateHole, TankPort } from "~/core/plan/types";
import { holeFaults, type KeepOut, keepOuts, metalLeftM, mirrored, sawFor } from "~/core/tanks/opening";
import { boundsOf } from "~/core/tanks/shape";
import { notNegative, positive } from "~/fields/checks";
import { LookField } from "~/fields/LookField";
import { Button } from "~/ui/button";
import { Select, Switch } from "~/ui/fields";
import { Caution } from "~/ui/place";
import { Table } from "~/ui/table";
import { useAhead } from "~/ui/useAhead";
import { type By, useDrag } from "~/ui/useDrag";
import { Fields, LengthField, Lengths, Panel, Small, useEditTank, useTank, useUnits } from "./tankContext";

const W = 400;
const nameOfUse = (use: HoleUse): string => uses.find(({ id }) => id === use)?.name ?? use;
const uses: { id: HoleUse; name: string }[] = [
  { id: "sender", name: "sender" },
  { id: "pickup", name: "pickup" },
  { id: "return", name: "return" },
  { id: "vent", name: "vent" },
  { id: "spare", name: "spare" },
  { id: "sampling", name: "sampling" },
];
const warners: { id: Opening["warnedBy"]; name: string }[] = [
  { id: "gauge", name: "a gauge" },
  { id: "whistle", name: "a fill whistle" },
  { id: "sightGlass", name: "a sight glass" },
  { id: "nothing", name: "nothing" },
];

const Plate = styled.svg`
  display: block; width: 100%; background: var(--panel); border: 1px solid var(--hairline);
  text { font-size: 12px; fill: var(--ink); paint-order: stroke; stroke: var(--raised); stroke-width: 3px; font-stretch: 84%; }
  .hole { cursor: grab; touch-action: none; outline: none; }
  .hole:focus-visible circle.rim { stroke-width: 4; }
`;

const newHole = (use: HoleUse, aM: number, bM: number): PlateHole => ({
  id: newId(),
  use,
  aM,
  bM,
  diameterM: use === "sender" ? 0.054 : 0.019,
  mostM: use === "sender" ? 0.057 : 0.021,
  flangeM: use === "sender" ? 0.08 : 0.034,
  swingM: use === "sender" ? 0.1 : 0,
  partLengthM: use === "sender" || use === "pickup" ? 0.3 : 0.06,
});

/** What of the tank's ports can go through a hole: pickups or returns, by what it is for. */
const throughOf = ({ use }: PlateHole, ports: readonly TankPort[]) =>
  ports.filter(
    ({ role }) => (use === "pickup" && role === "outlet") || (use === "return" && role === "return"),
  );

export function OpeningPanel() {
  const { tank } = useTank();
  const edit = useEditTank(tank);
  const [chosenId, choose] = useState<string | null>(null);
  const [isInside, setInside] = useState(false);
  const { opening } = tank;
  const { x, y, z } = boundsOf(tank.shape);
  if (!opening) {
    const first: Opening = {
      aM: 0.3,
      bM: 0.2,
      at: { xM: (x[0] + x[1]) / 2 - 0.15, yM: (y[0] + y[1]) / 2 - 0.1, zM: z[1] },
      holes: [newHole("sender", 0.08, 0.1), newHole("pickup", 0.18, 0.1), newHole("return", 0.25, 0.1)],
      roomAboveM: 0.4,
      warnedBy: "gauge",
    };
    return (
      <Panel>
        <p>No opening is drawn for this tank yet.</p>
        <Button $main onPress={() => void edit({ opening: first })}>
          Draw its plate
        </Button>
      </Panel>
    );
  }
  const set = (change: Change<Opening>, gesture?: string) =>
    edit({ opening: { ...opening, ...change } }, undefined, gesture);
  const setHole = (id: string, change: Change<PlateHole>, gesture?: string) =>
    set({ holes: opening.holes.map((hole) => (hole.id === id ? { ...hole, ...change } : hole)) }, gesture);
  const faults = holeFaults(tank);
  const chosen = opening.holes.find(({ id }) => id === chosenId) ?? opening.holes[0];
  return (
    <>
      <Panel>
        <h3>The plate, {isInside ? "seen from inside: mirrored" : "seen from outside"}</h3>
        <PlateDrawing
          opening={opening}
          isInside={isInside}
          behind={keepOuts(tank)}
          chosenId={chosen?.id ?? null}
          choose={choose}
          bad={new Set(faults.flatMap((fault) => [fault.holeId]))}
          onMove={(id, aM, bM, gesture) => setHole(id, { aM, bM }, gesture)}
        />
        <Switch isOn={isInside} onChange={setInside}>
          From inside
        </Switch>
        <TemplateButtons
          template={() => plateTemplate(`${tank.name} plate`, opening, ({ use }) => nameOfUse(use))}
        />
        <Small>
          Places are from the plate's two reference edges, which both sides can reach: a from the left, b from
          the lower edge.
          {faults.length === 0
            ? " Every hole can be cut as drawn."
            : " Holes marked with a cross cannot: see the findings."}
        </Small>
        <Fields>
          <Lengths
            of={opening}
            set={(change) => set(change)}
            fields={[
              { key: "aM", label: "Plate: long", check: positive },
              { key: "bM", label: "Plate: wide", check: positive },
            ]}
          />
          <LengthField
            label="Its corner: along"
            value={opening.at.xM}
            onCommit={(xM) => set({ at: { ...opening.at, xM } })}
          />
          <LengthField
            label="Its corner: across"
            value={opening.at.yM}
            onCommit={(yM) => set({ at: { ...opening.at, yM } })}
          />
          <LengthField
            label="Room above"
            value={opening.roomAboveM}
            check={notNegative}
            onCommit={(roomAboveM) => set({ roomAboveM })}
          />
          <Select
            label="Warns when full or low"
            value={opening.warnedBy}
            options={warners}
            onChange={(warnedBy) => set({ warnedBy })}
          />
        </Fields>
        <LookField
          label="A sender's adapter has taken the cleaning opening"
          value={opening.cleaningTaken}
          onChange={(cleaningTaken) => set({ cleaningTaken })}
        />
      </Panel>
      <Panel>
        <h3>Holes</h3>
        <Holes opening={opening} chosenId={chosen?.id ?? null} choose={choose} />
        {chosen && (
          <Fields style={{ marginTop: 8 }}>
            <Select
              label="For"
              value={chosen.use}
              options={uses}
              onChange={(use) => setHole(chosen.id, { use, portId: undefined })}
            />
            {throughOf(chosen, tank.ports).length > 0 && (
              <Select
                label="Through it goes"
                value={chosen.portId ?? "none"}
                options={[{ id: "none", name: "not told" }, ...throughOf(chosen, tank.ports)]}
                onChange={(id) => setHole(chosen.id, { portId: id === "none" ? undefined : id })}
              />
            )}
            <Lengths
              of={chosen}
              set={(change) => setHole(chosen.id, change)}
              fields={[
                { key: "aM", label: "a, from the left" },
                { key: "bM", label: "b, from below" },
                { key: "diameterM", label: "Hole", check: positive },
                { key: "mostM", label: "Flange covers at most", check: positive },
                { key: "flangeM", label: "Flange", check: positive },
                { key: "swingM", label: "Float swings within", check: notNegative },
                { key: "partLengthM", label: "Part's length", check: notNegative },
              ]}
            />
            <Button onPress={() => set({ holes: opening.holes.filter(({ id }) => id !== chosen.id) })}>
              Take out
            </Button>
          </Fields>
        )}
        <Button
          onPress={() => set({ holes: [...opening.holes, newHole("spare", opening.aM / 2, opening.bM / 2)] })}
        >
          Add a hole
        </Button>
        <Caution style={{ margin: "8px 0 0" }}>
          Emptied and ventilated, battery off, no spark; saw square, both sides free of burr, catch the swarf
          and count every piece out. Petrol: a licensed cleaner first.
        </Caution>
      </Panel>
    </>
  );
}

function Holes({
  opening,
  chosenId,
  choose,
}: {
  opening: Opening;
  chosenId: string | null;
  choose: (id: string) => void;
}) {
  const { length } = useUnits();
  return (
    <Table>
      <thead>
        <tr>
          <th>Hole</th>
          <th className="n">a</th>
          <th className="n">b</th>
          <th className="n">b from inside</th>
          <th className="n">Metal to the next</th>
          <th className="n">Saw</th>
        </tr>
      </thead>
      <tbody>
        {opening.holes.map((hole) => {
          const saw = sawFor(hole);
          const metal = metalLeftM(opening, hole);
          return (
            <tr key={hole.id}>
              <td>
                <Button $quiet aria-pressed={hole.id === chosenId} onPress={() => choose(hole.id)}>
                  {hole.use}
                </Button>
              </td>
              <td className="n">{length(hole.aM)}</td>
              <td className="n">{length(hole.bM)}</td>
              <td className="n">{length(mirrored(opening, hole).bM)}</td>
              <td className="n">{metal === null ? "" : length(metal)}</td>
              <td className="n">{saw === null ? "none fits" : length(saw)}</td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}

const STEP_M = 0.001;

function PlateDrawing({
  opening,
  isInside,
  behind,
  chosenId,
  choose,
  bad,
  onMove,
}: {
  opening: Opening;
  isInside: boolean;
  behind: readonly KeepOut[];
  chosenId: string | null;
  choose: (id: string) => void;
  bad: ReadonlySet<string>;
  onMove: (id: string, aM: number, bM: number, gesture?: string) => Promise<unknown>;
}) {
  const { length } = useUnits();
  const [draft, setDraft] = useAhead<{ id: string; aM: number; bM: number }>();
  const scale = (W - 60) / opening.aM;
  const height = opening.bM * scale + 56;
  const px = (aM: number) => 40 + aM * scale;
  const py = (bM: number) => 20 + (isInside ? bM : opening.bM - bM) * scale;
  const tidy = (value: number) => Math.round(value / STEP_M) * STEP_M;
  const movedBy = ({ id, aM, bM }: PlateHole, by: By) => ({
    id,
    aM: tidy(aM + by.x / scale),
    bM: tidy(bM + ((isInside ? 1 : -1) * by.y) / scale),
  });
  const grip = useDrag<PlateHole>({
    press: ({ id }) => {
      choose(id);
      return true;
    },
    move: (hole, by) => setDraft(movedBy(hole, by)),
    drop: (hole, by) => {
      const to = movedBy(hole, by);
      setDraft(to, () => onMove(to.id, to.aM, to.bM));
    },
  });
  const drag = (hole: PlateHole) => ({
    ...grip(hole),
    onKeyDown: (event: KeyboardEvent<SVGGElement>) => {
      const by = event.shiftKey ? 10 * STEP_M : STEP_M;
      const up = isInside ? -by : by;
      const moves: Record<string, [number, number]> = {
        ArrowLeft: [-by, 0],
        ArrowRight: [by, 0],
        ArrowUp: [0, up],
        ArrowDown: [0, -up],
      };
      const move = moves[event.key];
      if (!move) return;
      event.preventDefault();
      const at = draft?.id === hole.id ? draft : hole;
      const next = { id: hole.id, aM: at.aM + move[0], bM: at.bM + move[1] };
      setDraft(next, () => onMove(next.id, next.aM, next.bM, `hole-${hole.id}`));
    },
  });
  return (
    <Plate viewBox={`0 0 ${W} ${height}`} role="group" aria-label="The plate with its holes">
      <rect
        x={px(0)}
        y={20}
        width={opening.aM * scale}
        height={opening.bM * scale}
        fill="var(--raised)"
        stroke="var(--ink)"
        strokeWidth={2}
      />
      <path
        d={`M${px(0)} ${py(0)}H${px(opening.aM)}M${px(0)} ${py(0)}V${py(opening.bM)}`}
        stroke="var(--ink)"
        strokeWidth={4}
      />
      {behind.map(({ id, aM, bM }) => (
        <rect
          key={id}
          x={px(aM[0])}
          y={Math.min(py(bM[0]), py(bM[1]))}
          width={(aM[1] - aM[0]) * scale}
          height={(bM[1] - bM[0]) * scale}
          fill="var(--hairline)"
          stroke="var(--idle)"
          strokeDasharray="4 3"
        />
      ))}
      <text x={px(opening.aM / 2)} y={height - 8} textAnchor="middle">
        a: {length(opening.aM)}
      </text>
      <text x={8} y={20 + (opening.bM * scale) / 2}>
        b
      </text>
      {opening.holes.map((stored) => {
        const hole = draft?.id === stored.id ? { ...stored, ...draft } : stored;
        const [x, y] = [px(hole.aM), py(hole.bM)];
        const r = (hole.diameterM / 2) * scale;
        return (
          <g
            key={hole.id}
            className="hole"
            tabIndex={0}
            role="button"
            aria-label={`${hole.use}: a ${length(hole.aM)}, b ${length(hole.bM)}${bad.has(hole.id) ? ", cannot be cut as drawn" : ""}; arrows move it`}
            onFocus={() => choose(hole.id)}
            {...drag(stored)}
          >
            {hole.swingM > 0 && (
              <circle
                cx={x}
                cy={y}
                r={hole.swingM * scale}
                fill="none"
                stroke="var(--idle)"
                strokeDasharray="2 4"
              />
            )}
            <circle cx={x} cy={y} r={(hole.flangeM / 2) * scale} fill="transparent" stroke="var(--idle)" />
            <circle
              className="rim"
              cx={x}
              cy={y}
              r={r}
              fill="var(--panel)"
              stroke={chosenId === hole.id ? "var(--act)" : "var(--ink)"}
              strokeWidth={chosenId === hole.id ? 3 : 1.8}
            />
            {bad.has(hole.id) && (
              <path
                d={`M${x - r} ${y - r}L${x + r} ${y + r}M${x + r} ${y - r}L${x - r} ${y + r}`}
                stroke="var(--danger)"
                strokeWidth={2.5}
              />
            )}
            <text x={x} y={y - (hole.flangeM / 2) * scale - 4} textAnchor="middle">
              {hole.use}
            </text>
            {chosenId === hole.id && (
              <>
                <path
                  d={`M${px(0)} ${y}H${x}M${x} ${py(0)}V${y}`}
                  stroke="var(--act)"
                  strokeDasharray="3 3"
                />
                <text x={(px(0) + x) / 2} y={y - 4} textAnchor="middle">
                  {length(hole.aM)}
                </text>
                <text x={x + 4} y={(py(0) + y) / 2}>
                  {length(hole.bM)}
                </text>
              </>
            )}
          </g>
        );
      })}
    </Plate>
  );
}
