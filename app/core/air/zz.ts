import { readFileSync } from "node:fs";
import { buildNetwork } from "../network/network";
import { currentPlan } from "../plan/ports";
import { type AirFlow, airFlow, IDLE_HANDS, openingM2 } from "./flow";

const { job } = JSON.parse(readFileSync(`demo/${process.argv[2] ?? "marram"}.keel.json`, "utf8"));
const plan = currentPlan(job);
const network = buildNetwork(job);
const lineUp = plan.lineUps[Number(process.argv[3] ?? 0)]!;
const m = airFlow(network, lineUp, plan.conditions) as AirFlow;
const { cells, faces } = m.mesh;
console.log(lineUp.name, cells.count, faces.count, (m as any).active.length, (m as any).open.length);
const eng = process.argv[4] ?? "engine";
const node = network.nodeOf.get(`${eng}.feed`)!;
const open = new Map([[m.mesh.openingOfNode[node]!, openingM2.joint]]);
m.set((m as any).settings, { ...IDLE_HANDS, open });
const sumF = () => m.fuelM3.reduce((a, b) => a + b, 0) + m.beyond.fuelM3.reduce((a, b) => a + b, 0);
const sumA = () => m.airJ.reduce((a, b) => a + b, 0) + m.beyond.airJ.reduce((a, b) => a + b, 0);
const [f0, a0] = [sumF(), sumA()];
(globalThis as any).DBG = Number(process.env.DBG ?? 1e9);
const t0 = performance.now();
for (let i = 0; i < 20; i++) {
  try {
    m.run(3);
  } catch (e) {
    console.log(String(e));
    break;
  }
  let vol = 0,
    fu = 0;
  for (const c of (m as any).active) {
    vol += cells.volumeM3[c]!;
    fu += m.fuelM3[c]!;
  }
  console.log(
    `${m.atS.toFixed(1)} s air ${(1e6 * (vol - fu)).toFixed(1)} of ${(vol * 1e6).toFixed(0)} mL; pan ${(1e6 * m.beyond.fuelM3.at(-1)!).toFixed(1)} steps ${m.steps} retries ${m.retries} iters ${(m as any).iters} q ${(m.flow[m.mesh.openingOfNode[node]!]! * 3.6e6).toFixed(1)} L/h share ${m.share[m.mesh.openingOfNode[node]!]!.toFixed(3)}`,
  );
}
console.log(`${performance.now() - t0} ms; dF ${sumF() - f0} dA ${sumA() - a0}`);
if (process.env.MAP)
  for (let c = 0; c < cells.count; c++) {
    const sh = m.fuelM3[c]! / cells.volumeM3[c]!;
    if ((m as any).local[c] >= 0 && sh < 0.98)
      console.log(
        c,
        cells.owner[c],
        sh.toFixed(3),
        cells.zM[c]!.toFixed(3),
        (m.pressurePa[c]! - m.atmospherePa).toFixed(0),
        (1e6 * m.airM3(c)).toFixed(2),
      );
  }
