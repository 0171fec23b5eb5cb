/** Whether two ends seal, only screw together, or neither; and why. */
import { type Dress, type Family, type FamilyId, families, type Material } from "./families";

/** What a port, an adapter or a hose ends in. */
export interface End {
  family: FamilyId;
  size: string;
  form: string;
  material?: Material;
  /** Through its body, as it was measured: goes before the table's. */
  boreM?: number;
}

/** Figures of a size, mm. */
export interface Size {
  size: string;
  majorMm: number | null;
  pitchMm: number | null;
  minorMm: number | null;
  boreMm: number;
  nominalMm: number;
  gaugePitchMm: number | null;
  handTightMm: number | null;
}

export const familyOf = ({ family }: Pick<End, "family">): Family => families[family];

const sizes = new Map<string, Size>(
  (Object.entries(families) as [FamilyId, Family][]).flatMap(([id, family]) =>
    family.sizes.map(
      ([size, majorMm, pitchMm, minorMm, boreMm, nominalMm, gaugePitchMm = null, handTightMm = null]) => [
        `${id} ${size}`,
        { size, majorMm, pitchMm, minorMm, boreMm, nominalMm, gaugePitchMm, handTightMm },
      ],
    ),
  ),
);

/** The size of an end; undefined where its family has none of that name. */
export const sizeOf = ({ family, size }: Pick<End, "family" | "size">): Size | undefined =>
  sizes.get(`${family} ${size}`);

/** Bore through an end's body, m: measured, else typical of its size; undefined where neither is known. */
export const endBoreM = (end: End): number | undefined => {
  const typical = sizeOf(end)?.boreMm;
  return end.boreM ?? (typical === undefined ? undefined : typical / 1000);
};

export const isMale = (end: End): boolean => familyOf(end).male.includes(end.form);

/** What is wrong with an end as it was named; null where nothing is. */
export function endFault(end: End): "family" | "size" | "form" | null {
  const family = families[end.family] as Family | undefined;
  if (!family) return "family";
  if (!sizeOf(end)) return "size";
  return family.male.includes(end.form) || family.female.includes(end.form) ? null : "form";
}

export const endKey = ({ family, size, form }: End): string => `${family} ${size} ${form}`;

export type Fit = "seals" | "screwsOnly" | "no";
export type WhyNot =
  | "seatAngle"
  | "seatKind"
  | "threadForm"
  | "taperInParallel"
  | "parallelInTaper"
  | "pitch"
  | "size"
  | "sameGender"
  | "otherKind"
  | "hoseSlack"
  | "hoseTight";

export interface Joining {
  fit: Fit;
  why: WhyNot | null;
  /** How a joint that only screws feels: like its own, tight with the wrong flanks, or it starts and binds. */
  feel: "home" | "tightens" | "starts" | null;
  dress: Dress | null;
  washers: number;
  leakPoints: number;
  /** How far a hose is stretched or slack on its barb, of its bore; nothing for what is screwed. */
  stretch: number;
}

const not = (why: WhyNot): Joining => ({
  fit: "no",
  why,
  feel: null,
  dress: null,
  washers: 0,
  leakPoints: 0,
  stretch: 0,
});

/** A hose holds on a barb that is this much thinner or thicker than its bore. Common practice, no source. */
export const LEAST_STRETCH = -0.02;
export const MOST_STRETCH = 0.08;
const ROUNDING = 1e-9;

const isHose = ({ family }: End) => family === "hose";
const isBarb = ({ family }: End) => family === "barb" || family === "pushOn";

function hoseOnBarb(barb: End, hose: End): Joining {
  const isPushOn = barb.family === "pushOn";
  // Only hose that grips by itself holds on a push-on barb without a clamp.
  if (isPushOn && hose.form !== "p") return not("otherKind");
  const stretch = ((sizeOf(barb)?.majorMm ?? 0) - (sizeOf(hose)?.boreMm ?? 0)) / (sizeOf(hose)?.boreMm ?? 1);
  if (stretch < LEAST_STRETCH - ROUNDING) return not("hoseSlack");
  if (stretch > MOST_STRETCH + ROUNDING) return not("hoseTight");
  return {
    fit: "seals",
    why: null,
    feel: null,
    dress: isPushOn ? "noClamp" : "clamp",
    washers: 0,
    leakPoints: 1,
    stretch,
  };
}

/** Flanks that overlap this share of the engaged depth hold; pitches this near start; a male this much thicker enters. */
const LEAST_OVERLAP = 0.45;
const MOST_PITCH_APART = 0.07;
const ENTERS_MM = 0.13;
/** Depth between the crests of a thread, of its pitch: internal minor diameter of ISO 68-1, and the whole of ISO 228-1. */
const DEPTH_OF_PITCH: Readonly<Record<number, number>> = { 60: 1.0825, 55: 1.2807 };
/** Height of the truncated NPT thread, of its pitch. ASME B1.20.1 (from memory). */
const NPT_HEIGHT = 0.8;
const TAPER = 1 / 16;

interface Thread {
  majorMm: number;
  minorMm: number;
  pitchMm: number;
}

