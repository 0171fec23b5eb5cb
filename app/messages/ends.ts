/** Ends, adapters and joints in words. */
import { shapeOf } from "~/core/ends/adapters";
import { type End, type Joining, type WhyNot } from "~/core/ends/ends";
import { type Dress, type Family, type FamilyId, families, type Material } from "~/core/ends/families";
import type { JointLookFor, JointState } from "~/core/joints/joints";
import type { tradeIn } from "~/core/units/trade";

export const familyName = (family: FamilyId): string => (families[family] as Family).name;

const forms: Record<string, string> = {
  m: "male",
  f: "female",
  fp: "female, parallel",
  fs: "swivel nut",
  n: "nut on tube",
  bolt: "banjo bolt",
  p: "self-gripping hose",
};

export const formName = ({ family, form }: Pick<End, "family" | "form">): string => {
  if (family === "hose") return form === "p" ? "self-gripping" : "plain";
  if (family === "eye") return form === "m" ? "shank" : "eye";
  return forms[form] ?? form;
};

const short: Partial<Record<FamilyId, string>> = {
  npt: "NPT",
  nptf: "NPTF",
  bspt: "BSPT",
  bspp: "BSPP",
  bspCone: "BSPP cone",
  jic37: "37° flare",
  sae45: "45° flare",
  invFlare: "inverted flare",
  orb: "O-ring boss",
  orfs: "face seal",
  unFace: "UN flat face",
  iso6149: "metric O-ring",
  iso9974: "metric flat face",
  cone24: "24° cone",
  comp: "compression",
  eye: "banjo",
  barb: "barb",
  hose: "hose",
  pushOn: "push-on barb",
  qc: "quick connect",
  spinOn: "spin-on",
};

/** Barbs and hoses go by their millimetres or inches; the others by their standard's own name of the size. */
const byBore = new Set<FamilyId>(["barb", "hose", "qc", "eye"]);

/** '1/2 NPT male', '12.7 mm hose'. */
export function endText({ family, size, form }: End): string {
  const name = short[family] ?? family;
  if (byBore.has(family))
    return `${size} mm ${name}${family === "qc" || family === "eye" ? ` ${formName({ family, form })}` : ""}`;
  return `${size} ${name} ${formName({ family, form })}`;
}

/** What is done to a tube before it is flared: a nut that was forgotten goes on by cutting the flare off. */
export const flareText = (
  flares: readonly { end: End; allowanceM: number }[],
  say: ReturnType<typeof tradeIn>,
): string =>
  flares.length === 0
    ? ""
    : `${flares.map(({ end, allowanceM }) => `${endText(end)}: ${say.length(allowanceM)} for its flare`).join("; ")}. Nuts and sleeves on first, threads towards the ends.`;

/** Ends of an adapter of the generic catalogue, by its id. */
export const adapterEnds = (id: string): readonly End[] => shapeOf(id)?.ends ?? [];

/** '1/2 NPT male to 12.7 mm barb'. */
export const adapterText = (id: string): string => {
  const ends = adapterEnds(id);
  return ends.length === 0 ? id : ends.map(endText).join(" to ");
};

export const whyTexts: Record<WhyNot, string> = {
  seatAngle: "their seats have different angles: a line of contact that weeps",
  seatKind: "one seals where the other has nothing to seal on",
  threadForm: "their flanks have different angles: it goes tight and leaks along the thread",
  taperInParallel: "a taper in a parallel thread bears on one or two turns",
  parallelInTaper: "a parallel thread in a taper has no face to seal on",
  pitch: "their pitches differ: it starts by hand, binds, and pulls the thread",
  size: "they are of different sizes",
  sameGender: "both are of one sex",
  otherKind: "they are of different kinds",
  hoseSlack: "the hose is slack on the barb: it folds under the clamp",
  hoseTight: "the hose is too tight for the barb",
};

export const materialTexts: Record<Material, string> = {
  brass: "brass",
  steelZinc: "steel, zinc plated",
  stainless: "stainless",
  aluminium: "aluminium",
  polyamide: "plastic (polyamide)",
  rubber: "rubber",
  galvanised: "galvanised steel",
};
export const dressTexts: Record<Dress, string> = {
  sealant: "thread sealant for fuel, from the second turn on; two to three turns past hand-tight",
  sealantAllowed: "dry, or thread sealant for fuel",
  none: "nothing: clean and dry, no tape or paste on the seat",
  oilORing: "a new O-ring, oiled; no tape or paste",
  oilThread: "oil on thread and ring; no tape or paste",
  newWasher: "a new washer each side, never the old one; no tape or paste",
  clamp: "a clamp (two on a fill hose); nothing on the barb but a wet of fuel",
  noClamp: "pushed home to the collar, no clamp",
  oilGasket: "oil on the gasket; turned by hand after contact as the element says",
};

export const feelTexts: Record<NonNullable<Joining["feel"]>, string> = {
  home: "it screws home like its own",
  tightens: "it tightens and feels right",
  starts: "it starts by hand, then binds",
};

export const jointLookTexts: Record<JointLookFor, string> = {
  newWashers: "Washers new",
  antiSeize: "Anti-seize on",
  clampPlaced: "Clamp behind the bead",
  clocked: "Tight, it stands clear",
};
export const jointStateTexts: Record<JointState, string> = {
  unknown: "not known",
  seals: "seals",
  adapters: "needs an adapter",
  screws: "screws together, does not seal",
  none: "nothing fits",
};

/** Reads '1/2' NPT and its like back from what a finding carries. */
export function endFromText(text: string): End {
  const [family, form] = [text.slice(0, text.indexOf(" ")), text.slice(text.lastIndexOf(" ") + 1)];
  return { family: family as FamilyId, form, size: text.slice(text.indexOf(" ") + 1, text.lastIndexOf(" ")) };
}
