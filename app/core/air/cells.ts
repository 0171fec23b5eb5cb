/**
 * A plan cut into cells that hold fuel and air, and the faces between them. Runs are cut at every crest and dip, so that
 * a cell has one slope; a tee is a cell of two bores' length, never of no volume; a filter, a bowl or a pot is one cell
 * with a floor, a height and a level. Worked out once for a line-up and a posture.
 */
import { isFiltering } from "../kinds/families";
import { HEAD_SHARE, headShareOf, isSealed } from "../kinds/filtering";
import { kindOf } from "../kinds/index";
import type { Id } from "../kinds/record";
import { linkKindOf } from "../network/links";
import type { NetworkLink } from "../network/links/link";
import type { Network } from "../network/network";
import type { Posture } from "../network/posture";
import { distanceM } from "../plan/ports";
import { areaM2 } from "../units/bore";

/** Cells of a run: so long, and no more of them. */
const CELL_M = 0.12;
const MOST_CELLS = 16;
/** Fewer would smear a front over half the hose. */
const LEAST_CELLS = 2;
/** A tube in a tank shorter than this is a mouth alone. */
const LEAST_TUBE_M = 0.05;
/** How tall an engine's gallery is; at what it overflows where its maker does not say. Common practice, no source. */
const GALLERY_TALL_M = 0.03;
export const GALLERY_OPENS_PA = 10e3;
/** A tee or a joint holds what this many bores of line hold. */
const NODE_BORES = 2;

export interface Cells {
  readonly count: number;
  readonly volumeM3: Float64Array;
  /** Height of its middle; of a vessel its floor, with `tallM` over it. */
  readonly zM: Float64Array;
  readonly tallM: Float64Array;
  readonly isVessel: Uint8Array;
  /** Run, part, tank port or node that it belongs to. */
  readonly owner: readonly string[];
  /** Distance of its two ends from the start of its run, and their heights; nought elsewhere. */
  readonly fromM: Float64Array;
  readonly toM: Float64Array;
  readonly fromZM: Float64Array;
  readonly toZM: Float64Array;
}

/** Faces join a cell to a cell, a tank or the open air; those beyond the cells are tanks, in their order, then the air. */
export interface Faces {
  readonly count: number;
  readonly from: Int32Array;
  readonly to: Int32Array;
  readonly zM: Float64Array;
  readonly boreM: Float64Array;
  /** Sine of the rise from `from` to `to`; bubbles climb it. */
  readonly sine: Float64Array;
  /** Network link whose law it has, and its share of what flow costs; -1 for what is opened by hand. */
  readonly link: Int32Array;
  readonly share: Float64Array;
  /** The constant of a link's law stands at its first face. */
  readonly isFirst: Uint8Array;
}

export interface AirMesh {
  readonly network: Network;
  readonly posture: Posture;
  readonly cells: Cells;
  readonly faces: Faces;
  /** Cell of a network node. */
  readonly cellOfNode: Int32Array;
  /** Cells of a run from its start, of a tank's tube, or of a vessel. */
  readonly cellsOf: ReadonlyMap<string, readonly number[]>;
  /** Faces of a link, in its direction. */
  readonly facesOf: readonly (readonly number[])[];
  /** Opening of a node to the open air, by node; of a vessel's lid and jug, by part. */
  readonly openingOfNode: Int32Array;
  readonly lidOf: ReadonlyMap<Id, number>;
  readonly jugOf: ReadonlyMap<Id, number>;
  readonly vesselOf: ReadonlyMap<Id, number>;
  /** Rooms of consumers behind their feed joints, where their makers tell them; they overflow to the return, one way. */
  readonly galleries: readonly Gallery[];
}

export interface Gallery {
  partId: Id;
  into: number;
  over: number;
  opensPa: number;
}