/** The thread as the mate meets it: a taper male at its small end, a taper female at the gauge plane. */
function threadOf(end: End): Thread | null {
  const size = sizeOf(end);
  const { flankDeg, isTaper } = familyOf(end);
  if (!size?.majorMm || !size.pitchMm || flankDeg === null) return null;
  const { majorMm, pitchMm, minorMm, gaugePitchMm, handTightMm } = size;
  if (isTaper && gaugePitchMm !== null && handTightMm !== null) {
    const height = NPT_HEIGHT * pitchMm;
    const pitchDiameter = isMale(end) ? gaugePitchMm - handTightMm * TAPER : gaugePitchMm;
    return { majorMm: pitchDiameter + height, minorMm: pitchDiameter - height, pitchMm };
  }
  return { majorMm, minorMm: minorMm ?? majorMm - (DEPTH_OF_PITCH[flankDeg] ?? 1) * pitchMm, pitchMm };
}

/** Whether a male of one kind starts in a female of another: computed from the threads, not listed. */
export function screwsInto(male: End, female: End): boolean {
  const [a, b] = [threadOf(male), threadOf(female)];
  if (!a || !b) return false;
  const apart = Math.abs(a.pitchMm - b.pitchMm) / Math.max(a.pitchMm, b.pitchMm);
  if (apart > MOST_PITCH_APART || a.majorMm > b.majorMm + ENTERS_MM) return false;
  const finer = a.pitchMm <= b.pitchMm ? a : b;
  const depth = (finer.majorMm - finer.minorMm) / 2;
  return (a.majorMm - b.minorMm) / 2 >= LEAST_OVERLAP * depth;
}

const SAME_PITCH_MM = 0.002;

/** What keeps a joint that screws from sealing, the coarsest reason first. */
function whyNotSealed(male: End, female: End): WhyNot {
  const [a, b] = [familyOf(male), familyOf(female)];
  const pitch = (end: End) => sizeOf(end)?.pitchMm ?? 0;
  if (a.flankDeg !== b.flankDeg) return "threadForm";
  if (a.isTaper && !b.isTaper) return "taperInParallel";
  if (!a.isTaper && b.isTaper) return "parallelInTaper";
  if (Math.abs(pitch(male) - pitch(female)) > SAME_PITCH_MM) return "pitch";
  if (male.family === female.family) return "size";
  return a.seal === "cone" && b.seal === "cone" ? "seatAngle" : "seatKind";
}

/** Another pitch starts and binds; other flanks or another taper go tight; what differs only in the seat goes home. */
function feelOf(male: End, female: End): NonNullable<Joining["feel"]> {
  const [a, b] = [familyOf(male), familyOf(female)];
  const apart = Math.abs((sizeOf(male)?.pitchMm ?? 0) - (sizeOf(female)?.pitchMm ?? 0));
  if (apart > SAME_PITCH_MM) return "starts";
  return a.flankDeg !== b.flankDeg || a.isTaper !== b.isTaper ? "tightens" : "home";
}

/** NPT and NPTF make up with each other. */
const isPipe = ({ family }: End) => family === "npt" || family === "nptf";
const isSameKind = (a: End, b: End) => a.family === b.family || (isPipe(a) && isPipe(b));

function dressOf(a: End, b: End): Dress {
  return a.family === b.family ? familyOf(a).dress : "sealant";
}

/** What two ends make of each other. The order of the two does not matter. */
export function joining(a: End, b: End): Joining {
  if (isHose(a) || isHose(b)) {
    if (isHose(a) && isBarb(b)) return hoseOnBarb(b, a);
    if (isHose(b) && isBarb(a)) return hoseOnBarb(a, b);
    return not(isHose(a) && isHose(b) ? "sameGender" : "otherKind");
  }
  const isOpposite = isMale(a) !== isMale(b);
  const [male, female] = isMale(a) ? [a, b] : [b, a];
  if (isSameKind(a, b)) {
    if (!isOpposite) return not("sameGender");
    const mates = familyOf(a).mates.some(([m, f]) => m === male.form && f === female.form);
    if (a.size === b.size && mates) {
      const dress = dressOf(a, b);
      return {
        fit: "seals",
        why: null,
        feel: null,
        dress,
        washers: dress === "newWasher" ? 1 : 0,
        leakPoints: 1,
        stretch: 0,
      };
    }
    if (a.size === b.size) return not("otherKind");
    if (!screwsInto(male, female)) return not("size");
  } else if (!isOpposite || !screwsInto(male, female)) return not("otherKind");
  const why = whyNotSealed(male, female);
  return {
    fit: "screwsOnly",
    why,
    feel: feelOf(male, female),
    dress: null,
    washers: 0,
    leakPoints: 1,
    stretch: 0,
  };
}

/** Every end of another kind, or size, that a male or female end screws with and does not seal: its look-alikes. */
export function lookAlikes(end: End): { end: End; joining: Joining }[] {
  return (Object.entries(families) as [FamilyId, Family][]).flatMap(
    ([family, { sizes: rows, male, female }]) =>
      [...male, ...female].flatMap((form) =>
        rows.flatMap(([size]) => {
          const other: End = { family, size, form };
          const joined = joining(end, other);
          return joined.fit === "screwsOnly" ? [{ end: other, joining: joined }] : [];
        }),
      ),
  );
}
