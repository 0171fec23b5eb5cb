/** What stands in the vehicle, as bodies that both the flat views and the turned one draw. */
import { isConsumer } from "~/core/kinds/families";
import type { Id, Position } from "~/core/kinds/record";
import type { Clip } from "~/core/parts/clips";
import { placeAlong, pointsOf } from "~/core/plan/along";
import type { LyingRun } from "~/core/plan/lying";
import { partsOf } from "~/core/plan/ports";
import { runGeometry } from "~/core/plan/route";
import type { Job, Plan, Run } from "~/core/plan/types";
import type { Corner, Face } from "~/core/tanks/faces";
import { levelOfVolumeM } from "~/core/tanks/tank";
import { boardSolid, partSolid } from "~/core/vehicle/bodies";
import { outlineBodies, outlineOf, type Sized, waterZM } from "~/core/vehicle/outline";
import { tankSolids } from "~/core/vehicle/tanks";

type Is = "shell" | "frame" | "wheel" | "tank" | "board" | "part" | "consumer";

export interface Body {
  key: string;
  is: Is;
  /** What is chosen by it. */
  id?: Id;
  name?: string;
  faces: readonly Face[];
  /** Height of the fuel's surface in it. */
  surfaceM?: number;
}

export interface LaidRun {
  run: Run;
  points: readonly Position[];
  clips: readonly Position[];
}

export interface VehicleScene {
  size: Sized;
  waterM: number | null;
  bodies: readonly Body[];
}

export function sceneOf(job: Job, plan: Plan): VehicleScene {
  const size = outlineOf(job, plan);
  return {
    size,
    waterM: waterZM(size),
    bodies: [
      ...outlineBodies(size).map(({ is, faces }, i): Body => ({ key: `outline${i}`, is, faces })),
      ...job.tanks.map(
        (tank): Body => ({
          key: tank.id,
          is: "tank",
          id: tank.id,
          name: tank.name,
          faces: tankSolids(tank),
          surfaceM: tank.origin.zM + levelOfVolumeM(tank, plan.conditions.aboardM3[tank.id] ?? 0),
        }),
      ),
      ...(plan.boards ?? []).map((board): Body => ({ key: board.id, is: "board", faces: boardSolid(board) })),
      ...partsOf(job, plan).map(
        (part): Body => ({
          key: part.id,
          is: isConsumer(part) ? "consumer" : "part",
          id: part.id,
          name: part.name,
          faces: partSolid(part, plan),
        }),
      ),
    ],
  };
}

/** A line with its clips, where it lies. */
export function laidRun({ run, from, to }: LyingRun, clips: readonly Clip[] = []): LaidRun {
  const points = pointsOf(run, from, to);
  const { lengthM } = runGeometry(run, from, to);
  return {
    run,
    points,
    clips: lengthM > 0 ? clips.map(({ atM }) => placeAlong(points, Math.min(1, atM / lengthM))) : [],
  };
}

/** Every corner of some bodies, as places. */
export const cornersOf = (bodies: readonly Body[]): Position[] =>
  bodies.flatMap(({ faces }) =>
    faces.flatMap((face) => face.map(([xM, yM, zM]: Corner): Position => ({ xM, yM, zM }))),
  );
