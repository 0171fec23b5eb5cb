/** Sentences for what flows where, and at what pressure. */

import type { WhyNot } from "~/core/air/procedure";
import type { ValuesOf } from "~/core/findings/index";
import type { Shortage } from "~/core/hydraulics/starving";
import type { WorstCause } from "~/core/hydraulics/worst";
import type { SchoolMatter } from "~/core/plan/types";
import { percentText } from "~/core/units/format";
import { leftText, whyNotText } from "../bleeding";
import { schoolTexts } from "../schools";
import { capital, hours, type Say, type Sentences, type Words } from "./say";

const fillings: Record<
  ValuesOf<"returnElsewhere">["cause"],
  (v: Pick<ValuesOf<"returnElsewhere">, "lineUp" | "to" | "from">) => string
> = {
  return: ({ lineUp, to }) => `${lineUp} returns to ${to}`,
  pump: ({ lineUp, to, from }) => `${lineUp} pumps ${from} over into ${to}`,
  gravity: ({ lineUp, to, from }) => `${lineUp}: ${from} runs into ${to} by its height`,
};

const worstCauses: Record<WorstCause, string> = {
  cold: "by the cold",
  loaded: "by loaded filters",
  low: "by a low tank",
  slope: "by the slope",
  load: "by full load",
};

const shortages: Record<Shortage, string> = {
  vapour: "the fuel would boil",
  pumpSuction: "the pump cannot draw more",
  pumpCapacity: "the pump cannot give more",
  pumpRise: "the pump cannot lift so high",
  air: "air is drawn in",
};

function jetWords(v: ValuesOf<"jetDraws">, say: Say): Words {
  const moved = `Driven by ${say.flow(v.driveM3S)} in ${v.lineUp}`;
  switch (v.code) {
    case "pushesBack":
      return [
        `${v.part} pushes ${say.flow(-v.drawM3S)} back out of its draw port`,
        `${moved}: what leaves cannot get away by its outlet.`,
        "It empties what it should keep full.",
        "A shorter or larger outlet, less lift behind it, or a larger throat.",
      ];
    case "lessThanBurn":
      return [
        `${v.part} draws ${say.flow(v.drawM3S)}, ${say.flow(v.burnM3S)} is burned`,
        `${moved}.${v.dryHours === null ? "" : ` A full well is dry after ${hours(v.dryHours)} once the fuel round it is away.`}`,
        "What is burned and not brought back is taken from the well.",
        "A smaller nozzle, a wider and shorter draw hose, or a throat to its maker's table.",
      ];
    case "onAir":
      return [
        `${v.part} stands ${say.length(v.liftM)} over the fuel`,
        `${moved} it draws ${say.flow(v.drawM3S)} once its draw hose is full.`,
        "A jet hardly lifts air: with its draw hose empty it does not begin.",
        "Set it at the floor of the tank, or fill its draw hose first and keep a check valve at its foot.",
      ];
  }
}

/** What takes most of a suction. */
const worst = ({ worstId, worstShare }: { worstId: string; worstShare: number }, say: Say) =>
  worstId ? `${say.name(worstId)} takes ${Math.round(worstShare * 100)} % of it.` : "";

export const flow: Sentences<
  | "noOpenPath"
  | "deadHead"
  | "againstArrow"
  | "starved"
  | "worstLimit"
  | "notJoined"
  | "neverUsed"
  | "openPorts"
  | "drawsAir"
  | "returnElsewhere"
  | "returnCanClose"
  | "feedsJoined"
  | "noShutOff"
  | "gravityOverfills"
  | "transferOverfills"
  | "jetDraws"
  | "suctionOverLimit"
  | "suctionClean"
  | "freeAir"
  | "feedPressure"
  | "cannotHold"
  | "cannotLiftDry"
  | "bleedLeavesAir"
  | "crestHoldsAir"
  | "screwDrawsAir"
  | "spareOpen"
  | "otherSchool"
  | "primingBlocks"
  | "pumpAboveFilters"
