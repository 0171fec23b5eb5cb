import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { LineUpSolver } from "../hydraulics/solve";
import { newJob, newLineUp, newRun, newTank } from "../plan/blank";
import { currentPlan, fromTank } from "../plan/ports";
import type { Job, Tank } from "../plan/types";
import { heightAlong, tankAttitude, upOf } from "../tanks/attitude";
import { capacityM3, levelOfVolumeM, TiltedTank } from "../tanks/tank";
import { buildNetwork } from "./network";
import { postureOf } from "./posture";

const at = (xM: number, yM: number, zM: number) => ({ xM, yM, zM });

function jobWith(...tanks: Tank[]): Job {
  const job = newJob("j", "J");
  job.tanks.push(...tanks);
  for (const { id } of tanks) currentPlan(job).conditions.aboardM3[id] = 0.1;
  return job;
}

const angle = fc.double({ min: -20, max: 20, noNaN: true });

describe("how the vehicle stands", () => {
  test("level: heights are the vehicle's own, surfaces those of the levels", () => {
    const tank = newTank("t", "T", at(2, 0, 0.3));
    const network = buildNetwork(jobWith(tank));
    for (const trim of [undefined, { pitchDeg: 0, rollDeg: 0 }]) {
      const posture = postureOf(network, trim);
      expect([...posture.nodeM]).toEqual([...network.nodeHeightM]);
      expect(posture.surfaceM(tank, 0.08)).toBeCloseTo(0.3 + levelOfVolumeM(tank, 0.08), 12);
      expect(posture.heightM(at(5, 5, 1.2))).toBe(1.2);
    }
  });

  test("a tank fitted nose up: fuel lies level in it while the vehicle stands level", () => {
    const [deg, aboardM3] = [8, 0.1];
    const tilt = (deg * Math.PI) / 180;
    const shape = { kind: "box", lengthM: 1, widthM: 0.5, heightM: 0.4 } as const;
    const tank: Tank = {
      ...newTank("t", "T", at(2, 0, 0.3)),
      shape,
      installed: { pitchDeg: deg, rollDeg: 0 },
    };
    const posture = postureOf(buildNetwork(jobWith(tank)), undefined);
    // A level surface over a tilted box goes through the middle of the volume's own depth: by hand.
    const depth = aboardM3 / (shape.lengthM * shape.widthM);
    const middle = 0.5 * Math.sin(tilt) + depth * Math.cos(tilt);
    expect(posture.surfaceM(tank, aboardM3)).toBeCloseTo(0.3 + middle, 6);
    // The vehicle nose down by as much sets the tank itself level.
    const down = postureOf(buildNetwork(jobWith(tank)), { pitchDeg: -deg, rollDeg: 0 });
    const origin = down.heightM(tank.origin);
    expect(down.surfaceM(tank, aboardM3) - origin).toBeCloseTo(depth, 6);
    // Its far end stands higher by the slope.
    expect(fromTank(tank, at(1, 0, 0)).zM).toBeCloseTo(0.3 + Math.sin(tilt), 12);
    expect(fromTank(tank, at(1, 0, 0)).xM).toBeCloseTo(2 + Math.cos(tilt), 12);
  });

  test("front up by 10 degrees, by hand: a point two metres forward rises by 2 sin 10", () => {
    const network = buildNetwork(jobWith(newTank("t", "T", at(0, 0, 0))));
    const posture = postureOf(network, { pitchDeg: 10, rollDeg: 0 });
    const ten = (10 * Math.PI) / 180;
    expect(posture.heightM(at(2, 0, 0))).toBeCloseTo(2 * Math.sin(ten), 12);
    expect(posture.heightM(at(0, 0, 1))).toBeCloseTo(Math.cos(ten), 12);
    expect(postureOf(network, { pitchDeg: 0, rollDeg: 10 }).heightM(at(0, 2, 0))).toBeCloseTo(
      2 * Math.sin(ten),
      12,
    );
  });

  test("a tank turned in the vehicle stands at the attitude whose vertical is the vehicle's, seen in its axes", () => {
    fc.assert(
      fc.property(
        angle,
        angle,
        fc.double({ min: -180, max: 180, noNaN: true }),
        fc.option(fc.record({ pitchDeg: angle, rollDeg: angle }), { nil: undefined }),
        (pitchDeg, rollDeg, yawDeg, installed) => {
          const tank = { ...newTank("t", "T", at(1, 2, 3)), yawDeg, ...(installed && { installed }) };
          const own = upOf(tankAttitude(tank, { pitchDeg, rollDeg }));
          const up = upOf({ pitchDeg, rollDeg });
          for (const point of [at(1, 0, 0), at(0, 1, 0), at(0.3, -0.4, 0.5)]) {
            const inVehicle = heightAlong(up, fromTank(tank, point)) - heightAlong(up, tank.origin);
            expect(heightAlong(own, point)).toBeCloseTo(inVehicle, 9);
          }
        },
      ),
    );
  });

  test("a quarter turn makes pitch of roll", () => {
    const tank = { ...newTank("t", "T", at(0, 0, 0)), yawDeg: 90 };
    const { pitchDeg, rollDeg } = tankAttitude(tank, { pitchDeg: 0, rollDeg: 8 });
    expect(pitchDeg).toBeCloseTo(8, 9);
    expect(rollDeg).toBeCloseTo(0, 9);
  });

  test("under the surface of a volume lies just that volume, at any trim", () => {
    const tank = newTank("t", "T", at(1, -0.5, 0.4));
    const network = buildNetwork(jobWith(tank));
    fc.assert(
      fc.property(
        angle,
        angle,
        fc.double({ min: 0.02, max: 0.98, noNaN: true }),
        (pitchDeg, rollDeg, share) => {
          const trim = { pitchDeg, rollDeg };
          const posture = postureOf(network, trim);
          const volume = share * capacityM3(tank);
          const offset = posture.surfaceM(tank, volume) - posture.heightM(tank.origin);
          const held = pitchDeg === 0 && rollDeg === 0 ? { pitchDeg: 0, rollDeg: 0 } : trim;
          expect(new TiltedTank(tank, held).volumeM3(offset)).toBeCloseTo(volume, 7);
        },
      ),
    );
  });

  test("two like tanks joined: level nothing flows, front up it runs aft, and as far down as up", () => {
    const front = newTank("a", "A", at(3, 0, 0.2));
    const back = newTank("b", "B", at(0, 0, 0.2));
    const job = jobWith(front, back);
    for (const tank of job.tanks)
      for (const port of tank.ports)
        Object.assign(port, { mouth: at(0.5, 0.25, 0.02), outside: at(0.5, 0.25, 0.02) });
    const plan = currentPlan(job);
    plan.lineUps.push(newLineUp("l", "joined"));
    plan.runs.push(newRun("r", { part: "a", port: "supply" }, { part: "b", port: "supply" }, 4));
    const network = buildNetwork(job);
    const flow = (pitchDeg: number) => {
      const result = new LineUpSolver(network).solve(plan.lineUps[0]!, {
        ...plan.conditions,
        trim: { pitchDeg, rollDeg: 0 },
      });
      if (result.outcome !== "solved") throw new Error(result.outcome);
      return result.flow[network.linkOf.get("r")!]!;
    };
    expect(flow(0)).toBe(0);
    expect(flow(4)).toBeGreaterThan(0);
    expect(flow(-4) / flow(4)).toBeCloseTo(-1, 6);
  });
});
