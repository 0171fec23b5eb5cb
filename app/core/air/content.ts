/** What the lines hold when the work begins, put into the model. */
import type { FuelWay } from "../hydraulics/route";
import { isFiltering } from "../kinds/families";
import { HEAD_SHARE, headShareOf } from "../kinds/filtering";
import type { Id } from "../kinds/record";
import { runsOut } from "../laws/runOut";
import { portKey } from "../plan/ports";
import type { Plan } from "../plan/types";
import { answeredCells } from "./joints";
import type { AirSession } from "./session";

/** What the lines hold when the work begins. */
export type Content =
  | { kind: "dry" }
  /** A filter emptied for its element; all else full. */
  | { kind: "filterChanged"; partId: Id }
  /** A joint that was apart: what could run out of the hoses at it has. */
  | { kind: "opened"; joint: string }
  /** Air was drawn from the tank to the consumer; what stands in vessels under their outlets stayed. */
  | { kind: "ranDry" };

/** What a content names and the plan has not: a filter, a part's port; null where all is there. */
export function missingIn({ parts, runs, joints }: Plan, content: Content): string | null {
  if (content.kind === "filterChanged")
    return parts.some((part) => part.id === content.partId && isFiltering(part)) ? null : content.partId;
  if (content.kind !== "opened") return null;
  const used = [...runs, ...joints].flatMap(({ from, to }) => [portKey(from), portKey(to)]);
  return used.includes(content.joint) ? null : content.joint;
}

/** Fuel in all vessels up to their outlets and in every hose: what is full stays full, what was opened is not. */
export function fillContent(session: AirSession, content: Content, way: FuelWay): void {
  const { model } = session;
  const { mesh, network } = model;
  const all = new Set(answeredCells(model, way));
  const fillAll = () => {
    for (const cell of all) model.fill(cell, 1);
  };
  const headShare = (cell: number) => {
    const part = network.plan.parts.find(({ id }) => id === mesh.cells.owner[cell]);
    return part && isFiltering(part) ? headShareOf(part) : HEAD_SHARE;
  };
  switch (content.kind) {
    case "dry":
      break;
    case "filterChanged": {
      fillAll();
      const vessel = mesh.vesselOf.get(content.partId);
      if (vessel !== undefined) model.fill(vessel, 0);
      break;
    }
    case "opened": {
      fillAll();
      const node = network.nodeOf.get(content.joint);
      if (node === undefined) break;
      const z = mesh.posture.nodeM[node] as number;
      // From the joint into each hose that meets there: what a crest holds back stays.
      for (const link of network.links) {
        if (link.kind !== "run" || (link.from !== node && link.to !== node)) continue;
        const own = mesh.cellsOf.get(link.id) ?? [];
        const inwards = (link.from === node ? own : [...own].reverse()).filter((cell) => all.has(cell));
        const out = runsOut([z, ...inwards.map((cell) => mesh.cells.zM[cell] as number)]).slice(1);
        inwards.forEach((cell, i) => {
          if (out[i]) model.fill(cell, 0);
        });
      }
      break;
    }
    case "ranDry":
      for (const cell of all) if (mesh.cells.isVessel[cell]) model.fill(cell, 1 - headShare(cell));
      break;
  }
  // The tubes that stand in the tank hold fuel to its level.
  for (const link of network.links) {
    if (link.kind !== "tankPort") continue;
    for (const cell of mesh.cellsOf.get(link.id) ?? [])
      if ((mesh.cells.zM[cell] as number) < session.surfaceM(link.tank.id)) model.fill(cell, 1);
  }
}

/** What the lines hold at the start, as a word: `dry`, `ranDry`, `changed:FILTER`, `opened:PART.PORT`. */
export function contentOf(word: string): Content | null {
  const [kind, at = ""] = word.split(":");
  if (kind === "dry" || kind === "ranDry") return { kind };
  if (at === "") return null;
  if (kind === "changed") return { kind: "filterChanged", partId: at };
  return kind === "opened" ? { kind: "opened", joint: at } : null;
}

/** The word of what the lines hold: the inverse of {@link contentOf}. */
export function wordOf(content: Content): string {
  if (content.kind === "filterChanged") return `changed:${content.partId}`;
  return content.kind === "opened" ? `opened:${content.joint}` : content.kind;
}
