import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "../edit/commands";
import { newJob, newTank } from "../plan/blank";
import type { Job, Opening, PlateHole, Tank } from "../plan/types";

const hole = (id: string, aM: number, bM: number, portId?: string): PlateHole => ({
  id,
  use: "pickup",
  aM,
  bM,
  diameterM: 0.019,
  mostM: 0.021,
  flangeM: 0.034,
  swingM: 0,
  partLengthM: 0.3,
  ...(portId && { portId }),
});

function plated(portId?: string): Job {
  const job = newJob("j", "J");
  const tank = newTank("t", "T", { xM: 0, yM: 0, zM: 0 });
  const opening: Opening = {
    aM: 0.3,
    bM: 0.2,
    at: { xM: 0.2, yM: 0.1, zM: 0.4 },
    holes: [hole("h", 0.1, 0.1, portId)],
    roomAboveM: 0.4,
    warnedBy: "gauge",
  };
  job.tanks.push({ ...tank, opening });
  return job;
}
const edit = (job: Job, change: Partial<Tank>) =>
  applyCommand(job, { name: "editTank", id: "t", change }).job.tanks[0] as Tank;

describe("a hole and the port in it", () => {
  const job = plated();
  const [port] = job.tanks[0]!.ports;
  const linked = applyCommand(job, {
    name: "editTank",
    id: "t",
    change: { opening: { ...job.tanks[0]!.opening!, holes: [hole("h", 0.1, 0.1, port!.id)] } },
  }).job;
  const tank = linked.tanks[0]!;
  const own = tank.ports[0]!;

  test("once linked stand at one place: the port comes to the hole, its mouth with it", () => {
    expect(own.outside).toMatchObject({ xM: expect.closeTo(0.3, 12), yM: expect.closeTo(0.2, 12) });
    expect(own.mouth.xM - port!.mouth.xM).toBeCloseTo(own.outside.xM - port!.outside.xM, 12);
    expect(own.mouth.zM).toBe(port!.mouth.zM);
  });

  test("the hole moved takes the port, the plate moved takes both, the port moved takes the hole", () => {
    const opening = tank.opening!;
    const byHole = edit(linked, { opening: { ...opening, holes: [hole("h", 0.15, 0.05, own.id)] } });
    expect(byHole.ports[0]!.outside).toMatchObject({
      xM: expect.closeTo(0.35, 12),
      yM: expect.closeTo(0.15, 12),
    });
    const byPlate = edit(linked, { opening: { ...opening, at: { ...opening.at, xM: 0.25 } } });
    expect(byPlate.ports[0]!.outside.xM).toBeCloseTo(0.35, 12);
    const moved = { ...own, outside: { ...own.outside, xM: 0.36 } };
    const byPort = edit(linked, { ports: [moved, ...tank.ports.slice(1)] });
    expect(byPort.opening!.holes[0]!.aM).toBeCloseTo(0.16, 12);
    expect(byPort.ports[0]!.outside.xM).toBe(0.36);
  });

  test("without a port a hole moves nothing; a port that is gone leaves its hole without one", () => {
    expect(edit(job, { opening: { ...job.tanks[0]!.opening!, holes: [hole("h", 0.2, 0.1)] } }).ports).toEqual(
      job.tanks[0]!.ports,
    );
    const without = edit(linked, { ports: tank.ports.slice(1) });
    expect(without.opening!.holes[0]!.portId).toBeUndefined();
    expect(without.opening!.holes[0]!.aM).toBe(0.1);
  });
});
