/*
 * Decides: which way each line goes, what it passes and what it is held by.
 * Seen in three seconds: this boat or this truck, what stands where in it, and the humps and sags of the chosen line.
 */
import { lazy, Suspense, useMemo, useState } from "react";
import styled from "styled-components";
import type { Id, Position } from "~/core/kinds/record";
import { clipLines } from "~/core/parts/clips";
import { extremesOf, placeAlong } from "~/core/plan/along";
import { type LyingRun, lyingRuns } from "~/core/plan/lying";
import { distanceM } from "~/core/plan/ports";
import { runGeometry } from "~/core/plan/route";
import type { Run } from "~/core/plan/types";
import { tradeIn } from "~/core/units/trade";
import { nameOf } from "~/messages/notes";
import { lineKinds } from "~/plumbing/edges";
import { useJob, useSettled } from "~/state/job";
import { Button, ToggleButton } from "~/ui/button";
import { gestureOf } from "~/ui/gesture";
import { keep, kept } from "~/ui/kept";
import { useAhead } from "~/ui/useAhead";
import { useNarrow } from "~/ui/useNarrow";
import { useWidth } from "~/ui/useWidth";
import { type Axis, aspects, type Frame, framed, HEIGHT_PX, PAD_PX } from "./flat";
import { Sizes } from "./Sizes";
import { type Body, cornersOf, type LaidRun, laidRun, sceneOf } from "./scene";
import { type Chosen, VehicleView } from "./VehicleView";

const Turned = lazy(() => import("./Turned"));

const Rows = styled.div`
  display: grid; grid-template-rows: auto minmax(0, 1fr); min-height: 0; height: 100%;
  > p { margin: 0; padding: 6px 12px; display: flex; flex-wrap: wrap; gap: 4px 14px; align-items: center; min-height: 44px; }
  > p > .grow { flex: 1; }
  @media (max-width: 600px) { height: auto; }
`;
const Views = styled.div<{ $columns: string; $rows: string }>`
  display: grid; min-height: 0; min-width: 0; grid-template-columns: ${({ $columns }) => $columns}; grid-template-rows: ${({ $rows }) => $rows};
  > * { min-width: 0; min-height: 0; overflow: hidden; }
  @media (max-width: 600px) { grid-template: none; grid-auto-rows: 250px; }
`;

/** Wider than this it is drawn larger; narrower it is drawn in the width there is, so that its names keep their size. */
const [LEAST_WIDTH, WIDTH] = [320, 900];
const NEAR_KEY = "vehicle-near";

const isLaid = ({ is }: Body) => is === "tank" || is === "part" || is === "consumer" || is === "board";

/** The radius a run keeps when it is traced on, or the least that its hose bears: to the centre line. */
const bendOf = ({ route, product }: Run): number =>
  route.kind === "traced" && route.radiusM > 0
    ? route.radiusM
    : product.leastRadiusM + product.outerDiameterM / 2;

const movedTo = (lying: LyingRun, points: Position[]): LyingRun => ({
  ...lying,
  run: { ...lying.run, route: { kind: "traced", points, radiusM: bendOf(lying.run) } },
});

/** What stands at its two ends; of a tank's line the outer end is none of its tank. */
const endNames = ({ from, to, line }: LyingRun) => [from.ownerName, line ? to.name : to.ownerName];

