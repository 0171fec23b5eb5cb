/** Heights along the true vertical, as the vehicle stands: the vehicle's own z when it is level. */
import type { Id, Position } from "../kinds/record";
import type { Conditions, Tank } from "../plan/types";
import { type Attitude, heightAlong, LEVEL, tankAttitude, type Up, upOf } from "../tanks/attitude";
import { levelOfVolumeM, TiltedTank } from "../tanks/tank";
import type { LinkOf } from "./links/link";
import type { Network } from "./network";

export interface Posture {
  readonly up: Up;
  /** Height of each node, m over the job's datum. */
  readonly nodeM: Float64Array;
  /** Height of each tank port's mouth, by its place among all tank ports. */
  readonly mouthM: Float64Array;
  heightM(at: Position): number;
  /** Height of the fuel's surface of a volume in a tank. */
  surfaceM(tank: Tank, aboardM3: number): number;
  /** Heights along a run from its start. */
  profileOf(link: LinkOf<"run">): { atM: number; zM: number }[];
}

export function isLevel(trim: Conditions["trim"]): boolean {
  return !trim || (trim.pitchDeg === 0 && trim.rollDeg === 0);
}

function levelPosture(network: Network): Posture {
  return {
    up: upOf(LEVEL),
    nodeM: network.nodeHeightM,
    mouthM: new Float64Array(network.sorted.tankPorts.map(({ link }) => link.mouth.zM)),
    heightM: ({ zM }) => zM,
    surfaceM: (tank, aboardM3) => tank.origin.zM + levelOfVolumeM(tank, aboardM3),
    profileOf: (link) => link.geometry.profile,
  };
}

function tiltedPosture(network: Network, trim: Attitude): Posture {
  const up = upOf(trim);
  const heightM = (at: Position) => heightAlong(up, at);
  const tanks = new Map<Id, TiltedTank>();
  const tilted = (tank: Tank) => {
    const known = tanks.get(tank.id) ?? new TiltedTank(tank, tankAttitude(tank, trim));
    tanks.set(tank.id, known);
    return known;
  };
  return {
    up,
    nodeM: new Float64Array(network.nodes.map(({ at }) => heightM(at))),
    mouthM: new Float64Array(network.sorted.tankPorts.map(({ link }) => heightM(link.mouth))),
    heightM,
    surfaceM: (tank, aboardM3) => heightM(tank.origin) + tilted(tank).offsetOfVolume(aboardM3),
    profileOf(link) {
      const { profile, lengthM } = link.geometry;
      const [a, b] = [network.nodes[link.from]?.at, network.nodes[link.to]?.at];
      const traced = link.run.route.kind === "traced" ? link.run.route.points : null;
      return profile.map(({ atM, zM }, i) => {
        // Of a measured run only heights are known: between its ends it is taken to lie straight in plan.
        const share = lengthM > 0 ? atM / lengthM : 0;
        const between = {
          xM: (a?.xM ?? 0) + share * ((b?.xM ?? 0) - (a?.xM ?? 0)),
          yM: (a?.yM ?? 0) + share * ((b?.yM ?? 0) - (a?.yM ?? 0)),
          zM,
        };
        return { atM, zM: heightM(traced?.[i - 1] ?? between) };
      });
    },
  };
}

/** A run over time stands at a handful of attitudes; an attitude map at some thousand, each once. */
const MOST_KEPT = 64;
const kept = new WeakMap<Network, Map<string, Posture>>();

export function postureOf(network: Network, trim: Conditions["trim"]): Posture {
  let known = kept.get(network);
  if (!known) {
    known = new Map<string, Posture>();
    kept.set(network, known);
  }
  const key = isLevel(trim) ? "" : `${trim?.pitchDeg}:${trim?.rollDeg}`;
  const found = known.get(key);
  if (found) return found;
  if (known.size >= MOST_KEPT) known.clear();
  const posture = key === "" || !trim ? levelPosture(network) : tiltedPosture(network, trim);
  known.set(key, posture);
  return posture;
}
