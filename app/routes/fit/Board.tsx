/*
 * Decides: whether everything goes in and can be reached, and where each part hangs.
 * Seen in three seconds: the board in its opening, what clashes by how much, the way of each hose.
 */

import { useState } from "react";
import styled from "styled-components";
import { type BoardJudged, boardRuns, centreRadiusM, lidsHeld, positionAt } from "~/core/boards/board";
import { bodySizeOf } from "~/core/boards/envelope";
import { boardTemplate } from "~/core/boards/template";
import { SEARCH } from "~/core/fit/arrange";
import type { Hung } from "~/core/fit/panel";
import { isConsumer } from "~/core/kinds/families";
import { newId } from "~/core/kinds/ids";
import type { Part, PlanPart } from "~/core/kinds/index";
import type { BodySize, Id } from "~/core/kinds/record";
import { newBoard } from "~/core/plan/blank";
import type { Board as BoardRecord } from "~/core/plan/types";
import { positionsOf } from "~/core/plan/valves";
import { notNegative, positive } from "~/fields/checks";
import { QuantityField } from "~/fields/QuantityField";
import { TemplateButtons } from "~/fields/TemplateButtons";
import {
  boardSummary,
  clashText,
  facingTexts,
  hoseWayText,
  lidHeldText,
  roadFacingTexts,
  searchText,
} from "~/messages/board";
import { counted } from "~/messages/counted";
import { nameOf } from "~/messages/notes";
import { useArranging } from "~/state/arranging";
import { useJob, useTrade } from "~/state/job";
import { Button } from "~/ui/button";
import { Select, TextField } from "~/ui/fields";
import { Caution } from "~/ui/place";
import { Table } from "~/ui/table";
import { useWidth } from "~/ui/useWidth";
import { BoardDrawing } from "./BoardDrawing";
import { useBoard } from "./useBoard";

const Row = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px; align-items: flex-end; padding: 0 16px 8px;
  > p { margin: 0; flex: 1; min-width: 220px; font-weight: 600; align-self: center; }
  .field { min-width: 200px; }
`;
const Frame = styled.div`
  margin: 0 16px 10px; min-width: 0;
`;
const Fields = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(140px, 1fr)); gap: 8px 12px; padding: 0 16px 12px; align-items: end;
`;
const Faults = styled.ul`
  margin: 0 16px 10px; padding-left: 20px;
  li { margin: 2px 0; }
`;
const Fold = styled.details`
  margin: 0 0 10px; border-top: 1px solid var(--hairline);
  summary { padding: 8px 16px; cursor: pointer; font-weight: 650; min-height: max(32px, var(--finger)); }
`;

/** What the drawing may take of the place's height, px. */
const MOST_HEIGHT = 420;

export function Board() {
  const { plan, dispatch } = useJob();
  const boards = plan.boards ?? [];
  const [wanted, want] = useState<Id | null>(null);
  const board = boards.find(({ id }) => id === wanted) ?? boards[0];
  const add = () => {
    const made = newBoard(newId(), `Board ${boards.length + 1}`);
    void dispatch({ name: "addBoard", board: made }).then(() => want(made.id));
  };
  if (!board) {
    return (
      <Row>
        <p>No board yet. Filters, valves and pumps are hung on one, reached through one opening.</p>
        <Button $main onPress={add}>
          Add a board
        </Button>
      </Row>
    );
  }
  return (
    <OneBoard
      key={board.id}
      board={board}
      pick={
        <>
          {boards.length > 1 && <Select label="Board" value={board.id} options={boards} onChange={want} />}
          <Button onPress={add}>Add a board</Button>
        </>
      }
    />
  );
}

