/** Practice 3: no way from a tank, a pump on a dead head without relief, an arrow against the flow, a draw that cannot be fed. Common practice. */

import { figuresAt } from "../../hydraulics/derive";
import type { SolvedLineUp } from "../../hydraulics/solve";
import type { Shortage } from "../../hydraulics/starving";
import type { NetworkLink } from "../../network/links/link";
import { joinedPorts } from "../../plan/ports";
import { Way } from "../../solver/newton";
import { type Found, oncePerContext, type Place, type Rule } from "../rule";
import { isJoined } from "./notJoined";

/** One-way parts that would have to be passed against their arrow on a way from a tank to `goal`. */
function arrowsAgainst(solved: SolvedLineUp, goal: number): NetworkLink[] {
  const { topology, links } = solved.network;
  const cameBy = new Map<number, { link: number; node: number } | null>([[goal, null]]);
  const queue = [goal];
  for (let node = queue.shift(); node !== undefined; node = queue.shift()) {
    if (node >= topology.unknowns) {
      const against: NetworkLink[] = [];
      for (let step = cameBy.get(node); step; step = cameBy.get(step.node)) {
        const link = links[step.link] as NetworkLink;
        // Found from the goal back to the tank: fuel goes the other way, into `step.node`.
        if (
          solved.settings.laws.way[step.link] === Way.oneWay &&
          link.kind !== "tankPort" &&
          link.to !== step.node
        )
          against.push(link);
      }
      return against;
    }
    for (let i = 0; i < links.length; i++) {
      const { from, to } = links[i] as NetworkLink;
      if (solved.settings.laws.way[i] === Way.shut || (from !== node && to !== node)) continue;
      const next = from === node ? to : from;
      if (cameBy.has(next)) continue;
      cameBy.set(next, { link: i, node });
      queue.push(next);
    }
  }
  return [];
}

/** What each of the rules here tells. */
interface Told {
  starved: {
    lineUp: string;
    consumer: string;
    mostM3S: number | null;
    feedM3S: number | null;
    cause: Shortage;
  };
  drawsAir: { lineUp: string; consumer: string; mostM3S: number; feedM3S: number };
  noOpenPath: { lineUp: string; consumer: string };
  againstArrow: { lineUp: string; part: string };
  deadHead: { lineUp: string; pump: string; deadHeadPa: number };
}
type Looked = { [K in keyof Told]: Found<Told[K]>[] };

/** What each running consumer does not get, and what stands in its way. */
function lookAtConsumers(solved: SolvedLineUp, found: Looked): void {
  const { lineUp } = solved.settings;
  const base = stop(lineUp.id);
  for (const { part, feed } of solved.network.engines) {
    const outcome = solved.consumers.get(part.id);
    if (outcome?.outcome === "starved") {
      const { mostM3S, feedM3S, at, cause } = outcome;
      found.starved.push({
        ...base,
        ids: [part.id, at.split(".")[0] as string],
        values: { lineUp: lineUp.name, consumer: part.name, mostM3S, feedM3S, cause },
        figure: feedM3S - mostM3S,
      });
    }
    if (outcome?.outcome === "air") {
      const { mostM3S, feedM3S, at } = outcome;
      found.drawsAir.push({
        ...base,
        ids: [part.id, at.split(".")[0] as string],
        values: { lineUp: lineUp.name, consumer: part.name, mostM3S, feedM3S },
        figure: feedM3S - mostM3S,
      });
    }
    if (outcome?.outcome !== "noPath" || outcome.side !== "feed") continue;
    const against = arrowsAgainst(solved, feed);
    if (against.length === 0)
      found.noOpenPath.push({
        ...base,
        ids: [part.id],
        values: { lineUp: lineUp.name, consumer: part.name },
      });
    for (const link of against)
      found.againstArrow.push({
        ...base,
        ids: [link.id],
        values: { lineUp: lineUp.name, part: "part" in link ? link.part.name : link.id },
      });
  }
}

/** Filters that fuel passes the wrong way, and pumps that push against a shut way without a relief. */
function lookAtLinks(solved: SolvedLineUp, found: Looked): void {
  const { network, settings } = solved;
  const { lineUp } = settings;
  const base = stop(lineUp.id);
  const joined = joinedPorts(network.plan);
  network.links.forEach((link, i) => {
    const q = solved.flow[i] as number;
    if (link.kind === "filter" && q < 0) {
      const { id, name } = link.part;
      found.againstArrow.push({ ...base, ids: [id], values: { lineUp: lineUp.name, part: name } });
    }
    // Priming pushes against an engine that stands: fuel leaves by its overflow or an opened bleed.
    if (link.kind !== "pump" || lineUp.purpose === "prime" || q !== 0) return;
    const { id, name, reliefPa, curve } = link.part;
    // What hangs loose is told as that.
    if (lineUp.pumps[id] !== "on" || reliefPa !== undefined || !isJoined(link.part, joined)) return;
    const gauge = solved.gaugePa[link.to] as number;
    const deadHeadPa = Number.isNaN(gauge) ? (curve[0]?.risePa ?? 0) : figuresAt(solved, gauge).gaugePa;
    found.deadHead.push({
      ...base,
      ids: [id],
      values: { lineUp: lineUp.name, pump: name, deadHeadPa },
      figure: deadHeadPa,
    });
  });
}

const stop = (lineUpId: string) => ({
  grade: "stop" as const,
  lineUpIds: [lineUpId],
  basis: "common" as const,
  figure: null,
});

const looked = oncePerContext(({ verdicts }): Looked => {
  const found: Looked = { starved: [], drawsAir: [], noOpenPath: [], againstArrow: [], deadHead: [] };
  for (const { lineUp, result } of verdicts) {
    if (result.outcome === "solved") {
      lookAtConsumers(result, found);
      lookAtLinks(result, found);
    }
    if (result.outcome === "boils")
      found.starved.push({
        ...stop(lineUp.id),
        ids: [result.at.split(".")[0] as string],
        values: {
          lineUp: lineUp.name,
          consumer: lineUp.name,
          mostM3S: null,
          feedM3S: null,
          cause: result.cause,
        },
      });
  }
  return found;
});

const ofLook = <K extends keyof Told>(id: K, place: Place): Rule<K, Told[K]> => ({
  id,
  practice: [3],
  place,
  judge: (context) => looked(context)[id],
});

export const noOpenPath = ofLook("noOpenPath", "layout");
export const deadHead = ofLook("deadHead", "layout");
export const againstArrow = ofLook("againstArrow", "layout");
export const starved = ofLook("starved", "prove");
export const drawsAir = ofLook("drawsAir", "prove");
