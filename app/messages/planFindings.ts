/** Words for findings of parts, heaters and circuits: title, detail, why it matters, how it is mended. */
import type { RuleId } from "~/core/findings/types";
import { formatNumber } from "~/core/units/format";
import { counted } from "./counted";

export interface PlanWords {
  text: (key: string) => string;
  number: (key: string) => number;
  flow: (key: string) => string;
  pressure: (key: string) => string;
  volume: (key: string) => string;
  length: (key: string) => string;
}

type Said = readonly [title: string, detail: string, why: string, mend: string];

const amperes = (value: number) => `${formatNumber(value)} A`;
const percent = (share: number) => `${formatNumber(share * 100, 2)} %`;
const mm2 = (areaM2: number) => `${formatNumber(areaM2 * 1e6, 3)} mm²`;

const gaugePlaces: Record<string, string> = {
  afterPump: "a vacuum gauge after the pump reads pressure",
  beforeFilter: "before the filter it does not see the filter load",
  beforePump: "a pressure gauge before the pump reads vacuum",
  beforeLastFilter: "before the last filter it does not see that filter load",
};

const stagings: Record<string, string> = {
  coarseAfterFine: "a coarser medium stands after a finer one",
  fineBeforePump: "the finest medium stands on the suction side",
  fineAfterPump: "no fine medium stands before the pump",
  anyBeforePump: "a medium stands before the pump",
};

const near: Record<string, string> = {
  hot: "what is hot",
  moving: "what moves",
  sharp: "a sharp edge",
  line: "a line that may rub",
  battery: "a battery",
};

const exhaust: Record<string, string> = {
  bends: "bends more than 270° in all",
  falls: "does not fall to its end",
  drain: "has no drain at its lowest point",
  outlet: "ends near an intake, door or window",
  air: "air for the flame is drawn from the front or from foul air",
};

function petrolWords({ text }: PlanWords): Said {
  switch (text("code")) {
    case "openingNotAtTop":
      return [
        `${text("part")}: an opening under its top, with petrol`,
        "",
        "Petrol runs out of an opening under its level, and its vapour lies in the bilge.",
        "Openings at the top only. Licensed work where the law says so.",
      ];
    case "pumpFarFromEngine":
      return [
        `${text("part")} stands more than 300 mm from the engine, with petrol`,
        "",
        "A line under pressure through the boat feeds a fire for as long as the pump runs.",
        "A pump on the engine or within 300 mm of it. Licensed work where the law says so.",
      ];
    case "pumpWithoutEngine":
      return [
        `${text("part")} runs with the engine off, with petrol`,
        "",
        "A leak is pumped out with no engine to show it.",
        "A switch that runs the pump only as the engine turns.",
      ];
    default:
      return [
        `${text("part")} is fed with petrol over no anti-siphon valve`,
        "",
        "A line that breaks under the level siphons the tank into the bilge.",
        "An anti-siphon valve at each tank outlet.",
      ];
  }
}

function dosingWords(words: PlanWords): Said {
  const { text, number, length } = words;
  const part = text("part");
  switch (text("code")) {
    case "tilt":
      return [
        `${part} slopes ${formatNumber(number("is"))}°, 15° to 35° is wanted`,
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
        `${part} lifts ${length("is")}, its maker allows ${length("limit")}`,
        "From the lowest fuel to the pump.",
        "Beyond it the stroke fills only in part and the flame goes out.",
        "Lower the pump, or raise the tank.",
      ];
    default:
      return [
        `${part}: ${length("is")} of line ${text("code") === "before" ? "before" : "after"} it, ${length("limit")} is the most`,
        "",
        "A longer line starves the stroke or damps it away.",
        "Move the pump nearer.",
      ];
  }
}