class Growing {
  readonly volume: number[] = [];
  readonly z: number[] = [];
  readonly tall: number[] = [];
  readonly vessel: number[] = [];
  readonly owner: string[] = [];
  readonly fromM: number[] = [];
  readonly toM: number[] = [];
  readonly fromZM: number[] = [];
  readonly toZM: number[] = [];
  readonly face = {
    from: [] as number[],
    to: [] as number[],
    z: [] as number[],
    bore: [] as number[],
    sine: [] as number[],
    link: [] as number[],
    share: [] as number[],
    first: [] as number[],
  };

  cell(owner: string, volume: number, z: number, more: { tall?: number } & Partial<Piece> = {}): number {
    this.owner.push(owner);
    this.volume.push(volume);
    this.z.push(z);
    this.tall.push(more.tall ?? 0);
    this.vessel.push(more.tall ? 1 : 0);
    this.fromM.push(more.fromM ?? 0);
    this.toM.push(more.toM ?? 0);
    this.fromZM.push(more.startZM ?? z);
    this.toZM.push(more.endZM ?? z);
    return this.volume.length - 1;
  }

  join(
    from: number,
    to: number,
    at: { z: number; bore: number; sine?: number; link?: number; share?: number; isFirst?: boolean },
  ): number {
    const { face } = this;
    face.from.push(from);
    face.to.push(to);
    face.z.push(at.z);
    face.bore.push(at.bore);
    face.sine.push(at.sine ?? 0);
    face.link.push(at.link ?? -1);
    face.share.push(at.share ?? 0);
    face.first.push(at.isFirst ? 1 : 0);
    return face.from.length - 1;
  }
}

/** A tank as the end of a face while cells are still being made: put right when all are there. */
const tankEnd = (nth: number): number => -1 - nth;

/** A stretch of a run and the heights of its two ends. */
interface Piece {
  fromM: number;
  toM: number;
  startZM: number;
  endZM: number;
}

/** A run's profile in pieces of one slope, none longer than a cell. */
function piecesOf(profile: readonly { atM: number; zM: number }[]): Piece[] {
  const lengthM = (profile.at(-1)?.atM ?? 0) - (profile[0]?.atM ?? 0);
  const cellM = Math.max(CELL_M, lengthM / MOST_CELLS);
  const pieces: Piece[] = [];
  const legs = profile.slice(1).map((end, i) => [profile[i] as { atM: number; zM: number }, end] as const);
  const long = legs.filter(([start, end]) => end.atM > start.atM);
  for (const [start, end] of long) {
    const legM = end.atM - start.atM;
    const least = long.length === 1 ? LEAST_CELLS : 1;
    const count = Math.max(least, Math.round(legM / cellM));
    for (let k = 0; k < count; k++) {
      const at = (share: number) => start.zM + share * (end.zM - start.zM);
      pieces.push({
        fromM: start.atM + (k / count) * legM,
        toM: start.atM + ((k + 1) / count) * legM,
        startZM: at(k / count),
        endZM: at((k + 1) / count),
      });
    }
  }
  return pieces;
}

/** What a link holds in a vessel of its own, m3, and how tall that is; null for what holds no more than its line. */
function vesselOfLink(
  link: NetworkLink,
): { id: Id; volumeM3: number; tallM: number; headShare: number } | null {
  if (link.kind !== "filter" && link.kind !== "rated") return null;
  const { part } = link;
  const volumeM3 = kindOf(part).volumeM3(part);
  if (kindOf(part).filling !== "bowl" || volumeM3 === null || volumeM3 <= 0) return null;
  const headShare = isFiltering(part) ? headShareOf(part) : HEAD_SHARE;
  return { id: part.id, volumeM3, tallM: part.size?.heightM ?? kindOf(part).body.heightM, headShare };
}

class Builder {
  readonly grown = new Growing();
  readonly cellOfNode: Int32Array;
  readonly cellsOf = new Map<string, number[]>();
  readonly facesOf: number[][];
  readonly vesselOf = new Map<Id, number>();
  private readonly degree: Int32Array;
  /** Of the links at a node the widest bore, m. */
  private readonly widest: Float64Array;
  private readonly potOfNode = new Map<number, { id: Id; volumeM3: number; tallM: number }>();

