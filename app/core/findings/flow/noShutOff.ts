/**
 * Practice 5: no shut-off at a tank outlet, and fuel that runs out if the line is cut; the litres are computed.
 * Diesel: common practice, ABYC H-33 or ISO 10088 by the job's school (from memory).
 */

import { isValve } from "../../kinds/families";
import type { Id } from "../../kinds/record";
import { mouthHeightM, type Network } from "../../network/network";
import type { Tank, TankPort } from "../../plan/types";
import { volumeAtLevelM3 } from "../../tanks/tank";
import { rule } from "../rule";

/** A valve on a hose this short counts as at the tank. Common practice, no source. */
const AT_THE_TANK_M = 0.3;

interface Line {
  /** Metres of hose to the nearest shut-off, Infinity without one. */
  shutOffAtM: number;
  lowestM: number;
}

/** Follows the hose from a tank port to the shut-offs it meets, over tees and filters but not through valves. */
function lineFrom(network: Network, port: string): Line {
  const { links, nodeOf, plan } = network;
  const valves = new Set(plan.parts.filter(isValve).map(({ id }) => id));
  const start = nodeOf.get(port) as number;
  const best = new Map<number, number>([[start, 0]]);
  const queue = [start];
  const line: Line = { shutOffAtM: Infinity, lowestM: network.ports.get(port)?.position.zM ?? 0 };
  for (let node = queue.shift(); node !== undefined; node = queue.shift()) {
    const at = best.get(node) ?? 0;
    const meetsValve = network.nodes[node]?.ports.some((key) => valves.has(key.split(".")[0] as string));
    if (meetsValve) line.shutOffAtM = Math.min(line.shutOffAtM, at);
    for (const link of links) {
      if ((link.from !== node && link.to !== node) || link.kind === "valve" || link.kind === "tankPort")
        continue;
      const lengthM = link.kind === "run" ? link.geometry.lengthM : 0;
      if (link.kind === "run")
        line.lowestM = Math.min(line.lowestM, ...link.geometry.profile.map(({ zM }) => zM));
      const next = link.from === node ? link.to : link.from;
      if ((best.get(next) ?? Infinity) <= at + lengthM) continue;
      best.set(next, at + lengthM);
      queue.push(next);
    }
  }
  return line;
}

function litresLost(tank: Tank, port: TankPort, aboardM3: number, lowestM: number): number {
  const downTo = Math.max(mouthHeightM(tank, port), lowestM) - tank.origin.zM;
  return Math.max(0, aboardM3 - volumeAtLevelM3(tank, downTo));
}

export const noShutOff = rule({
  id: "noShutOff",
  practice: [5],
  place: "layout",
  judge: ({ job, plan, network }) =>
    job.tanks.flatMap((tank) =>
      tank.ports.flatMap((port) => {
        const id: Id = `${tank.id}.${port.id}`;
        const isUsed = plan.runs.some(({ from, to }) =>
          [from, to].some((ref) => `${ref.part}.${ref.port}` === id),
        );
        if (port.role !== "outlet" || !isUsed) return [];
        const line = lineFrom(network, id);
        const lostM3 = litresLost(tank, port, plan.conditions.aboardM3[tank.id] ?? 0, line.lowestM);
        if (line.shutOffAtM <= AT_THE_TANK_M || lostM3 <= 0) return [];
        return [
          {
            grade: "mend" as const,
            ids: [tank.id],
            lineUpIds: [],
            basis: "common" as const,
            // Both schools are of boats.
            ...(job.kind === "boat" ? { school: job.schools.shutOff } : {}),
            values: {
              tank: tank.name,
              port: port.name,
              lostM3,
              shutOffAtM: Number.isFinite(line.shutOffAtM) ? line.shutOffAtM : null,
            },
            figure: lostM3,
          },
        ];
      }),
    ),
});