function supplyWords({ text, number }: PlanWords): Said {
  const part = text("part");
  if (text("code") === "regulator")
    return [
      `${part} peaks at ${formatNumber(number("peakW"))} W, the regulator gives ${formatNumber(number("mostW"))} W`,
      "",
      "The regulator folds back as the glow plug draws, and the heater faults.",
      "A supply straight from the battery, fused, or a regulator that bears the peak.",
    ];
  return [
    `${part} gets ${formatNumber(number("atPeakV"))} V at its glow current, its maker says ${text("code") === "low" ? "at least" : "at most"} ${formatNumber(number("limitV"))} V`,
    "",
    text("code") === "low"
      ? "Under its window a heater faults as it lights, most often in the cold."
      : "Over its window its controller faults.",
    text("code") === "low"
      ? "Thicker or shorter wire, or a better supply."
      : "A regulator in its supply that bears its peak.",
  ];
}

function wireWords({ text, number }: PlanWords): Said {
  const part = text("part");
  const least =
    number("leastAreaM2") > 0
      ? `Wire of ${mm2(number("leastAreaM2"))}.`
      : "Shorter wire, or a relay near it.";
  switch (text("code")) {
    case "fuseOverWire":
      return [
        `${part}: a fuse of ${amperes(number("fuseA"))} on wire that bears ${amperes(number("bearsA"))}`,
        "",
        "The wire burns before the fuse does.",
        `A smaller fuse where the load allows it, or thicker wire. ${least}`,
      ];
    case "fuseUnderLoad":
      return [
        `${part}: a fuse of ${amperes(number("fuseA"))} under a peak of ${amperes(number("peakA"))}`,
        "",
        "It blows as the load starts.",
        "A fuse over the peak, and wire that bears the fuse.",
      ];
    default:
      return [
        `${part}: its wire loses ${percent(number("dropShare"))} of the volts, ${percent(number("allowedShare"))} is allowed`,
        "",
        "A pump short of volts gives less fuel, and a heater faults.",
        least,
      ];
  }
}