  constructor(
    readonly network: Network,
    readonly posture: Posture,
  ) {
    const { topology, links } = network;
    this.cellOfNode = new Int32Array(topology.nodes).fill(-1);
    this.facesOf = links.map(() => []);
    this.degree = new Int32Array(topology.nodes);
    this.widest = new Float64Array(topology.nodes);
    for (const link of links) {
      const { from, to } = link;
      const bore = linkKindOf(link).boreM(link);
      for (const node of [from, to]) {
        this.degree[node] = (this.degree[node] as number) + 1;
        this.widest[node] = Math.max(this.widest[node] as number, bore);
      }
    }
    for (const part of network.plan.parts) {
      if (kindOf(part).filling !== "pot") continue;
      const node = network.nodeOf.get(`${part.id}.out`);
      const volumeM3 = kindOf(part).volumeM3(part);
      if (node === undefined || volumeM3 === null) continue;
      const tallM = part.size?.heightM ?? kindOf(part).body.heightM;
      this.potOfNode.set(node, { id: part.id, volumeM3, tallM });
    }
  }

  private heightOf = (node: number): number => this.posture.nodeM[node] as number;

  private boreAt(node: number): number {
    return this.widest[node] || 0.008;
  }

  /** Nodes of their own are cells where lines part or where no hose ends; else the end of a hose stands for them. */
  private nodes(): void {
    const { topology, links } = this.network;
    const hosed = new Uint8Array(topology.nodes);
    for (const link of links)
      if (link.kind === "run" && link.geometry.lengthM > 0) [hosed[link.from], hosed[link.to]] = [1, 1];
    for (let node = 0; node < topology.unknowns; node++) {
      const pot = this.potOfNode.get(node);
      if (pot) {
        const cell = this.grown.cell(pot.id, pot.volumeM3, this.heightOf(node) - pot.tallM / 2, {
          tall: pot.tallM,
        });
        this.cellOfNode[node] = cell;
        this.vesselOf.set(pot.id, cell);
        continue;
      }
      if ((this.degree[node] as number) <= 2 && hosed[node]) continue;
      const bore = this.boreAt(node);
      const volume = areaM2(bore) * NODE_BORES * bore;
      this.cellOfNode[node] = this.grown.cell(
        this.network.nodes[node]?.id ?? "",
        volume,
        this.heightOf(node),
      );
    }
  }

  /** A pot's ports are one place to the network: here its outlet stands at its foot and its overflow at its top. */
  private portHeight(node: number, link: NetworkLink): number {
    const pot = this.potOfNode.get(node);
    if (!pot || link.kind !== "run") return this.heightOf(node);
    const floorM = this.heightOf(node) - pot.tallM / 2;
    const bore = link.run.boreM;
    const port = [link.run.from, link.run.to].find(({ part }) => part === pot.id)?.port;
    if (port === "out") return floorM + bore / 2;
    return port === "over" ? floorM + pot.tallM - bore / 2 : floorM + 0.6 * pot.tallM;
  }

  private runs(): void {
    const { links } = this.network;
    const { grown, cellOfNode } = this;
    links.forEach((link, index) => {
      if (link.kind !== "run") return;
      const pieces = piecesOf(this.posture.profileOf(link));
      const { boreM } = link.run;
      const lengthM = pieces.at(-1)?.toM ?? 0;
      if (pieces.length === 0 || lengthM <= 0) return;
      const own = pieces.map((piece) =>
        grown.cell(
          link.id,
          areaM2(boreM) * (piece.toM - piece.fromM),
          (piece.startZM + piece.endZM) / 2,
          piece,
        ),
      );
      this.cellsOf.set(link.id, own);
      const sineOf = ({ fromM, toM, startZM, endZM }: Piece) =>
        Math.max(-1, Math.min(1, (endZM - startZM) / (toM - fromM)));
      const halfM = (i: number) => ((pieces[i] as Piece).toM - (pieces[i] as Piece).fromM) / 2;
      const last = own.length - 1;
      const faces = this.facesOf[index] as number[];
      const at = (i: number, z: number, shareM: number) => ({
        z,
        bore: boreM,
        sine: sineOf(pieces[i] as Piece),
        link: index,
        share: shareM / lengthM,
      });
      // Its ends: joined to the node's cell, or standing for it.
      const start = cellOfNode[link.from] as number;
      const end = cellOfNode[link.to] as number;
      if (start < 0) cellOfNode[link.from] = own[0] as number;
      else faces.push(grown.join(start, own[0] as number, at(0, this.portHeight(link.from, link), halfM(0))));
      for (let i = 0; i < last; i++) {
        const z = (pieces[i] as Piece).endZM;
        // The half beyond, where no face stands, costs what it costs here.
        const beyondM = (i === 0 && start < 0 ? halfM(0) : 0) + (i === last - 1 && end < 0 ? halfM(last) : 0);
        const costM = halfM(i) + halfM(i + 1) + beyondM;
        faces.push(grown.join(own[i] as number, own[i + 1] as number, at(i, z, costM)));
      }
      if (end < 0) cellOfNode[link.to] = own[last] as number;
      else
        faces.push(
          grown.join(own[last] as number, end, at(last, this.portHeight(link.to, link), halfM(last))),
        );
    });
  }

