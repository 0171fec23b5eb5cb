/** Where a bleed is drawn: in the order of the flow, nothing over anything else, at true heights. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { currentPlan } from "../plan/ports";
import type { Job, LineUp } from "../plan/types";
import { bleedJoints } from "./joints";
import { airPicture, jointPlace } from "./picture";
import { bleedTask } from "./report";
import { AirSession } from "./session";

function drawn(name: string) {
  const { job } = JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job };
  const task = bleedTask(job, currentPlan(job).lineUps[0] as LineUp, { kind: "dry" })!;
  const session = AirSession.start(task.network, task.lineUp, task.conditions)!;
  const surfaceM = session.surfaceM(task.way.stations[0]?.id ?? "");
  const picture = airPicture(session.model, task.way, surfaceM);
  return { picture, joints: bleedJoints(session.model, task.way), model: session.model, surfaceM };
}

describe.each(["marram", "unit-12", "reading-van"])("%s", (name) => {
  const { picture, joints, model, surfaceM } = drawn(name);
  test("goes from the tank to the consumer, each hose on from the last", () => {
    expect(picture.stations[0]?.kind).toBe("tank");
    expect(picture.stations.at(-1)?.kind).toBe("engine");
    let x = 0;
    for (const line of picture.lines) {
      expect(line.x0).toBeGreaterThanOrEqual(x - 1e-9);
      expect(line.x1).toBeGreaterThan(line.x0);
      x = line.x1;
    }
    expect(x).toBeLessThan(picture.wideM);
  });
  test("stands at true heights, within its frame", () => {
    for (const { cell, z0, z1 } of picture.lines) {
      expect((z0 + z1) / 2).toBeCloseTo(model.mesh.cells.zM[cell] as number, 9);
      for (const z of [z0, z1]) {
        expect(z).toBeGreaterThanOrEqual(picture.lowM - 1e-9);
        expect(z).toBeLessThanOrEqual(picture.highM + 1e-9);
      }
    }
    expect(picture.surfaceM).toBe(surfaceM);
  });
  test("has no vessel over a hose or another vessel", () => {
    const boxes = [...picture.vessels].sort((a, b) => a.x0 - b.x0);
    boxes.slice(1).forEach((box, i) => expect(box.x0).toBeGreaterThanOrEqual((boxes[i]?.x1 ?? 0) - 1e-9));
    for (const { x0, x1 } of picture.vessels)
      for (const line of picture.lines) expect(line.x1 <= x0 + 1e-9 || line.x0 >= x1 - 1e-9).toBe(true);
  });
  test("has a place for every joint of the way", () => {
    for (const joint of joints.filter(({ kind }) => kind !== "deadEnd")) {
      const place = jointPlace(picture, joint);
      expect(place).not.toBeNull();
      expect(place?.x).toBeLessThan(picture.wideM);
    }
  });
});

test("a spare separator is drawn beside the one in use, marked as aside", () => {
  const { picture } = drawn("marram");
  expect(picture.vessels.map(({ partId, isAside }) => [partId, isAside])).toEqual([
    ["sep1", false],
    ["sep2", true],
    ["second", false],
  ]);
});