function OneBoard({ board, pick }: { board: BoardRecord; pick: React.ReactNode }) {
  const { job, plan, select, selectedId, dispatch } = useJob();
  const trade = useTrade();
  const { judged, move, hangAll } = useBoard(board.id);
  const [frame, width] = useWidth(280, 800);
  const [seed, setSeed] = useState(1);
  const { state, start, stop, clear } = useArranging();
  const proposed =
    state.status === "done"
      ? state.proposed.best
      : state.status === "idle"
        ? null
        : (state.progress?.best ?? null);
  const best = proposed && judged && proposed.at.length === judged.at.length ? proposed : null;
  if (!judged) return null;
  const { layout } = judged;
  const shown: BoardJudged = best && state.status !== "idle" ? { ...judged, ...best } : judged;
  const chosen = layout.parts.findIndex(({ id }) => id === selectedId);
  const turn = (i: number) => {
    const turns = layout.task.parts[i]?.turns ?? [0];
    const one = judged.at[i] as Hung;
    const next = turns[(turns.indexOf(one.t) + 1) % turns.length] as number;
    move(i, { ...one, t: next }, true);
  };
  const loose = plan.parts.filter(({ id }) => plan.mounted?.[id] === undefined);
  const hang = (part: PlanPart) => {
    const corner = { x: board.opening.xM, z: board.opening.zM, t: 0 };
    void dispatch({
      name: "hang",
      boardId: board.id,
      at: [{ id: part.id, position: positionAt(board, part, corner), turn: 0 }],
    }).then(() => select(part.id));
  };
  const isOpen = state.status === "working";
  return (
    <div>
      <Row>
        {pick}
        {loose.length > 0 && (
          <div className="field">
            <Select
              label="Hang a part"
              value={null}
              placeholder="choose one"
              options={loose.map(({ id, name }) => ({ id, name }))}
              onChange={(id) => {
                const part = loose.find((one) => one.id === id);
                if (part) hang(part);
              }}
            />
          </div>
        )}
        <Button
          isDisabled={isOpen || layout.parts.length === 0}
          onPress={() => void start(layout.task, judged.at, { ...SEARCH, seed })}
        >
          Propose places
        </Button>
        {isOpen && <Button onPress={stop}>Stop</Button>}
        {chosen >= 0 && (
          <>
            <Button
              isDisabled={(layout.task.parts[chosen]?.turns.length ?? 1) < 2}
              onPress={() => turn(chosen)}
            >
              Turn
            </Button>
            <Button
              aria-pressed={layout.task.parts[chosen]?.isPinned ?? false}
              onPress={() =>
                void dispatch({
                  name: "pin",
                  id: (layout.parts[chosen] as Part).id,
                  isPinned: !layout.task.parts[chosen]?.isPinned,
                })
              }
            >
              {layout.task.parts[chosen]?.isPinned ? "Unpin" : "Pin"}
            </Button>
            <Button
              onPress={() => void dispatch({ name: "takeDown", id: (layout.parts[chosen] as Part).id })}
            >
              Take off the board
            </Button>
            <HandleFields part={layout.parts[chosen] as Part} />
          </>
        )}
      </Row>
      {lidsHeld(layout, plan).map((one) => (
        <Row key={one.valve}>
          <p>{lidHeldText(one, trade.length)}</p>
        </Row>
      ))}
      {state.status !== "idle" && (
        <Row role="status">
          <p>
            {searchText(
              state.status,
              shown,
              state.status === "done" ? state.proposed.instead : null,
              trade.length,
            )}
          </p>
          {best && (
            <Button
              $main
              onPress={() => {
                stop();
                void hangAll(
                  best.at,
                  best.at.flatMap((_, i) => (layout.task.parts[i]?.isPinned ? [] : [i])),
                ).then(clear);
              }}
            >
              Hang them so
            </Button>
          )}
          {!isOpen && (
            <Button
              onPress={() => {
                setSeed(seed + 1);
                void start(layout.task, judged.at, { ...SEARCH, seed: seed + 1 });
              }}
            >
              Search again
            </Button>
          )}
          <Button
            onPress={() => {
              stop();
              clear();
            }}
          >
            Leave as it was
          </Button>
        </Row>
      )}
      <Row>
        <p>{boardSummary(shown, trade.length)}</p>
      </Row>
      <Frame ref={frame}>
        <BoardDrawing
          judged={shown}
          widthPx={width}
          mostHeightPx={MOST_HEIGHT}
          chosenId={selectedId}
          choose={select}
          onMove={move}
          onTurn={turn}
        />
      </Frame>
      {layout.parts.length > 0 && (
        <Row>
          <TemplateButtons template={() => boardTemplate(judged, (id) => nameOf(job, id))} />
        </Row>
      )}
      <FaultList judged={shown} />
      {chosen >= 0 && <PartFigures judged={judged} i={chosen} onMove={move} />}
      <Hoses judged={shown} />
      <BoardFigures board={board} />
      <Caution>
        Sizes and rooms of a kind are generic until you measure the part: hold it to the board before a hole
        is drilled. Look behind the board first; battery off, swarf caught and counted, edges of wood sealed,
        of metal deburred and painted.
      </Caution>
    </div>
  );
}

function FaultList({ judged }: { judged: BoardJudged }) {
  const { job, plan } = useJob();
  const { length } = useTrade();
  const name = (id: string | null) =>
    id === null
      ? ""
      : (judged.layout.board.obstacles.find((one) => one.id === id)?.name ?? nameOf(job, id) ?? id);
  const lines = [
    ...judged.clashes.map(({ code, a, b, by }) =>
      clashText(code, name(a), code === "outOfReach" ? (b ?? "") : name(b), length(by)),
    ),
    ...judged.apart.map(
      ({ a, b, byM }) => `${name(a)} and ${name(b)} are screwed together, and stand ${length(byM)} apart`,
    ),
    ...judged.tooDeep.map(({ id, byM }) => `${name(id)} stands ${length(byM)} out past the shut lid`),
  ];
  if (lines.length === 0 || plan.parts.length === 0) return null;
  return (
    <Faults>
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </Faults>
  );
}

