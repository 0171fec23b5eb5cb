import { fuelAt } from "../fuel/fuel";
import { clearingMS } from "../laws/bubbles";
import { gravityFill } from "../laws/gravityFill";
import { newPart, newRun } from "../plan/blank";
import { benchTank, flowOf, lineTo, opened, total } from "./bench.fixture";
import { IDLE_HANDS } from "./flow";

const areaM2 = (d: number) => (Math.PI / 4) * d * d;
// dead end
{
  const b = benchTank(2);
  lineTo(b, { part: "t", port: "supply" }, "g", { lengthM: 1, boreM: 0.008, riseM: 1, fromZM: 0 });
  const m = flowOf(b);
  m.set(opened(m, "t.supply", 1e-12));
  m.run(20);
  const cells = m.mesh.cellsOf.get("rg")!;
  const air = cells.reduce((s, c) => s + m.airM3(c), 0);
  console.log(
    "dead end air length",
    air / areaM2(0.008),
    "law 0.869",
    m.steps,
    m.retries,
    cells.map((c) => (m.fuelM3[c]! / m.mesh.cells.volumeM3[c]!).toFixed(3)).join(" "),
  );
}
// gravity fill
for (const [bore, L, rise, head] of [
  [0.002, 1.6, 0.2227, 0.3],
  [0.003, 2, -0.2, 0.3],
  [0.003, 2, 0, 0.3],
  [0.0025, 2, -0.6, 0.2],
  [0.006, 4, 0, 0.3],
  [0.0095, 6, 0, 0.2],
  [0.003, 4, 0.2, 0.3],
] as const) {
  const b = benchTank(head);
  lineTo(b, { part: "t", port: "supply" }, "g", { lengthM: L, boreM: bore, riseM: rise, fromZM: 0 });
  const m = flowOf(b);
  m.set(opened(m, "g.a", 1e-3));
  const f = fuelAt(b.job.fuel, 15)!;
  const law = gravityFill(
    { boreM: bore, lengthM: L, slopeRad: Math.asin(-rise / L), headM: head },
    f.kinematicM2S,
  );
  const last = m.mesh.cellsOf.get("rg")!.at(-1)!;
  m.run(400, () => m.fuelM3[last]! / m.mesh.cells.volumeM3[last]! > 0.98);
  console.log(
    "gravity",
    bore,
    L,
    rise,
    head,
    m.atS.toFixed(2),
    "law",
    law.seconds?.toFixed(2),
    "Re",
    law.endReynolds?.toFixed(0),
    (100 * (m.atS / (law.seconds ?? NaN) - 1)).toFixed(1) + " %",
    m.steps,
    m.retries,
  );
}
// clearing: tank -> pump -> long falling line with pocket
for (const [bore, slope] of [
  [0.0127, 90],
  [0.0095, 30],
  [0.0127, 30],
  [0.0095, 90],
  [0.008, 15],
] as const) {
  const cl = clearingMS(bore, (slope * Math.PI) / 180, 832, 0.027);
  const out: string[] = [];
  for (const factor of [0.8, 0.85, 0.9, 0.95, 1.05, 1.1, 1.15]) {
    const b = benchTank(0.5);
    const q = factor * cl * areaM2(bore);
    const pump = newPart("liftPump", "p", { xM: 1.1, yM: 0.5, zM: 0 }) as any;
    pump.boreM = bore;
    pump.curve = [
      { flowM3S: 0, risePa: 3e5 },
      { flowM3S: q * 0.999, risePa: 2.9e5 },
      { flowM3S: q * 1.001, risePa: 0 },
    ];
    b.plan.parts.push(pump);
    b.plan.runs.push(newRun("r0", { part: "t", port: "supply" }, { part: "p", port: "in" }, 0.1, bore));
    lineTo(b, { part: "p", port: "out" }, "top", { lengthM: 0.6, boreM: bore, riseM: 0.3, fromZM: 0 });
    const L = 1;
    lineTo(b, { part: "top", port: "b" }, "end", {
      lengthM: L,
      boreM: bore,
      riseM: -L * Math.sin((slope * Math.PI) / 180),
      fromZM: 0.3,
    });
    b.lineUp.pumps.p = "on";
    const m = flowOf(b);
    for (const [id, list] of m.mesh.cellsOf) for (const c of list) m.fill(c, 1);
    const down = m.mesh.cellsOf.get("rend")!;
    m.fill(down[1]!, 0);
    m.fill(down[2]!, 0);
    m.set(opened(m, "end.a", 1e-3));
    let threw = "";
    try {
      m.run((12 * L) / (cl * factor) + 10);
    } catch (e) {
      threw = String(e);
    }
    const left = down
      .slice(0, -1)
      .concat(m.mesh.cellsOf.get("rtop")!)
      .reduce((s, c) => s + m.airM3(c), 0);
    out.push(
      `${factor}: ${(1e6 * left).toFixed(2)} of ${(2e6 * m.mesh.cells.volumeM3[down[1]!]!).toFixed(1)} mL ${threw}`,
    );
  }
  console.log("clearing", bore, slope, cl.toFixed(3), out.join(" | "));
}
// dry lift
for (const z of [2, 4, 4.8, 5.2, 5.5, 6]) {
  const b = benchTank(0.0001 + 0.2);
  const pump = newPart("liftPump", "p", { xM: 1.5, yM: 0.5, zM: z + 0.2 }) as any;
  pump.boreM = 0.0095;
  b.plan.parts.push(pump);
  b.lineUp.pumps.p = "on";
  b.plan.runs.push(newRun("r0", { part: "t", port: "supply" }, { part: "p", port: "in" }, z + 0.6, 0.0095));
  lineTo(b, { part: "p", port: "out" }, "g", { lengthM: 0.3, boreM: 0.0095, riseM: 0, fromZM: z + 0.2 });
  const m = flowOf(b);
  m.set(opened(m, "g.a", 12e-6));
  let threw = "";
  try {
    m.run(120);
  } catch (e) {
    threw = String(e);
  }
  const run = m.mesh.cellsOf.get("r0")!;
  console.log(
    "dry lift",
    z,
    "pan",
    (1e6 * m.beyond.fuelM3.at(-1)!).toFixed(1),
    run.map((c) => (m.fuelM3[c]! / m.mesh.cells.volumeM3[c]!).toFixed(2)).join(" "),
    threw,
    m.steps,
    m.retries,
  );
}
