/** Sentences for hoses, fittings and what lies in the line; petrol's own. */

import { PUMP_NEAR_M } from "~/core/findings/hoses/petrol";
import type { ValuesOf } from "~/core/findings/index";
import type { HoseReason } from "~/core/hose/survey";
import type { HoseSurvey, Neighbour } from "~/core/plan/types";
import { formatNumber } from "~/core/units/format";
import { clashText } from "../board";
import { counted } from "../counted";
import { adapterText, endFromText, endText, whyTexts } from "../ends";
import { behindTexts, passageTexts } from "../passages";
import { capital, type Say, type Sentences, type Words } from "./say";

const near: Record<Neighbour["kind"], string> = {
  hot: "what is hot",
  moving: "what moves",
  sharp: "a sharp edge",
  line: "a line that may rub",
  battery: "a battery",
};

const feels: Record<HoseSurvey["feel"], string> = {
  sound: "sound to the hand",
  stiff: "stiff",
  soft: "soft and swollen",
  oily: "oily to the hand",
  cracked: "cracked",
};

export function hoseReasonText(
  code: HoseReason["code"],
  years: number | null,
  feel: HoseSurvey["feel"] | undefined,
): string {
  switch (code) {
    case "noMarking":
      return "nothing legible is printed on it";
    case "noStandard":
      return "what is printed on it names no hose standard that is known";
    case "noClass":
      return "no fire class is printed on it";
    case "noDate":
      return "no date can be read";
    case "notFireTested":
      return "not fire tested, in an engine room";
    case "notLowPermeation":
      return "not of the low-permeation class that petrol needs";
    case "old":
    case "nearlyOld":
      return `${formatNumber(years ?? 0, 2)} years old`;
    case "feels":
      return feel ? feels[feel] : "not known to the hand";
    case "boreDiffers":
      return "another bore is printed on it than the plan has";
  }
}

function petrolWords(v: ValuesOf<"petrol">, say: Say): Words {
  switch (v.code) {
    case "openingNotAtTop":
      return [
        `${v.part}: an opening under its top, with petrol`,
        "",
        "Petrol runs out of an opening under its level, and its vapour lies low until a spark finds it.",
        "Openings at the top only. Licensed work where the law says so.",
      ];
    case "pumpFarFromEngine":
      return [
        `${v.part} stands more than ${say.length(PUMP_NEAR_M)} from the engine, with petrol`,
        "",
        "A line under pressure feeds a fire for as long as the pump runs.",
        `A pump on the engine or within ${say.length(PUMP_NEAR_M)} of it. Licensed work where the law says so.`,
      ];
    case "pumpWithoutEngine":
      return [
        `${v.part} runs with the engine off, with petrol`,
        "",
        "A leak is pumped out with no engine to show it.",
        "A switch that runs the pump only as the engine turns.",
      ];
    case "noAntiSiphon":
      return [
        `${v.part} is fed with petrol over no anti-siphon valve`,
        "",
        "A line that breaks under the level siphons the tank empty.",
        "An anti-siphon valve at each tank outlet.",
      ];
  }
}

const jointMadeTexts: Record<ValuesOf<"jointMade">["code"], (v: ValuesOf<"jointMade">, say: Say) => Words> = {
  newWashers: ({ joint, washers }) => [
    `${joint}: its washers are not new`,
    `${counted(washers, "washer")}, all new, never one on top of an old one.`,
    "A washer takes the shape of its first seat: squeezed again it weeps, doubled it lets the bolt down short.",
    "Two for one eye, three for a double; the faces wiped and looked at.",
  ],
  antiSeize: ({ joint }) => [
    `${joint}: stainless that galls`,
    "Stainless in stainless or aluminium.",
    "Dry it seizes half way, and comes out with its thread or not at all. A dry test fit is enough.",
    "Anti-seize on the thread before it is screwed, and tick it at the joint.",
  ],
  clampPlaced: ({ joint, edgeM }, say) => [
    `${joint}: its clamp is not where it holds`,
    `Behind the bead or over the barb's ridges, ${say.length(edgeM)} from the hose's end at the least; no spring alone.`,
    "A clamp on the plain pipe holds nothing, one at the edge cuts the hose.",
    "Move the clamp; two on a fill hose.",
  ],
  clocked: ({ joint }) => [
    `${joint}: tight, it stands where it cannot`,
    "A taper thread is tight where it is tight: a handle or a hose then points where it has no room.",
    "Turned back to fit it leaks; a dry fit does not show it.",
    "A swivel or union between, another length of nipple, or the part turned on its mount.",
  ],
};

export const hoses: Sentences<
  | "hoseFound"
  | "bendTight"
  | "boardClash"
  | "boardHose"
  | "supportWide"
  | "hoseThin"
  | "nearDanger"
  | "allowanceShort"
  | "linesUnmarked"
  | "bulkheadReach"
  | "jointMade"
  | "jointUnsealed"
  | "jointWet"
  | "passageWrong"
  | "provisional"
  | "shopMade"
  | "petrol"
