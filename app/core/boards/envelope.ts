/** What a part takes up on a board: its body, the rooms that work on it needs, its ports; generic by kind until measured. */

import type { ArrangedPart } from "../fit/arrange";
import type { BoardPort } from "../fit/laying";
import type { Service } from "../fit/panel";
import { kindOf, type Part } from "../kinds/index";
import type { PortFace, ServiceRoom } from "../kinds/kind";
import type { BodySize, Id } from "../kinds/record";
import { portsOf } from "../plan/ports";

/** How far out of the body's front a handle sweeps. Common practice, no source. */
const HANDLE_M = 0.04;
/** A screwdriver's way to the front. Common practice, no source. */
const DRIVER_M = 0.02;
/** A cup under a drain takes this share of the body's width. Common practice, no source. */
const CUP_SHARE = 0.8;

export const bodySizeOf = (part: Part): BodySize => part.size ?? kindOf(part).body;

/** A room in the frame of the body: x right, z up, y out. */
function roomBox({ use, clearM }: ServiceRoom, { widthM: w, heightM: h, depthM: d }: BodySize): Service {
  switch (use) {
    case "lidLift":
      return { kind: use, x: 0, z: h, w, h: clearM, y0: 0, y1: d };
    case "bowlDrop":
      return { kind: use, x: 0, z: -clearM, w, h: clearM, y0: 0, y1: d };
    case "drainCup":
      return {
        kind: use,
        x: (w * (1 - CUP_SHARE)) / 2,
        z: -clearM,
        w: w * CUP_SHARE,
        h: clearM,
        y0: 0,
        y1: d,
      };
    case "driver":
      return {
        kind: use,
        x: (w - DRIVER_M) / 2,
        z: (h - DRIVER_M) / 2,
        w: DRIVER_M,
        h: DRIVER_M,
        y0: d,
        y1: d + clearM,
      };
    case "swing": {
      // A handle turns about the middle; clearM is its length.
      const r = Math.max(clearM, w / 2, h / 2);
      return { kind: use, x: w / 2 - r, z: h / 2 - r, w: 2 * r, h: 2 * r, y0: d, y1: d + HANDLE_M };
    }
  }
}

const sides = { right: 0, top: 1, left: 2, foot: 3 } as const;

function boardPort({ side, at }: PortFace, { widthM: w, heightM: h, depthM: d }: BodySize): BoardPort {
  const dir = sides[side];
  const y = d / 2;
  switch (side) {
    case "left":
      return { x: 0, z: at * h, dir, y };
    case "right":
      return { x: w, z: at * h, dir, y };
    case "top":
      return { x: at * w, z: h, dir, y };
    case "foot":
      return { x: at * w, z: 0, dir, y };
  }
}

const common: Readonly<Record<Id, PortFace>> = {
  in: { side: "left", at: 0.5 },
  a: { side: "left", at: 0.5 },
  out: { side: "right", at: 0.5 },
  b: { side: "right", at: 0.5 },
};

/** Where each port faces: as its kind says, else in on the left and out on the right, the others in a row along the foot. */
function facesOf(part: Part): [Id, PortFace][] {
  const own = kindOf(part).body.faces ?? {};
  const ids = portsOf(part).map(({ id }) => id);
  const others = ids.filter((id) => !own[id] && !common[id]);
  return ids.map((id) => [
    id,
    own[id] ?? common[id] ?? { side: "foot", at: (others.indexOf(id) + 0.5) / others.length },
  ]);
}

/** Rooms that somebody's hand must reach whenever the part is served. */
const reached: readonly ServiceRoom["use"][] = ["lidLift", "bowlDrop", "drainCup", "swing"];

export function envelopeOnBoard(part: Part, isPinned = false): ArrangedPart {
  const size = bodySizeOf(part);
  const { room, isUpright } = kindOf(part).body;
  return {
    id: part.id,
    w: size.widthM,
    h: size.heightM,
    turns: isUpright ? [0] : [0, 1, 2, 3],
    serviced: room.some(({ use }) => reached.includes(use)),
    bodies: [{ x: 0, z: 0, w: size.widthM, h: size.heightM, y0: 0, y1: size.depthM }],
    service: room.map((one) => roomBox(one, size)),
    ports: Object.fromEntries(facesOf(part).map(([id, face]) => [id, boardPort(face, size)])),
    isPinned,
  };
}