  private others(): void {
    const { links, topology } = this.network;
    const { grown } = this;
    links.forEach((link, index) => {
      if (this.cellsOf.has(link.id)) return;
      const faces = this.facesOf[index] as number[];
      const bore = linkKindOf(link).boreM(link);
      const a = this.cellOfNode[link.from] as number;
      if (link.kind === "tankPort") {
        faces.push(...this.tube(link, index, a, tankEnd(link.to - topology.unknowns), bore));
        return;
      }
      const b = this.cellOfNode[link.to] as number;
      const [za, zb] = [this.heightOf(link.from), this.heightOf(link.to)];
      const vessel = vesselOfLink(link);
      if (!vessel) {
        // Of a part whose ports stand at two heights the face is at the middle; both halves are wet or dry with their cells.
        faces.push(grown.join(a, b, { z: (za + zb) / 2, bore, link: index, share: 1, isFirst: true }));
        return;
      }
      // Its outlet stands under the head's room, and no port over its lid or under its floor.
      const floorM = Math.max(za, zb) + vessel.headShare * vessel.tallM - vessel.tallM;
      const within = (z: number) =>
        Math.min(floorM + (1 - vessel.headShare) * vessel.tallM, Math.max(floorM + bore, z));
      const cell = grown.cell(vessel.id, vessel.volumeM3, floorM, { tall: vessel.tallM });
      this.vesselOf.set(vessel.id, cell);
      this.cellsOf.set(vessel.id, [cell]);
      faces.push(
        grown.join(a, cell, { z: within(za), bore, link: index, share: 0.5, isFirst: true }),
        grown.join(cell, b, { z: within(zb), bore, link: index, share: 0.5 }),
      );
    });
  }

  /** A tube from outside a tank to its mouth. */
  private tube(
    link: Extract<NetworkLink, { kind: "tankPort" }>,
    index: number,
    start: number,
    tank: number,
    bore: number,
  ): number[] {
    const lengthM = distanceM(link.port.mouth, link.port.outside);
    const mouthM = this.posture.mouthM[link.nth] as number;
    const outsideM = this.heightOf(link.from);
    if (lengthM < LEAST_TUBE_M)
      return [this.grown.join(start, tank, { z: mouthM, bore, link: index, share: 1, isFirst: true })];
    const pieces = piecesOf([
      { atM: 0, zM: outsideM },
      { atM: lengthM, zM: mouthM },
    ]);
    const own = pieces.map((piece) =>
      this.grown.cell(
        link.id,
        areaM2(bore) * (piece.toM - piece.fromM),
        (piece.startZM + piece.endZM) / 2,
        piece,
      ),
    );
    this.cellsOf.set(link.id, own);
    const sine = Math.max(-1, Math.min(1, (mouthM - outsideM) / lengthM));
    const chain = [start, ...own, tank];
    const share = 1 / (chain.length - 1);
    return chain.slice(1).map((to, i) =>
      this.grown.join(chain[i] as number, to, {
        z: i === 0 ? outsideM : i === own.length ? mouthM : (pieces[i - 1] as Piece).endZM,
        bore,
        sine,
        link: index,
        share,
        // What stands in its way at the mouth, standing clear of fuel, is the mouth's.
        isFirst: i === own.length,
      }),
    );
  }