function PartFigures({
  judged,
  i,
  onMove,
}: {
  judged: BoardJudged;
  i: number;
  onMove: (i: number, to: Hung, isOver: boolean) => void;
}) {
  const { job, dispatch } = useJob();
  const part = judged.layout.parts[i] as Part;
  const at = judged.at[i] as Hung;
  const { board } = judged.layout;
  const unit = job.units.length;
  const size = bodySizeOf(part);
  const setSize = (change: Partial<BodySize>) => {
    if (!isConsumer(part))
      void dispatch({ name: "editPart", id: part.id, change: { size: { ...size, ...change } } });
  };
  const sizes: { key: keyof BodySize; label: string }[] = [
    { key: "widthM", label: "Its width" },
    { key: "heightM", label: "Its height" },
    { key: "depthM", label: "Stands out" },
  ];
  return (
    <Fields aria-label={`${part.name} on the board`} role="group">
      <QuantityField
        label={`${part.name}: from the left`}
        dimension="length"
        unit={unit}
        value={at.x}
        onCommit={(x) => onMove(i, { ...at, x }, true)}
      />
      <QuantityField
        label="Over the board's foot"
        dimension="length"
        unit={unit}
        value={at.z}
        onCommit={(z) => onMove(i, { ...at, z }, true)}
      />
      <QuantityField
        label="Its foot over datum"
        dimension="length"
        unit={unit}
        value={board.corner.zM + at.z}
        onCommit={(z) => onMove(i, { ...at, z: z - board.corner.zM }, true)}
      />
      {sizes.map(({ key, label }) => (
        <QuantityField
          key={key}
          label={label}
          dimension="length"
          unit={unit}
          value={size[key]}
          basis={part.size ? "measured" : "assumed"}
          check={positive}
          onCommit={(value) => setSize({ [key]: value })}
        />
      ))}
    </Fields>
  );
}

