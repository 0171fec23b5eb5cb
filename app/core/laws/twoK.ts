/**
 * Losses of fittings, two-K method: K = K1/Re + Kinf (1 + 1/ID), ID the bore in inches.
 * Entrance K = 160/Re + 0.5 and exit K = 1 carry no bore term.
 * Below half-inch bores it is extrapolated. Screwed fittings, standard radius.
 * Source: W. B. Hooper, Chemical Engineering, 24 August 1981, p. 96 (constants from memory).
 */
import { INCH_M } from "../units/factors";

export const fittingKinds = [
  "elbow90",
  "elbow45",
  "teeRun",
  "teeBranch",
  "ballValve",
  "checkSwing",
  "entrance",
  "exit",
] as const;
export type FittingKind = (typeof fittingKinds)[number];

interface TwoK {
  readonly k1: number;
  readonly kInf: number;
  readonly scalesWithBore: boolean;
}

export const twoK: Readonly<Record<FittingKind, TwoK>> = {
  elbow90: { k1: 800, kInf: 0.4, scalesWithBore: true },
  elbow45: { k1: 500, kInf: 0.2, scalesWithBore: true },
  teeRun: { k1: 200, kInf: 0.1, scalesWithBore: true },
  teeBranch: { k1: 500, kInf: 0.7, scalesWithBore: true },
  ballValve: { k1: 300, kInf: 0.1, scalesWithBore: true },
  checkSwing: { k1: 1500, kInf: 1.5, scalesWithBore: true },
  entrance: { k1: 160, kInf: 0.5, scalesWithBore: false },
  exit: { k1: 0, kInf: 1, scalesWithBore: false },
};

/** The part of K that goes with 1/Re, and the part that does not, at a bore. */
export function twoKOf(kind: FittingKind, boreM: number): { overRe: number; constant: number } {
  const { k1, kInf, scalesWithBore } = twoK[kind];
  return { overRe: k1, constant: scalesWithBore ? kInf * (1 + INCH_M / boreM) : kInf };
}

/**
 * A tee as three legs that meet in its middle. Each end of the run pays half the loss of a tee run through, the branch
 * what is left of the loss of a tee used as an elbow; so flow along the run pays the one, flow from either end to the
 * branch the other, as the source has them. Where flows combine or divide, each leg pays by what flows in it: the source
 * gives no figure for that, and between one flow alone and equal halves the published charts of combining and dividing
 * tees scatter by more than the model differs from them. Screwed tees of equal legs.
 */
export function teeLeg(way: "run" | "branch", boreM: number): { overRe: number; constant: number } {
  const [run, branch] = [twoKOf("teeRun", boreM), twoKOf("teeBranch", boreM)];
  const half = { overRe: run.overRe / 2, constant: run.constant / 2 };
  return way === "run"
    ? half
    : { overRe: branch.overRe - half.overRe, constant: branch.constant - half.constant };
}