  /** A room behind the feed joint, filled at its foot, from whose top what it holds goes over to the return. */
  private galleries(): Gallery[] {
    return this.network.engines.flatMap(({ part, feed, back }): Gallery[] => {
      const { id, galleryM3, galleryOpensPa } = part;
      const [from, to] = [
        this.cellOfNode[feed] as number,
        back === null ? -1 : (this.cellOfNode[back] as number),
      ];
      if (galleryM3 === undefined || from < 0 || to < 0) return [];
      const bore = this.boreAt(feed);
      const floorM = this.heightOf(feed) - bore / 2;
      const tall = Math.max(GALLERY_TALL_M, 2 * bore);
      const cell = this.grown.cell(id, galleryM3, floorM, { tall });
      this.vesselOf.set(id, cell);
      const into = this.grown.join(from, cell, { z: floorM + bore / 2, bore });
      const over = this.grown.join(cell, to, {
        z: floorM + tall - bore / 2,
        bore: this.boreAt(back as number),
      });
      return [{ partId: id, into, over, opensPa: galleryOpensPa ?? GALLERY_OPENS_PA }];
    });
  }

  build(): AirMesh {
    this.nodes();
    this.runs();
    this.others();
    const galleries = this.galleries();
    const { grown, network } = this;
    const count = grown.volume.length;
    const tanks = network.topology.nodes - network.topology.unknowns;
    const air = count + tanks;
    const openingOfNode = new Int32Array(network.topology.nodes).fill(-1);
    for (let node = 0; node < network.topology.unknowns; node++) {
      const cell = this.cellOfNode[node] as number;
      if (cell >= 0)
        openingOfNode[node] = grown.join(cell, air, { z: this.heightOf(node), bore: this.boreAt(node) });
    }
    const lidOf = new Map<Id, number>();
    const jugOf = new Map<Id, number>();
    for (const part of network.plan.parts) {
      const cell = this.vesselOf.get(part.id);
      if (cell === undefined || !(isFiltering(part) || part.kind === "strainer")) continue;
      if (isFiltering(part) && isSealed(part)) continue;
      const z = (grown.z[cell] as number) + (grown.tall[cell] as number);
      lidOf.set(part.id, grown.join(cell, air, { z, bore: part.boreM }));
      jugOf.set(part.id, grown.join(air, cell, { z, bore: part.boreM }));
    }
    const { face } = grown;
    const place = (end: number) => (end < 0 ? count + tankEnd(end) : end);
    return {
      network,
      posture: this.posture,
      cells: {
        count,
        volumeM3: Float64Array.from(grown.volume),
        zM: Float64Array.from(grown.z),
        tallM: Float64Array.from(grown.tall),
        isVessel: Uint8Array.from(grown.vessel),
        owner: grown.owner,
        fromM: Float64Array.from(grown.fromM),
        toM: Float64Array.from(grown.toM),
        fromZM: Float64Array.from(grown.fromZM),
        toZM: Float64Array.from(grown.toZM),
      },
      faces: {
        count: face.from.length,
        from: Int32Array.from(face.from, place),
        to: Int32Array.from(face.to, place),
        zM: Float64Array.from(face.z),
        boreM: Float64Array.from(face.bore),
        sine: Float64Array.from(face.sine),
        link: Int32Array.from(face.link),
        share: Float64Array.from(face.share),
        isFirst: Uint8Array.from(face.first),
      },
      cellOfNode: this.cellOfNode,
      cellsOf: this.cellsOf,
      facesOf: this.facesOf,
      openingOfNode,
      lidOf,
      jugOf,
      vesselOf: this.vesselOf,
      galleries,
    };
  }
}

export const airMesh = (network: Network, posture: Posture): AirMesh => new Builder(network, posture).build();