/** Hoses of the board: as they lie, against the plan's own length. */
function Hoses({ judged }: { judged: BoardJudged }) {
  const { job, plan, select, dispatch } = useJob();
  const { length } = useTrade();
  const { task } = judged.layout;
  if (task.hoses.length === 0) return null;
  return (
    <Fold>
      <summary>{counted(task.hoses.length, "hose")}, one by one</summary>
      <Table style={{ margin: "0 16px", width: "calc(100% - 32px)" }}>
        <thead>
          <tr>
            <th>Hose</th>
            <th className="n">On the board</th>
            <th className="n">In the plan</th>
            <th className="n">Least bend</th>
            <th>Way</th>
          </tr>
        </thead>
        <tbody>
          {boardRuns(plan, judged).map(({ run, laid, isWhole, planM, otherM, blockedBy, leavesRoom }) => (
            <tr key={run.id}>
              <td>
                <Button $quiet onPress={() => select(run.id)}>
                  {nameOf(job, run.from.part)} to {nameOf(job, run.to.part)}
                </Button>
              </td>
              <td className="n">{isWhole ? length(laid.lengthM) : `${length(laid.lengthM)} to the edge`}</td>
              <td className="n">{planM === null ? "traced" : length(planM)}</td>
              <td className="n">{length(centreRadiusM(run))}</td>
              <td>
                {hoseWayText(laid, blockedBy, leavesRoom)}
                {otherM !== null && (
                  <Button
                    $quiet
                    onPress={() =>
                      void dispatch({
                        name: "editRun",
                        id: run.id,
                        change: { route: { kind: "measured", lengthM: otherM, bends: [], extremes: [] } },
                      })
                    }
                  >
                    Take {length(otherM)}
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Fold>
  );
}

function BoardFigures({ board }: { board: BoardRecord }) {
  const { job, dispatch } = useJob();
  const unit = job.units.length;
  const edit = (change: Partial<Omit<BoardRecord, "id">>) =>
    void dispatch({ name: "editBoard", id: board.id, change });
  const facing = job.kind === "boat" ? facingTexts : roadFacingTexts;
  const opening = (change: Partial<BoardRecord["opening"]>) =>
    edit({ opening: { ...board.opening, ...change } });
  const field = (
    label: string,
    value: number,
    set: (m: number) => void,
    check?: (m: number) => string | null,
  ) => (
    <QuantityField
      label={label}
      dimension="length"
      unit={unit}
      value={value}
      {...(check ? { check } : {})}
      onCommit={set}
    />
  );
  return (
    <Fold>
      <summary>The board, its opening and what stands there</summary>
      <Fields>
        <TextField label="Name" value={board.name} onCommit={(name) => edit({ name })} />
        {field("Wide", board.widthM, (widthM) => edit({ widthM }), positive)}
        {field("High", board.heightM, (heightM) => edit({ heightM }), positive)}
        <Select
          label="Its front looks"
          value={board.facing}
          options={(Object.keys(facing) as (keyof typeof facing)[]).map((id) => ({ id, name: facing[id] }))}
          onChange={(next) => edit({ facing: next })}
        />
        {field("Low left corner: forward", board.corner.xM, (xM) =>
          edit({ corner: { ...board.corner, xM } }),
        )}
        {field(job.kind === "boat" ? "Corner: to port" : "Corner: to the left", board.corner.yM, (yM) =>
          edit({ corner: { ...board.corner, yM } }),
        )}
        {field("Corner: over datum", board.corner.zM, (zM) => edit({ corner: { ...board.corner, zM } }))}
        {field("Opening: wide", board.opening.widthM, (widthM) => opening({ widthM }), positive)}
        {field("Opening: high", board.opening.heightM, (heightM) => opening({ heightM }), positive)}
        {field("Opening: from the board's left", board.opening.xM, (xM) => opening({ xM }))}
        {field("Opening: over the board's foot", board.opening.zM, (zM) => opening({ zM }))}
        {field("Shut lid: from the board", board.opening.lidM, (lidM) => opening({ lidM }), positive)}
        {field("Hoses may run beyond its edge", board.beyondM, (beyondM) => edit({ beyondM }), notNegative)}
      </Fields>
      {board.obstacles.map((one) => {
        const set = (change: Partial<typeof one>) =>
          edit({
            obstacles: board.obstacles.map((other) => (other.id === one.id ? { ...one, ...change } : other)),
          });
        return (
          <Fields key={one.id}>
            <TextField label="What stands there" value={one.name} onCommit={(name) => set({ name })} />
            {field("From the left", one.xM, (xM) => set({ xM }))}
            {field("Over the foot", one.zM, (zM) => set({ zM }))}
            {field("Wide", one.widthM, (widthM) => set({ widthM }), positive)}
            {field("High", one.heightM, (heightM) => set({ heightM }), positive)}
            {field("Begins, from the board", one.fromM, (fromM) => set({ fromM }), notNegative)}
            {field("Ends, from the board", one.toM, (toM) => set({ toM }), positive)}
            <Button onPress={() => edit({ obstacles: board.obstacles.filter(({ id }) => id !== one.id) })}>
              Clear it away
            </Button>
          </Fields>
        );
      })}
      <Row>
        <Button
          onPress={() =>
            edit({
              obstacles: [
                ...board.obstacles,
                {
                  id: newId(),
                  name: "Frame",
                  xM: 0,
                  zM: 0,
                  widthM: 0.05,
                  heightM: board.heightM,
                  fromM: 0,
                  toM: 0.05,
                },
              ],
            })
          }
        >
          Something stands there
        </Button>
        <Button onPress={() => void dispatch({ name: "removeBoard", id: board.id })}>
          Remove this board
        </Button>
      </Row>
    </Fold>
  );
}

/** No id of a position has such a sign. */
const UNMEASURED = "?";

/** Of a chosen valve: at which position its handle stands out farthest, and how far. */
function HandleFields({ part }: { part: Part }) {
  const { job, plan, dispatch } = useJob();
  if (part.kind !== "selector" && part.kind !== "twoWay") return null;
  const handle = plan.mounted?.[part.id]?.handle;
  const positions = positionsOf(part);
  // No handle stands out less than its valve does: that is where its figure begins.
  const leastM = bodySizeOf(part).depthM;
  const set = (next: typeof handle | null) =>
    void dispatch({ name: "setHandle", id: part.id, handle: next ?? null });
  return (
    <>
      <div className="field">
        <Select
          label="Its handle stands out farthest at"
          value={handle?.position ?? UNMEASURED}
          options={[
            { id: UNMEASURED, name: "not measured" },
            ...positions.map(({ id, name }) => ({ id, name })),
          ]}
          onChange={(position) =>
            set(position === UNMEASURED ? null : { standsOutM: leastM, ...handle, position })
          }
        />
      </div>
      {handle && (
        <div className="field">
          <QuantityField
            label="By, from the board"
            dimension="length"
            unit={job.units.length}
            value={handle.standsOutM}
            basis={handle.standsOutM === leastM ? "assumed" : "measured"}
            check={positive}
            onCommit={(standsOutM) => set({ ...handle, standsOutM })}
          />
        </div>
      )}
    </>
  );
}