> = {
  noOpenPath: (v) => [
    `${v.lineUp}: no way from a tank to ${v.consumer}`,
    "Every way is shut, uncovered or missing.",
    "The engine stops, and a pump that fuel lubricates runs dry.",
    "Open the valves of one tank, or connect what is missing.",
  ],
  deadHead: (v, say) => [
    `${v.pump} pumps against a shut way`,
    `It stands at ${say.gauge(v.deadHeadPa)} without a relief.`,
    "A pump without relief heats the fuel in it and loads every joint after it.",
    "Open a way for it, switch it off in this line-up, or give it a relief.",
  ],
  againstArrow: (v, say, finding) => [
    `${v.part || say.name(finding.ids[0] ?? "")} stands against the flow`,
    `Its arrow points the other way in ${v.lineUp}.`,
    "A check valve or pump the wrong way round lets nothing through; a filter filters from the wrong side.",
    "Turn the part end for end.",
  ],
  drawsAir: (v, say, finding) => [
    `${v.lineUp}: ${v.consumer} draws air beyond ${say.flow(v.mostM3S)}`,
    `It asks ${say.flow(v.feedM3S)}; a mouth of ${say.name(finding.ids[1] ?? "")} is clear of fuel and joined to its suction.`,
    "A clear mouth lets air in as soon as the join stands under suction: the other tank feeds, and the engine stops all the same.",
    "Shut the way of the tank that is low, a check valve in each feed, or less suction at the join.",
  ],
  starved: (v, say, finding) => [
    `${v.lineUp}: ${v.consumer} is starved`,
    v.mostM3S === null
      ? `${capital(shortages[v.cause])} on the way.`
      : `Asks ${say.flow(v.feedM3S ?? 0)}, can have ${say.flow(v.mostM3S)}: ${shortages[v.cause]} at ${say.name(finding.ids[1] ?? "")}.`,
    "What the line cannot bring, the engine does not get; vapour and air stop it first under load.",
    "A larger bore, a cleaner or larger filter, a lower lift, or a pump nearer to the tank.",
  ],
  returnElsewhere: (v, say) => [
    fillings[v.cause](v),
    `${v.to} gains ${say.flow(v.flowM3S)}${v.fullHours === null ? ", and does not overflow within two days" : `, and overflows after ${hours(v.fullHours)}`}${v.emptyHours === null ? "" : `; what it is drawn from starves after ${hours(v.emptyHours)}`}.`,
    "Fuel taken from one tank and put in another overfills it through its vent, and starves the engine from the first.",
    v.cause === "return"
      ? `Set the return to ${v.from} in this line-up, or mark it as an intended transfer.`
      : "Shut what joins the two in this line-up, or mark it as an intended transfer.",
  ],
  returnCanClose: (v) =>
    v.oneMove === 1
      ? [
          `${v.valve}: one movement shuts the return`,
          "One handle shut closes the return with the engine running.",
          "A shut return lifts the pressure in the injection system's return until something gives.",
          "Use a valve without a shut position, or place the handle so that it cannot be left shut.",
        ]
      : [
          `${v.lineUp}: the return is shut`,
          "No open way from the engine's return to any tank.",
          "A shut return lifts the pressure in the injection system's return until something gives.",
          "Open a way from the return to a tank before the engine runs.",
        ],
  feedsJoined: (v, say) => [
    `${v.lineUp} joins ${v.tanks}`,
    `${v.crossM3S > 0 ? `${say.flow(v.crossM3S)} crosses over now. ` : ""}No check valve or selector parts them.`,
    "The fuller tank runs into the lower one, and a tank that empties lets air into both.",
    "One tank at a time, or a check valve in each feed.",
  ],
  noShutOff: (v, say) => [
    `${v.tank} drains ${say.volume(v.lostM3)} if its line is cut`,
    v.shutOffAtM === null
      ? "No shut-off on its line."
      : `The first shut-off is ${say.run(v.shutOffAtM)} of hose away.`,
    "A line that is cut or comes off empties the tank by its own weight.",
    "A shut-off valve on the tank itself, reachable.",
  ],
  gravityOverfills: (v, say) => [
    `${v.tank} can overfill by gravity in ${v.lineUp}`,
    `The higher surface stands ${say.length(v.overM)} over its vent; ${say.flow(v.intoM3S)} runs in.`,
    "It goes on running when no one looks, out of the vent.",
    "A valve that is shut when no one stands by, or the lower vent led higher.",
  ],
  transferOverfills: (v, say) => [
    `${v.lineUp} fills ${v.tank} in ${hours(v.fullHours)} and goes on`,
    `It has room for ${say.volume(v.roomM3)}; ${say.flow(v.gainM3S)} comes in, and there is more where it comes from.`,
    "A pump knows no full tank: fuel comes out of the vent.",
    `Somebody stands by, stops it before ${hours(v.fullHours)}, or a switch by time or level does.`,
  ],
  jetDraws: (v, say) => jetWords(v, say),
  suctionOverLimit: (v, say) => [
    `${v.pump}: ${say.vacuum(v.vacuumPa)} of vacuum, limit ${say.vacuum(v.limitPa)}`,
    `In ${v.lineUp}. ${worst(v, say)}`,
    "Beyond the limit the pump loses flow, air comes out of the fuel and the engine hunts or stops.",
    "Change the element, or a larger bore where most is lost.",
  ],
  worstLimit: (v, say) => [
    `${v.part}: ${say.vacuum(v.vacuumPa)} of vacuum at the worst of the site, limit ${say.vacuum(v.limitPa)}`,
    `In ${v.lineUp}; most of it ${worstCauses[v.cause]}.`,
    "It is within now, and will not be on the day that everything comes together.",
    "A larger bore or filter where most is lost, an earlier change of the element, or more fuel kept aboard.",
  ],
  notJoined: (v) => [
    `${v.part} is not joined yet`,
    "Its ports hang loose: nothing is judged by it.",
    "What is drawn and not joined is bought, fitted and forgotten.",
    "Join it, or take it out.",
  ],
  openPorts: (v, say) => [
    v.count === 1
      ? `${v.part}: ${v.port} stands open`
      : `${v.part}: ${v.port} and ${v.count - 1} more stand open`,
    v.pressurePa > 0
      ? `Fuel stands at it with ${say.gauge(v.pressurePa)}: it runs out.`
      : v.vacuumPa > 0
        ? `It lies under ${say.vacuum(v.vacuumPa)} of vacuum: it draws air.`
        : "No fuel stands at it: water and dirt come in, vapour comes out.",
    "The plan counts it as shut. Open, it spills or lets in air and water.",
    "A plug of its own thread, sealed as the thread wants; or join it, or take it off the tank.",
  ],
  neverUsed: (v) => [
    `No line-up sends fuel through ${v.part}`,
    "It is joined, and stands in no way.",
    "A part that no line-up uses is either spare, or its line-up has not been made.",
    "Make the line-up that uses it, or take it out.",
  ],
  suctionClean: (v, say) => [
    `${v.pump}: ${say.vacuum(v.vacuumPa)} with clean filters, ${say.vacuum(v.limitPa)} is wanted`,
    `In ${v.lineUp}. ${worst(v, say)}`,
    "What a clean system takes leaves no room for a filter to load before the limit.",
    "A larger bore where most is lost, or a larger filter.",
  ],
  freeAir: (v, say) => [
    `Air out of the fuel at ${v.pump}: ${percentText(v.freeAir)}, ${percentText(v.limit)} harms`,
    `In ${v.lineUp}, at ${say.vacuum(v.vacuumPa)} of vacuum, by the time that it stands in the line.`,
    "Under vacuum fuel gives off the air it held: the pump loses its prime over a hump, an injection pump stumbles, a bowl fills with air. About 1 % shows in a clear line and goes through.",
    "Less vacuum: a cleaner filter, a larger bore, less lift.",
  ],
  feedPressure: (v, say) => [
    v.code === "lowAtWorst"
      ? `${v.part} is fed at ${say.gauge(v.feedPa)} at the site's worst; its maker asks for at least ${say.vacuum(v.limitPa)}`
      : `${v.part} is fed at ${say.gauge(v.feedPa)}, its maker says ${v.code === "low" ? "at least" : "at most"} ${say.vacuum(v.limitPa)}`,
    v.code === "lowAtWorst"
      ? `In ${v.lineUp}, with cold fuel, loaded filters, low tanks and full load at once; it drops most ${worstCauses[v.cause as WorstCause]}, then ${worstCauses[v.second as WorstCause]}. It holds today.`
      : `In ${v.lineUp}, ${v.code === "low" ? "at full feed" : "at idle"}.`,
    v.code === "high"
      ? "Too much, and seals of the injection pump weep into the oil."
      : "Too little, and the injection pump hunts, foams its fuel and wears.",
    v.code === "lowAtWorst"
      ? "Use a larger bore or pump, change the filter elements earlier, or keep more fuel aboard."
      : v.code === "low"
        ? "Use a larger bore or pump, or change the filter."
        : "Fit a relief valve or regulator at the pump.",
  ],
  cannotLiftDry: (v, say) => [
    `${v.part} cannot lift its fuel when it is dry: ${say.length(v.needsM)} up, ${say.length(v.liftM)} is its most`,
    "A pump on air lifts less than one on fuel: what stands in its clearance swells. Generic by kind; the maker's dry lift goes first.",
    "After a filter change or an empty tank it runs dry and draws nothing.",
    "Lower the pump or the line, fill it by hand first, or a primer beside the tank.",
  ],
  bleedLeavesAir: (v, say) => [
    `${v.lineUp}: bled from dry, ${leftText(v.left)} of air stays`,
    whyNotText(v as WhyNot, say.name, say),
    "It comes loose under way, and the engine stumbles or stops.",
    "Open Bleed: it says where the air stays; mend that, and it is tried again.",
  ],
  crestHoldsAir: (v, say, { ids }) => [
    `${say.name(ids[0] ?? "")} climbs over a crest ${say.length(v.byM)} high with no joint on it`,
    `Fuel goes through it at ${say.speed(v.hadMS)}; air is carried down the far side from ${say.speed(v.needsMS)} on.`,
    "Air that gathers there stays when the line is bled, and comes loose in a seaway or on a slope.",
    "Lead it without the crest, put a joint or a bleed screw on it, or a smaller bore.",
  ],
  screwDrawsAir: (v, say) => [
    `${v.part} stands ${say.length(Math.max(0, v.overFuelM))} over the fuel, on the suction`,
    "Nothing pushes before it.",
    "Opened to bleed, it draws air in and lets none out; what was solid is spoiled.",
    "Bleed behind the pump, or a primer or bulb before it.",
  ],
  spareOpen: (v, say) => [
    `${v.part} stands valved off with its outlet open to the suction`,
    `Dry it holds ${say.pan(v.heldM3)}; at ${say.vacuum(v.vacuumPa)} of vacuum ${say.pan(v.drawnM3)} of that is drawn out, again at every start.`,
    "The engine stumbles hours after a bleed that was right, and nobody looks at the filter that is not in use.",
    "Fill it to the brim before it is left so, or a valve after it as well.",
  ],
  cannotHold: (v, say) => [
    `${v.part} cannot hold ${say.gauge(v.setPa)}`,
    "All the fuel has to pass it: the pressure after it does not answer.",
    "It only stands in the way, and whoever reads its setting trusts a pressure that is not there.",
    "Put it where less can flow: on the feed after the pump, or with a branch back to the tank before it.",
  ],
  otherSchool: (v, say, { ids }) => {
    const { name, choices, reason } = schoolTexts[v.matter as SchoolMatter];
    return [
      `${name}: this job's school is '${choices[v.choice] ?? v.choice}', the plan differs`,
      `At ${ids.map((id) => say.name(id)).join(", ")}.`,
      `The default's reason: ${reason.charAt(0).toLowerCase()}${reason.slice(1)}`,
      "Change the plan, or the school in Survey, Fuel and site.",
    ];
  },
  primingBlocks: (v) => [
    `${v.part} shuts the line when it is off`,
    "",
    "The lift pump draws through a pump that stands still.",
    "A priming pump with a bypass, or one that flows freely unpowered.",
  ],
  pumpAboveFilters: (v, say) => [
    `${v.part} stands ${say.length(v.overM)} over the filters it draws through`,
    "",
    "When it stops, fuel falls back and the pump stands dry at the next start.",
    "Mount it below the filters.",
  ],
};
