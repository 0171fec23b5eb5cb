/** What is to buy, in words; the box knows its things by the same. */
import type { BuyGroup, BuyLine, BuyWhat } from "~/core/parts/buying";
import { formatNumber, type UnitChoice } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";
import { adapterText, endText } from "./ends";
import { capital } from "./findings/say";
import { detailText, partKindName } from "./kinds";

export const buyGroupTexts: Record<BuyGroup, string> = {
  parts: "Parts",
  filters: "Elements and seals",
  hose: "Hose and tube",
  fittings: "Fittings, clamps and clips",
  electric: "Wire and fuses",
  consumables: "Spent on the way",
  tools: "Tools not in every box",
};

const plain = {
  washer: "sealing washer, new",
  makerFuse: "fuse by the heater's own manual",
  alarm: "carbon monoxide alarm",
  gasket: "gasket for a fitting through a tank's wall",
  nipple: "nipple between two ports, threads to suit (assumed)",
  plug: "plug or cap for an open port, thread to suit",
  fixing: "screw or stud for a bracket that is undone",
  threadSealant: "thread sealant for fuel, no tape",
  antiSeize: "anti-seize paste",
  epoxy: "epoxy for cut edges",
  edgePaint: "paint for cut edges",
  sleeve: "sleeve through a wall",
  fuseHolder: "fuse holder, sealed",
  relay: "relay and its socket",
  flareTool: "flaring tool",
  bender: "tube bender",
  torqueSpanner: "torque spanner",
  filterSpanner: "filter spanner",
  crimpTool: "crimping tool",
} as const;

/** A line as it is written in the list, on the order and in the box. */
export function buyText(what: BuyWhat, units: UnitChoice): string {
  const { bore, length, volume, wire } = tradeIn(units);
  const a = (m: number) => formatNumber(m, 3);
  switch (what.kind) {
    case "part": {
      const detail = detailText(what.line, units);
      return `${partKindName(what.line.kind)}${detail ? `, ${detail}` : ""}, ${bore(what.line.boreM)}`;
    }
    case "element":
      return `element for ${partKindName(what.of)}, ${a(what.micron)} µm`;
    case "seal":
      return `seal ring for ${partKindName(what.of)}`;
    case "hose":
      return `${what.marking}, ${bore(what.boreM)}`;
    case "adapter":
      return adapterText(what.shape);
    case "tail":
      return what.isPushOn
        ? `push-on barb ${bore(what.boreM)}, thread to suit the port (assumed)`
        : `hose barb ${bore(what.boreM)}, thread to suit the port (assumed)`;
    case "reducer":
      return `reducer, hose ${bore(what.hoseM)} to a port of ${bore(what.portM)} (assumed)`;
    case "nut":
      return `tube nut, ${endText(what)}`;
    case "tank":
    case "consumer":
      return what.name;
    case "fuel":
      return `fuel to fill ${what.name}, ${volume(what.volumeM3)}`;
    case "dipTube":
      return `tube for ${what.name} in its tank, ${bore(what.boreM)}, cut to ${length(what.cutM)}`;
    case "clamp":
      return `hose clamp for ${length(what.outsideM)}`;
    case "clip":
      return `clip for ${length(what.outsideM)}`;
    case "grommet":
      return `grommet, ${length(what.passM)} through ${length(what.wallM)}`;
    case "wire":
      return `wire ${wire(what.areaM2)}, ${what.pole === "positive" ? "red" : "black"}`;
    case "fuse":
      return `fuse ${a(what.amperes)} A`;
    case "crimp":
      return `crimp for ${wire(what.areaM2)}`;
    case "holeSaw":
      return `hole saw ${what.name}`;
    default:
      return plain[what.kind];
  }
}

/** Why a line has more than the plan holds. */
export const spareText = ({ spare, what }: BuyLine): string => {
  if (spare === 0) return "";
  return what.kind === "element" || what.kind === "fuse"
    ? `${spare} of it spare`
    : `${spare} of it in reserve`;
};

export const lineTitle = (line: BuyLine, units: UnitChoice): string => capital(buyText(line.what, units));

/** What is looked at as a delivery comes. */
export const checkInTexts = {
  count: (wanted: number) => (wanted === 1 ? "One came, as ordered" : `${wanted} came, as ordered`),
  ends: () => "Every end started by hand",
  seals: () => "Seals and washers are with it",
} as const;