> = {
  hoseFound: (v, say, finding) => {
    const reasons = (v.codes.split(" ") as HoseReason["code"][]).map((code) =>
      hoseReasonText(code, v.years, v.feel),
    );
    return [
      `Hose ${say.name(finding.ids[0] ?? "")}: ${finding.grade === "mend" ? "replace" : "watch"}`,
      `${capital(reasons.join("; "))}.`,
      "Hose fails from inside and where it is clamped; its printing says what fire and fuel it was made for.",
      "New hose of the class its place needs; write down what was fitted and when.",
    ];
  },
  bendTight: (v, say) => [
    `Hose from ${v.part} bends at ${say.length(v.radiusM)}, its maker says ${say.length(v.leastM)}`,
    v.code === "legs"
      ? "To the inside of the bend: its legs have no room for more."
      : "To the inside of the bend, as on the maker's sheet.",
    "It flattens, and kinks when warm. New fire-tested hose is stiffer than the old.",
    "A wider bend, or an elbow fitting.",
  ],
  boardClash: (v, say) => {
    const by = say.length(v.byM);
    return [
      v.code === "apart"
        ? `${v.part} and ${v.other} are screwed together, and hang ${by} apart`
        : v.code === "lid"
          ? `${v.part} stands ${by} out past the shut lid`
          : clashText(v.code, v.part, v.other, by),
      `On ${v.board}. Sizes of a kind are generic until the part is measured.`,
      v.code === "outOfReach" || v.code === "serviceBlocked"
        ? "An element that cannot be got out is not changed, and a handle that does not turn is left as it is."
        : "It does not go in as it is drawn.",
      "Hang one of them elsewhere, turn it, or take a larger board or opening.",
    ];
  },
  boardHose: (v, say) =>
    v.code === "blocked"
      ? [
          `Hose from ${v.from} to ${v.to} finds no way on ${v.board}`,
          `Its least bend is ${say.length(v.radiusM)}, to its middle${v.by ? `; in its way: ${v.by}` : ""}.`,
          "Forced round, it kinks, and a kink is a valve that nobody set.",
          "Turn a port towards the other, an elbow, smaller hose, or more room.",
        ]
      : [
          `Hose from ${v.from} to ${v.to}: ${say.length(v.hasM ?? 0)} in the plan, ${say.length(v.needsM)} on the board`,
          "Bent to its least radius, straight out of both ports.",
          "Cut to the plan it does not reach.",
          "Take the board's length, or hang the two nearer.",
        ],
  hoseThin: (v, say) => [
    `A hose of ${say.bore(v.boreM)} cannot be ${say.length(v.outsideM)} outside`,
    "Its bore and its outside were typed apart.",
    "Its hole, its clamps and its clips follow the outside, and would not fit.",
    "Measure the outside, or type both from the print on the hose.",
  ],
  supportWide: (v, say) => [
    `Hose from ${v.part} is clipped every ${say.length(v.everyM)}, ${say.length(v.limitM)} is the most`,
    "",
    "A hose that swings chafes, and sags into a low point that holds water.",
    "Clips between.",
  ],
  nearDanger: (v, say) => [
    `Hose from ${v.part} lies ${say.length(v.apartM)} from ${v.near}`,
    `${say.length(v.leastM)} from ${near[v.kind]} is the least; at ${say.length(v.atM)} along it.`,
    "Heat bakes a hose hard, what moves or is sharp cuts it.",
    "Move it, or a shield, grommet or tie.",
  ],
  allowanceShort: (v, say) => [
    `${say.length(v.allowanceM)} of hose to spare at each end, ${say.length(v.leastM)} is wanted`,
    "",
    "A hose grows to its barb: the next time it is cut off, and must still reach.",
    "More allowance in the cut list.",
  ],
  linesUnmarked: (v) => [
    `${v.count} of ${v.of} lines are not marked`,
    "",
    "A line without a mark is traced by hand, in the dark, by someone else.",
    "Colour and text: from which tank, to which part.",
  ],
  bulkheadReach: (v, say) => [
    `${v.part} is for ${say.length(v.reachM)} of wall, it passes ${say.length(v.wallM)}`,
    "",
    "Too short, its nut does not hold; too long, it stands where a hose must turn.",
    "A fitting of the right length.",
  ],
  jointMade: (v, say) => jointMadeTexts[v.code](v, say),
  jointUnsealed: (v) => {
    const [a, b] = v.ends.split("|").map(endFromText);
    const both = a && b ? `${endText(a)} and ${endText(b)}` : "";
    const why = `${both}: ${whyTexts[v.why]}.`;
    if (v.code === "nothing")
      return [
        `${v.joint}: nothing that is made joins it`,
        why,
        "A joint that is forced leaks, or pulls its thread the first time it is undone.",
        "Another end on the part or the hose.",
      ];
    return [
      `${v.joint}: screws together and does not seal`,
      why,
      "It feels right on the bench and weeps on the road; under vacuum it draws air.",
      `Between them: ${v.parts.split(" ").map(adapterText).join("; then ")}.`,
    ];
  },
  jointWet: (v) => [
    `${v.part}, ${v.port}: wet`,
    `Seen on ${v.on}.`,
    "What weeps drips on what is hot or gathers where nobody looks; under vacuum the same joint draws air in.",
    "Relieve the pressure first, make the joint again with a new washer or clip, look again, and tick it dry.",
  ],
  passageWrong: (v, say) => {
    const [title, mend] = passageTexts[v.code];
    return [
      `${v.passage}: ${v.code === "behind" ? `${behindTexts[v.behind]} lies behind it` : title}`,
      v.code === "sleeveShort" || v.code === "sleeveLong"
        ? `${say.length(v.sleeveM)} of sleeve in ${say.length(v.wallM)} of wall.`
        : `${say.length(v.needM)} is what it needs.`,
      "A hole is not uncut: it weakens what it passes, and an edge saws at a hose for years.",
      mend,
    ];
  },
  provisional: (v) => [
    `${v.part} is provisional`,
    "",
    "What holds for a day is forgotten for years.",
    "Do it properly before hand-over, and take the mark off.",
  ],
  shopMade: (v) => [
    `${v.part} was built in the shop and not proof tested`,
    "",
    "A weld that weeps is found under the floor.",
    "A sketch, and a proof test before it goes into service.",
  ],
  petrol: petrolWords,
};
