/*
 * Decides: which way each line goes, and what it passes.
 * Seen in three seconds: the chosen line from the side and from above, its humps and sags, and what is hot, moving or sharp near it.
 */
import styled from "styled-components";
import type { Id, Position } from "~/core/kinds/record";
import { extremesOf, placeAlong, pointsOf } from "~/core/plan/along";
import { type LyingRun, lyingRuns } from "~/core/plan/lying";
import { distanceM, partsOf } from "~/core/plan/ports";
import { runGeometry } from "~/core/plan/route";
import type { Run } from "~/core/plan/types";
import { tradeIn } from "~/core/units/trade";
import { nameOf } from "~/messages/notes";
import { useJob } from "~/state/job";
import { Button } from "~/ui/button";
import { gestureOf } from "~/ui/gesture";
import { useAhead } from "~/ui/useAhead";
import { useWidth } from "~/ui/useWidth";
import { type Axis, aspects, type Chosen, type Frame, tankCorners, VehicleView } from "./VehicleView";

const Rows = styled.div<{ $rows: string }>`
  display: grid; grid-template-rows: auto ${({ $rows }) => $rows}; min-height: 0; height: 100%;
  @media (max-width: 600px) { grid-template-rows: auto 240px 240px; height: auto; }
  > p { margin: 0; padding: 6px 12px; display: flex; flex-wrap: wrap; gap: 4px 14px; align-items: center; min-height: 44px; }
`;

/** Wider than this it is drawn larger; narrower it is drawn in the width there is, so that its names keep their size. */
const [LEAST_WIDTH, WIDTH] = [320, 900];
/** Of both views together. */
const HEIGHT = 520;
const PAD = 34;
/** A flat plan is drawn as if it were this high. */
const LEAST_EXTENT_M = 0.3;

/** Middle and extent of everything, and the scale at which both views of it hold. */
function framed(all: readonly Position[], widthPx: number): { frame: Frame; heights: Record<Axis, number> } {
  const range = (axis: Axis): [number, number] => {
    const values = all.map((point) => point[axis]);
    return values.length > 0 ? [Math.min(...values), Math.max(...values)] : [0, 1];
  };
  const axes: Axis[] = ["xM", "yM", "zM"];
  const by = (of: (range: [number, number]) => number) =>
    Object.fromEntries(axes.map((axis) => [axis, of(range(axis))])) as Record<Axis, number>;
  const spread = by(([low, high]) => Math.max(LEAST_EXTENT_M, high - low));
  const pxPerM = Math.min((widthPx - 2 * PAD) / spread.xM, (HEIGHT - 4 * PAD) / (spread.yM + spread.zM));
  const spare = (HEIGHT - 4 * PAD - (spread.yM + spread.zM) * pxPerM) / 2;
  const heightOf = (axis: Axis) => spread[axis] * pxPerM + 2 * PAD + spare;
  const heights = { xM: heightOf("xM"), yM: heightOf("yM"), zM: heightOf("zM") };
  return { frame: { widthPx, pxPerM, middle: by(([low, high]) => (low + high) / 2) }, heights };
}

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
  const { job, plan, selectedId, dispatch } = useJob();
  const { units } = job;
  const [frameOf, width] = useWidth(LEAST_WIDTH, WIDTH);
  const [ahead, hold] = useAhead<{ id: Id; points: Position[] }>();
  const lying = lyingRuns(job, plan);
  const stored = lying.find(({ run }) => run.id === selectedId) ?? null;
  const isAhead = stored !== null && ahead?.id === stored.run.id;
  const chosen: LyingRun | null = isAhead ? movedTo(stored, ahead.points) : stored;
  const drawn = lying.map((one) => {
    const { run, from, to } = one.run.id === chosen?.run.id ? chosen : one;
    return { run, points: pointsOf(run, from, to) };
  });
  const mine = drawn.find(({ run }) => run.id === chosen?.run.id);
  const parts = partsOf(job, plan);
  // A fill, vent or drain is short beside the vehicle: its tank fills the view.
  const itsTank = chosen?.line?.tank;
  const seen =
    itsTank === undefined
      ? [
          ...drawn.flatMap(({ points }) => points),
          ...job.tanks.flatMap(tankCorners),
          ...parts.map(({ position }) => position),
        ]
      : [
          ...lying.flatMap(({ line }) => (line?.tank === itsTank ? line.points : [])),
          ...(mine?.points ?? []),
          ...job.tanks.filter(({ id }) => id === itsTank).flatMap(tankCorners),
        ];
  const { frame, heights } = framed(seen, width);
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
  return (
    <Rows ref={frameOf} $rows={aspects.map(({ up }) => `minmax(0, ${heights[up].toFixed(0)}fr)`).join(" ")}>
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
      </p>
      {aspects.map((aspect) => (
        <VehicleView
          key={aspect.id}
          aspect={aspect}
          frame={frame}
          heightPx={heights[aspect.up]}
          tanks={job.tanks}
          drawn={drawn}
          parts={parts}
          chosen={worked}
          onPoints={put}
        />
      ))}
    </Rows>
  );
}
