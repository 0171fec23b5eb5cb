/** What the lines hold when the work begins, put into the model. */
import type { FuelWay } from "../hydraulics/route";
import type { Id } from "../kinds/record";
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

/** Fuel in all vessels up to their outlets and in every hose: what is full stays full, what was opened is not. */
export function fillContent(session: AirSession, content: Content, way: FuelWay): void {
  const { model } = session;
  const { mesh, network } = model;
  const all = new Set(answeredCells(model, way));
  const fillAll = () => {
    for (const cell of all) model.fill(cell, 1);
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
      // What lies over the joint in the hoses that meet there has run out.
      for (const link of network.links) {
        if (link.kind !== "run" || (link.from !== node && link.to !== node)) continue;
        for (const cell of mesh.cellsOf.get(link.id) ?? [])
          if (all.has(cell) && (mesh.cells.zM[cell] as number) >= z - 1e-3) model.fill(cell, 0);
      }
      break;
    }
    case "ranDry":
      for (const cell of all) if (mesh.cells.isVessel[cell]) model.fill(cell, 0.9);
      break;
  }
  // The tubes that stand in the tank hold fuel to its level.
  for (const link of network.links) {
    if (link.kind !== "tankPort") continue;
    for (const cell of mesh.cellsOf.get(link.id) ?? [])
      if ((mesh.cells.zM[cell] as number) < session.surfaceM(link.tank.id)) model.fill(cell, 1);
  }
}