export function InVehicle() {
  const { job, plan, network, selectedId, dispatch } = useJob();
  const { verdict } = useSettled();
  const { units } = job;
  const isNarrow = useNarrow();
  const [frameOf, width] = useWidth(LEAST_WIDTH, WIDTH);
  const [isNear, setNear] = useState(() => kept(NEAR_KEY) === "1");
  const [isTurned, setTurned] = useState(false);
  const [ahead, hold] = useAhead<{ id: Id; points: Position[] }>();
  const scene = useMemo(() => sceneOf(job, plan), [job, plan]);
  const clips = useMemo(
    () => new Map(clipLines(job, plan).map((line) => [line.runId, line.clips])),
    [job, plan],
  );
  const kinds = useMemo(() => lineKinds(network, verdict), [network, verdict]);
  const lying = useMemo(() => lyingRuns(job, plan), [job, plan]);
  const stored = lying.find(({ run }) => run.id === selectedId) ?? null;
  const isAhead = stored !== null && ahead?.id === stored.run.id;
  const chosen: LyingRun | null = isAhead ? movedTo(stored, ahead.points) : stored;
  const laid = useMemo(() => lying.map((one) => laidRun(one, clips.get(one.run.id))), [lying, clips]);
  const drawn: readonly LaidRun[] =
    isAhead && chosen ? laid.map((one) => (one.run.id === chosen.run.id ? laidRun(chosen) : one)) : laid;
  const mine = drawn.find(({ run }) => run.id === chosen?.run.id);
  // A fill, vent or drain is short beside the vehicle: its tank fills the view.
  const itsTank = chosen?.line?.tank;
  const points = drawn.flatMap((one) => one.points);
  const seen =
    itsTank !== undefined
      ? [
          ...lying.flatMap(({ line }) => (line?.tank === itsTank ? line.points : [])),
          ...(mine?.points ?? []),
          ...cornersOf(scene.bodies.filter(({ id }) => id === itsTank)),
        ]
      : [...points, ...cornersOf(isNear ? scene.bodies.filter(isLaid) : scene.bodies)];
  // The same while nothing of it changes: what is drawn by it is not drawn anew as a point is dragged.
  const frameKey = JSON.stringify(framed(seen, width, isNarrow));
  const frame = useMemo(() => JSON.parse(frameKey) as Frame, [frameKey]);
  const put = (points: Position[]) => {
    if (!chosen) return;
    const { run, line } = chosen;
    hold({ id: run.id, points }, () =>
      dispatch(
        line
          ? {
              name: "editTankLine",
              id: line.id,
              change: {
                points: [chosen.from.position, ...points, chosen.to.position],
                given: { ...line.given, points: { basis: "measured" } },
              },
            }
          : {
              name: "editRun",
              id: run.id,
              change: { route: { kind: "traced", points, radiusM: bendOf(run) } },
            },
        gestureOf(`route:${run.id}`),
      ),
    );
  };
  const inner = (): Position[] => mine?.points.slice(1, -1).map((point) => ({ ...point })) ?? [];
  const trace = () => {
    const points = inner();
    put(points.length > 0 ? points : [placeAlong(mine?.points ?? [], 0.5)]);
  };
  const addPoint = () => {
    if (!mine) return;
    const lengths = mine.points.slice(1).map((point, i) => {
      const before = mine.points[i] as Position;
      return distanceM(before, point);
    });
    const longest = lengths.indexOf(Math.max(...lengths));
    const middle = placeAlong(mine.points.slice(longest, longest + 2), 0.5);
    const points = inner();
    points.splice(longest, 0, middle);
    put(points);
  };
  const geometry = mine && chosen && runGeometry(mine.run, chosen.from, chosen.to);
  const extremes = mine ? extremesOf(mine.points) : [];
  const worked: Chosen | null =
    mine && chosen && geometry
      ? {
          ...mine,
          endNames: endNames(chosen),
          lengthM: geometry.lengthM,
          extremes,
          stays: chosen.line ? { low: "fuel stays" } : { high: "air stays", low: "water stays" },
        }
      : null;
  const room = (axis: Axis) => frame.size[axis] * frame.pxPerM + 2 * PAD_PX;
  const spare = Math.max(0, HEIGHT_PX - room("yM") - room("zM")) / 2;
  const wide = Math.max(0, width - room("xM") - room("yM"));
  // What is left over goes to the sides and to the turned view, which has room for it.
  const [sideW, sternW] = [room("xM") + wide / 2, room("yM") + wide / 2];
  const [upperH, lowerH] = [room("zM") + spare, room("yM") + spare];
  const view = (id: keyof typeof aspects, widthPx: number, heightPx: number) => (
    <VehicleView
      aspect={aspects[id]}
      frame={frame}
      widthPx={isNarrow ? width : widthPx}
      heightPx={isNarrow ? 250 : heightPx}
      scene={scene}
      drawn={drawn}
      kinds={kinds}
      chosen={worked}
      onPoints={put}
    />
  );
  return (
    <Rows ref={frameOf}>
      <p>
        {!chosen && <span>Choose a line: here, or in the plumbing.</span>}
        {chosen && geometry && (
          <>
            <b>{nameOf(job, chosen.run.id)}</b>
            <span>
              {tradeIn(units).length(geometry.lengthM)} long, rises {tradeIn(units).length(geometry.riseM)}
            </span>
            <span>
              {extremes.length === 0
                ? "no hump, no sag"
                : extremes
                    .map(
                      ({ kind, byM }) =>
                        `${kind === "high" ? "hump" : "sag"} of ${tradeIn(units).length(byM)}`,
                    )
                    .join(", ")}
            </span>
            {chosen.run.route.kind === "measured" ? (
              <Button onPress={trace}>Trace its way</Button>
            ) : (
              <Button onPress={addPoint}>Add a point</Button>
            )}
          </>
        )}
        <span className="grow" />
        <ToggleButton
          isSelected={isNear}
          onChange={(near) => {
            setNear(near);
            keep(NEAR_KEY, near ? "1" : "0");
          }}
        >
          Lines
        </ToggleButton>
        <ToggleButton isSelected={isTurned} onChange={setTurned}>
          Turned
        </ToggleButton>
        <Sizes size={scene.size} />
      </p>
      <Views
        $columns={
          isTurned ? "minmax(0, 1fr)" : `minmax(0, ${sideW.toFixed(0)}fr) minmax(0, ${sternW.toFixed(0)}fr)`
        }
        $rows={
          isTurned ? "minmax(0, 1fr)" : `minmax(0, ${upperH.toFixed(0)}fr) minmax(0, ${lowerH.toFixed(0)}fr)`
        }
      >
        {!isTurned && view("side", sideW, upperH)}
        {!isTurned && view("stern", sternW, upperH)}
        {!isTurned && view("plan", sideW, lowerH)}
        <Suspense fallback={<div />}>
          <Turned scene={scene} drawn={drawn} kinds={kinds} />
        </Suspense>
      </Views>
    </Rows>
  );
}
