/**
 * Practice 37: petrol. Tank openings at the top only, an inboard feed pump on the engine or within 12 in of it, no
 * electric pump running with the engine off, an anti-siphon valve. 33 CFR 183.518, 183.566, 183.568 kind (from memory).
 */
import { isPetrol } from "../../fuel/grades";
import { isPump } from "../../kinds/families";
import { distanceM } from "../../plan/ports";
import { heightsOf } from "../../tanks/tank";
import { INCH_M } from "../../units/factors";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const PUMP_NEAR_M = 12 * INCH_M;
/** An opening this far under the top is not at the top. */
const TOP_M = 0.02;

type PetrolCode = "openingNotAtTop" | "pumpFarFromEngine" | "pumpWithoutEngine" | "noAntiSiphon";

export const petrol = rule({
  id: "petrol",
  practice: [37],
  place: "layout",
  judge: ({ job, plan, verdicts }) => {
    if (!isPetrol(job.fuel)) return [];
    const found = (part: { id: string; name: string }, code: PetrolCode, lineUpIds: string[] = []) =>
      onPart({
        grade: "mend",
        part,
        also: [code],
        basis: "standard",
        values: { code },
        lineUpIds,
        figure: null,
      });
    const engines = job.consumers.filter(({ kind }) => kind === "engine");
    const low = job.tanks.filter((tank) =>
      tank.ports.some(({ outside }) => outside.zM < heightsOf(tank).highM - TOP_M),
    );
    const pumps = plan.parts.filter(isPump);
    const far = pumps.filter(
      ({ kind, position }) =>
        kind === "liftPump" &&
        engines.length > 0 &&
        engines.every((engine) => distanceM(engine.position, position) > PUMP_NEAR_M),
    );
    const running = pumps.flatMap((pump) => {
      const lineUpIds = plan.lineUps
        .filter(
          ({ pumps: states, consumers, purpose }) =>
            states[pump.id] === "on" && purpose === "run" && !Object.values(consumers).includes("running"),
        )
        .map(({ id }) => id);
      return lineUpIds.length > 0 ? [found(pump, "pumpWithoutEngine", lineUpIds)] : [];
    });
    const valves = new Set(plan.parts.filter(({ kind }) => kind === "antiSiphon").map(({ id }) => id));
    // Every line that feeds an engine needs one of its own, from whatever tank.
    const unguarded = engines.flatMap((engine) => {
      const ways = verdicts.filter(({ way }) => way?.consumer?.id === engine.id);
      const bare = ways.filter(
        ({ way }) => !way?.stations.some(({ id, side }) => side === "feed" && valves.has(id)),
      );
      const isBare = ways.length > 0 ? bare.length > 0 : plan.runs.length > 0 && valves.size === 0;
      return isBare ? [found(engine, "noAntiSiphon", [...new Set(bare.map(({ lineUp }) => lineUp.id))])] : [];
    });
    return [
      ...low.map((tank) => found(tank, "openingNotAtTop")),
      ...far.map((pump) => found(pump, "pumpFarFromEngine")),
      ...running,
      ...unguarded,
    ];
  },
});
