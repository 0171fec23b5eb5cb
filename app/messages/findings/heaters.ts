/** Sentences for heaters and their dosing pumps. */

import type { ExhaustCode } from "~/core/findings/heaters/heaterExhaust";
import type { ValuesOf } from "~/core/findings/index";
import { formatNumber } from "~/core/units/format";
import { capital, type Say, type Sentences, type Words } from "./say";

const exhaust: Record<ExhaustCode, string> = {
  bends: "bends more than 270° in all",
  falls: "does not fall to its end",
  drain: "has no drain at its lowest point",
  outlet: "ends near an intake, door or window",
  air: "air for the flame is drawn from the front or from foul air",
};

function dosingWords(v: ValuesOf<"dosingFit">, say: Say): Words {
  const { part } = v;
  switch (v.code) {
    case "tilt":
      return [
        `${part} slopes ${formatNumber(v.is)}°, 15° to 35° is wanted`,
        "Outlet up.",
        "Air that gathers in the pump goes out with the stroke only when its outlet stands higher.",
        "Turn its bracket.",
      ];
    case "rubber":
      return [
        `${part} is not hung in rubber`,
        "",
        "Its stroke is heard through the whole vehicle.",
        "A rubber mount that lets it move.",
      ];
    case "lift":
      return [
        `${part} lifts ${say.length(v.is)}, its maker allows ${say.length(v.limit)}`,
        "From the lowest fuel to the pump.",
        "Beyond it the stroke fills only in part and the flame goes out.",
        "Lower the pump, or raise the tank.",
      ];
    case "before":
    case "after":
      return [
        `${part}: ${say.length(v.is)} of line ${v.code} it, ${say.length(v.limit)} is the most`,
        "",
        "A longer line starves the stroke or damps it away.",
        "Move the pump nearer.",
      ];
  }
}

function supplyWords(v: ValuesOf<"heaterSupply">): Words {
  const { part } = v;
  if (v.code === "regulator")
    return [
      `${part} peaks at ${formatNumber(v.peakW ?? 0)} W, the regulator gives ${formatNumber(v.mostW ?? 0)} W`,
      "",
      "The regulator folds back as the glow plug draws, and the heater faults.",
      "A supply straight from the battery, fused, or a regulator that bears the peak.",
    ];
  return [
    `${part} gets ${formatNumber(v.atPeakV ?? 0)} V at its glow current, its maker says ${v.code === "low" ? "at least" : "at most"} ${formatNumber(v.limitV ?? 0)} V`,
    "",
    v.code === "low"
      ? "Under its window a heater faults as it lights, most often in the cold."
      : "Over its window its controller faults.",
    v.code === "low"
      ? "Thicker or shorter wire, or a better supply."
      : "A regulator in its supply that bears its peak.",
  ];
}

export const heaters: Sentences<
  | "heaterUnmetered"
  | "dosingFit"
  | "heaterSupply"
  | "heaterExhaust"
  | "heaterClear"
  | "heaterOnVehicle"
  | "noCoAlarm"
  | "runDownCut"
> = {
  heaterUnmetered: (v) => [
    `${v.part} is fed over no dosing pump`,
    `In ${v.lineUp} fuel comes to the burner by itself.`,
    "What is not metered floods the burner: smoke, and fire outside of it.",
    "A dosing pump after the maker's manual, or say that it meters for itself.",
  ],
  dosingFit: dosingWords,
  heaterSupply: supplyWords,
  heaterExhaust: (v) => [
    `Exhaust of ${v.part}`,
    `${capital((v.codes.split(" ") as ExhaustCode[]).map((code) => exhaust[code]).join("; "))}.`,
    "Water that stands shuts it, and its gas must not come back in: carbon monoxide has no smell.",
    "After the maker's manual. Have the flue tested by a licensed fitter where the law says so.",
  ],
  heaterClear: (v, say) => [
    v.airWay === 0
      ? `Warm air of ${v.part} is not clear`
      : `${v.part} has ${say.length(v.clearM)} of room round it`,
    `${say.length(v.leastM)} is the least where its maker says nothing else.`,
    "It overheats and shuts down, or bakes what lies by it.",
    "Clear its air, and the room round it.",
  ],
  heaterOnVehicle: (v, say) => {
    switch (v.code) {
      case "vegetable":
        return [
          `${v.part} draws vegetable fuel from ${v.tank}`,
          "",
          "It cokes the burner.",
          "A tank of its own with winter diesel.",
        ];
      case "noReserve":
        return [
          `${v.part} leaves ${say.volume(v.reserveM3)} in ${v.tank}`,
          `${say.volume(v.wantedM3)} is wanted as a reserve.`,
          "A night's heat must leave enough to drive home.",
          "A standpipe that ends higher.",
        ];
      case "notOwn":
        return [
          `${v.part} draws from ${v.tank}, not from a tank of its own`,
          `Its standpipe leaves ${say.volume(v.reserveM3)}; ${say.volume(v.wantedM3)} is wanted as a reserve.`,
          "A night's heat must leave enough to drive home; additives in that tank reach the burner.",
          "A standpipe above a reserve, and say in the schools that you hold with it; or its own tank.",
        ];
    }
  },
  noCoAlarm: (v) => [
    `No carbon monoxide alarm where ${v.part} stands`,
    "",
    "Its exhaust kills without smell, in sleep.",
    "Fit an alarm in the space before the heater is lit, and test it.",
  ],
  runDownCut: (v) => [
    `A switch can cut ${v.part} before it has run down`,
    "",
    "Without its run-down the burner overheats and soots.",
    "Its control stays powered; switch it by its own panel.",
  ],
};
