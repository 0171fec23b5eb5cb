/** Practice 3: no way from a tank, a pump on a dead head without relief, an arrow against the flow, a draw that cannot be fed. Common practice. */

import { figuresAt } from "../hydraulics/derive";
import type { SolvedLineUp } from "../hydraulics/solve";
import type { NetworkLink } from "../network/links/link";
import { Way } from "../solver/newton";
import type { Finding, FindingContext, Rule } from "./types";

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

function judge(lineUpId: string, solved: SolvedLineUp): Finding[] {
  const { network, settings } = solved;
  const base = { grade: "stop" as const, lineUpIds: [lineUpId], basis: "common" as const, figure: null };
  const lineUp = settings.lineUp.name;
  const found: Finding[] = [];
  for (const { part, feed } of network.engines) {
    const outcome = solved.consumers.get(part.id);
    if (outcome?.outcome === "starved") {
      const { mostM3S, feedM3S, at, cause } = outcome;
      found.push({
        ...base,
        rule: "starved",
        ids: [part.id, at.split(".")[0] as string],
        values: { lineUp, consumer: part.name, mostM3S, feedM3S, cause },
        figure: feedM3S - mostM3S,
      });
    }
    if (outcome?.outcome !== "noPath" || outcome.side !== "feed") continue;
    const against = arrowsAgainst(solved, feed);
    if (against.length === 0)
      found.push({ ...base, rule: "noOpenPath", ids: [part.id], values: { lineUp, consumer: part.name } });
    for (const link of against)
      found.push({
        ...base,
        rule: "againstArrow",
        ids: [link.id],
        values: { lineUp, part: "part" in link ? link.part.name : link.id },
      });
  }
  network.links.forEach((link, i) => {
    const q = solved.flow[i] as number;
    if (link.kind === "filter" && q < 0) {
      found.push({
        ...base,
        rule: "againstArrow",
        ids: [link.part.id],
        values: { lineUp, part: link.part.name },
      });
    }
    // Priming pushes against an engine that stands: fuel leaves by its overflow or an opened bleed.
    if (
      link.kind !== "pump" ||
      settings.lineUp.purpose === "prime" ||
      settings.lineUp.pumps[link.part.id] !== "on" ||
      q !== 0 ||
      link.part.reliefPa !== undefined
    )
      return;
    const gauge = solved.gaugePa[link.to] as number;
    const deadHeadPa = Number.isNaN(gauge)
      ? (link.part.curve[0]?.risePa ?? 0)
      : figuresAt(solved, gauge).gaugePa;
    found.push({
      ...base,
      rule: "deadHead",
      ids: [link.part.id],
      values: { lineUp, pump: link.part.name, deadHeadPa },
      figure: deadHeadPa,
    });
  });
  return found;
}

export const noOpenPath: Rule = ({ verdicts }: FindingContext) =>
  verdicts.flatMap(({ lineUp, result }) => {
    if (result.outcome === "solved") return judge(lineUp.id, result);
    if (result.outcome !== "boils") return [];
    const id = result.at.split(".")[0] as string;
    return [
      {
        rule: "starved",
        grade: "stop",
        ids: [id],
        lineUpIds: [lineUp.id],
        basis: "common",
        figure: null,
        values: {
          lineUp: lineUp.name,
          consumer: lineUp.name,
          mostM3S: null,
          feedM3S: null,
          cause: result.cause,
        },
      },
    ];
  });