/** Null for a rule that another file has words for. */
export function planFindingWords(rule: RuleId, words: PlanWords): Said | null {
  const { text, number, flow, pressure, volume, length } = words;
  const part = text("part");
  switch (rule) {
    case "elementMissing":
      return [
        `${part} has no element`,
        "A line-up powers a pump.",
        "Fuel, and what is in it, goes straight to the injection system; an open head is a spill.",
        "Fit an element before anything is powered. Eye protection on, pan under it.",
      ];
    case "gaugePlace":
      return [
        `${part} stands in the wrong place`,
        `${capital(gaugePlaces[text("code")] ?? "")}.`,
        "Readings mean something only where all that can block lies on one side of the gauge.",
        "Vacuum: between the first filter and the lift pump. Pressure: after the last filter.",
      ];
    case "pumpAboveFilters":
      return [
        `${part} stands ${length("overM")} over the filters it draws through`,
        "",
        "When it stops, fuel falls back and the pump stands dry at the next start.",
        "Mount it below the filters.",
      ];
    case "lubricatedLow":
      return [
        `${text("tank")} is too low for ${part}`,
        `${volume("aboardM3")} aboard; air comes below ${volume("leastM3")} at the worst attitude. The rule of thumb is a quarter tank, ${volume("quarterM3")}.`,
        "Its injection pump is lubricated by fuel alone and seizes on air.",
        "Fill up, or a sump, well or second pickup.",
      ];
    case "gravityOverfills":
      return [
        `${text("tank")} can overfill by gravity in ${text("lineUp")}`,
        `The higher surface stands ${length("overM")} over its vent; ${flow("intoM3S")} runs in.`,
        "It goes on running when no one looks, out of the vent.",
        "A valve that is shut when no one stands by, or the lower vent led higher.",
      ];
    case "bulbPlace":
      return text("code") === "notForDiesel"
        ? [
            `${part} is not rated for diesel`,
            "",
            "Diesel swells common bulbs, and their valves stick: the engine starves or draws air.",
            "A priming pump with a bypass, a lever, or a bulb that is rated for diesel.",
          ]
        : [
            `${part} stands after the filter`,
            "",
            "Squeezed there it draws through the filter and fills it badly.",
            "Between tank and filter, arrow to the engine, upright as it is squeezed.",
          ];
    case "primingBlocks":
      return [
        `${part} shuts the line when it is off`,
        "",
        "The lift pump draws through a pump that stands still.",
        "A priming pump with a bypass, or one that flows freely unpowered.",
      ];
    case "filterStaging":
      return [
        `${part}: ${stagings[text("code")] ?? ""}`,
        text("code") === "coarseAfterFine"
          ? `${formatNumber(number("micron"))} micron after ${text("other")}.`
          : `${formatNumber(number("micron"))} micron.`,
        "A fine medium first blocks first; on the suction side it costs vacuum, after a pump water is sheared finer.",
        "Coarse before fine along the flow, the finest where your school has it.",
      ];
    case "sparePorts":
      return [
        `${part}: ${counted(number("count"), "spare port")} not plugged`,
        "",
        "An open port on the suction side draws air, on the pressure side it spills.",
        "Plugs with the thread's own sealant, snug and not more.",
      ];
    case "noStripping":
      return [
        `${text("tank")}: nothing reaches its lowest point`,
        `${volume("hiddenM3")} lies under the lowest mouth.`,
        "Water and growth gather there and are seen only when the engine swallows them.",
        "A stripping tube to the lowest point at trim.",
      ];
    case "sloshing":
      return [
        `${text("tank")}: ${length("longM")} without a baffle`,
        number("across") === 1 ? "Its long side lies across the vehicle." : "",
        "Fuel that sloshes uncovers the pickup and works the seams.",
        "Baffles, or its long side along the vehicle.",
      ];
    case "bendTight":
      return [
        `Hose from ${part} bends at ${length("radiusM")}, its maker says ${length("leastM")}`,
        "",
        "It flattens, and kinks when warm. New fire-tested hose is stiffer than the old.",
        "A wider bend, or an elbow fitting.",
      ];
    case "supportWide":
      return [
        `Hose from ${part} is held every ${length("everyM")}, ${length("limitM")} is the most`,
        "",
        "A hose that swings chafes, and sags into a low point that holds water.",
        "Clips between.",
      ];
    case "nearDanger":
      return [
        `Hose from ${part} lies ${length("apartM")} from ${text("near")}`,
        `${length("leastM")} from ${near[text("kind")] ?? "it"} is the least; at ${length("atM")} along it.`,
        "Heat bakes a hose hard, what moves or is sharp cuts it.",
        "Move it, or a shield, grommet or tie.",
      ];
    case "allowanceShort":
      return [
        `${length("allowanceM")} of hose to spare at each end, ${length("leastM")} is wanted`,
        "",
        "A hose grows to its barb: the next time it is cut off, and must still reach.",
        "More allowance in the cut list.",
      ];
    case "linesUnmarked":
      return [
        `${number("count")} of ${number("of")} lines are not marked`,
        "",
        "A line without a mark is traced by hand, in the dark, by someone else.",
        "Colour and text: from which tank, to which part.",
      ];
    case "petrol":
      return petrolWords(words);
    case "dosingFit":
      return dosingWords(words);
    case "heaterExhaust":
      return [
        `Exhaust of ${part}`,
        `${capital(
          text("codes")
            .split(" ")
            .map((code) => exhaust[code] ?? code)
            .join("; "),
        )}.`,
        "Water that stands shuts it, and its gas must not come back in: carbon monoxide has no smell.",
        "After the maker's manual. Have the flue tested by a licensed fitter where the law says so.",
      ];
    case "noCoAlarm":
      return [
        `No carbon monoxide alarm where ${part} stands`,
        "",
        "Its exhaust kills without smell, in sleep.",
        "Fit an alarm in the space before the heater is lit, and test it.",
      ];
    case "heaterSupply":
      return supplyWords(words);
    case "heaterClear":
      return [
        number("airWay") === 0
          ? `Warm air of ${part} is not clear`
          : `${part} has ${length("clearM")} of room round it`,
        `${length("leastM")} is the least where its maker says nothing else.`,
        "It overheats and shuts down, or bakes what lies by it.",
        "Clear its air, and the room round it.",
      ];
    case "heaterOnVehicle":
      switch (text("code")) {
        case "vegetable":
          return [
            `${part} draws vegetable fuel from ${text("tank")}`,
            "",
            "It cokes the burner.",
            "A tank of its own with winter diesel.",
          ];
        case "noReserve":
          return [
            `${part} leaves ${volume("reserveM3")} in ${text("tank")}`,
            `${volume("wantedM3")} is wanted as a reserve.`,
            "A night's heat must leave enough to drive home.",
            "A standpipe that ends higher.",
          ];
        default:
          return [
            `${part} draws from ${text("tank")}, not from a tank of its own`,
            `Its standpipe leaves ${volume("reserveM3")}; ${volume("wantedM3")} is wanted as a reserve.`,
            "A night's heat must leave enough to drive home; additives in that tank reach the burner.",
            "A standpipe above a reserve, and say in the schools that you hold with it; or its own tank.",
          ];
      }
    case "triggerOverloaded":
      return [
        `${part} draws ${amperes(number("runA"))} through a circuit for ${amperes(number("triggerA"))}`,
        "",
        "A factory circuit that is overloaded faults or burns at the first cold start.",
        "A relay, and a fused supply of its own from the battery.",
      ];
    case "wireWrong":
      return wireWords(words);
    case "feedPressure":
      return [
        `${part} is fed at ${pressure("feedPa")}, its maker says ${text("code") === "low" ? "at least" : "at most"} ${pressure("limitPa")}`,
        `In ${text("lineUp")}, ${text("code") === "low" ? "at full feed" : "at idle"}.`,
        text("code") === "low"
          ? "Too little, and the injection pump hunts, foams its fuel and wears."
          : "Too much, and seals of the injection pump weep into the oil.",
        text("code") === "low"
          ? "A larger bore or pump, or a cleaner filter."
          : "A relief or regulator at the pump.",
      ];
    case "cannotHold":
      return [
        `${part} cannot hold ${pressure("setPa")}`,
        "All the fuel has to pass it: the pressure after it does not answer.",
        "It only stands in the way, and whoever reads its setting trusts a pressure that is not there.",
        "Put it where less can flow: on the feed after the pump, or with a branch back to the tank before it.",
      ];
    case "provisional":
      return [
        `${part} is provisional`,
        "",
        "What holds for a day is forgotten for years.",
        "Do it properly before hand-over, and take the mark off.",
      ];
    case "sensorLate":
      return [
        `${part} warns after ${volume("heldM3")} of water`,
        "An earlier bowl fills first.",
        "Water is carried on before anyone is warned.",
        "A sensor in the first bowl that water reaches.",
      ];
    case "flowGuessed":
      return [
        `Which way fuel goes through ${part} was guessed`,
        "",
        "A head the wrong way round passes dirt to the clean side.",
        "Find its arrow, the maker's sheet, or which side leads to the outer face of the element.",
      ];
    case "runDownCut":
      return [
        `A switch can cut ${part} before it has run down`,
        "",
        "Without its run-down the burner overheats and soots.",
        "Its control stays powered; switch it by its own panel.",
      ];
    case "bulkheadReach":
      return [
        `${part} is for ${length("reachM")} of wall, it passes ${length("wallM")}`,
        "",
        "Too short, its nut does not hold; too long, it stands where a hose must turn.",
        "A fitting of the right length.",
      ];
    case "shopMade":
      return [
        `${part} was made in the shop and not proof tested`,
        "",
        "A weld that weeps is found under the floor.",
        "A sketch, and a proof test before it goes into service.",
      ];
    default:
      return null;
  }
}

const capital = (said: string) => said.charAt(0).toUpperCase() + said.slice(1);
