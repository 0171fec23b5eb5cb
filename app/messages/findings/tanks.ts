/** Sentences for tanks as they were surveyed. */
import type { ValuesOf } from "~/core/findings/index";
import type { HoleUse, SchoolChoice, Tank } from "~/core/plan/types";
import { percentText } from "~/core/units/format";
import { counted } from "../counted";
import { capital, hours, type Say, type Sentences, type Words } from "./say";

const holeUses: Record<HoleUse | "sump", string> = {
  sender: "sender's hole",
  pickup: "pickup's hole",
  return: "return's hole",
  vent: "vent's hole",
  spare: "spare hole",
  sampling: "sampling hole",
  sump: "sump's hole",
};

const jars: Record<ValuesOf<"fuelFouled">["sign"], string> = {
  growth: "growth in the jar",
  emulsion: "an emulsion in the jar",
  water: "free water in the jar",
  haze: "haze in the jar",
};

const cleanings: Record<SchoolChoice<"dirtyTank">, string> = {
  stripWipePolish: "strip it, open and wipe the tank, then polish",
  polishOnly: "polish it over a fine medium until the jar is clear",
  discard: "discard it by the local rules, and refill",
};

const lifted: Record<HoleUse, string> = {
  sender: "sender",
  pickup: "pickup",
  return: "return",
  vent: "vent",
  spare: "plug",
  sampling: "sampling tube",
};

const means: Record<NonNullable<Tank["droppedBy"]>, string> = {
  hands: "one pair of hands",
  twoPeople: "two people",
  cradleAndJack: "a cradle and jack",
};

const narrow = { fillBore: "fill pipe", fillHose: "fill hose", ventBore: "vent" } as const;

function holeWords(v: ValuesOf<"plateHole">, say: Say): Words {
  const at = `${v.tank}, ${holeUses[v.use]}`;
  const by = say.length(v.byM ?? 0);
  const why = "A flange seals only on sound, flat metal all round it.";
  switch (v.code) {
    case "largerThanFlange":
      return [
        `${at}: ${by} larger than its flange covers`,
        "",
        why,
        "The next smaller saw, kept square; or a fitting with a wider flange.",
      ];
    case "noSaw":
      return [
        `${at}: no saw cuts it`,
        "No saw between its size and what the flange covers.",
        why,
        "Choose a fitting whose hole a saw cuts.",
      ];
    case "nearEdge":
      return [`${at}: ${by} too near the plate's edge`, "", why, "Move it in from the edge."];
    case "nearHole":
      return [
        `${at}: ${by} of metal to the next hole`,
        "The flanges would lie over each other.",
        why,
        "Move them apart.",
      ];
    case "nearBaffle":
      return [`${at}: ${by} too near a baffle`, "", why, "Move it clear of the baffle and its weld."];
    case "swingFouls":
      return [
        `${at}: the float fouls by ${by}`,
        "",
        "A float that touches sticks, and the gauge lies.",
        "Turn the sender, or move its hole.",
      ];
  }
}

/** What a line of a tank is called, and what a sag in it does. */
const tankLines: Record<ValuesOf<"tankLine">["use"], { name: string; sag: string }> = {
  fill: {
    name: "fill line",
    sag: "What stays in it comes back over the lip, and eats at the hose from inside.",
  },
  vent: {
    name: "vent line",
    sag: "Fuel stands in it and shuts the air off: the pump clicks out, and the feed is starved.",
  },
  drain: {
    name: "drain line",
    sag: "Water and dirt stay in it and freeze, and the tank is never drained clean.",
  },
};

function tankLineWords(v: ValuesOf<"tankLine">, say: Say): Words {
  const { name, sag } = tankLines[v.use];
  const at = `${v.part}, ${name}`;
  switch (v.code) {
    case "holds":
      return [
        `${at}: a sag holds ${say.volume(v.volumeM3)}`,
        `It is ${say.length(v.byM)} deep, as the vehicle stands.`,
        sag,
        v.use === "drain" ? "A fall all the way to its mouth." : "A fall all the way back to the tank.",
      ];
    case "wrongWay":
      return [
        `${at} falls ${say.length(v.byM)} the wrong way`,
        "",
        sag,
        v.use === "drain"
          ? "Its mouth lower than the tank's fitting."
          : "Its outer end higher than the tank's fitting.",
      ];
    case "flat":
      return [
        `${at} lies nearly level`,
        `It falls ${percentText(v.fall)} where it falls least.`,
        "A hose sags between its clips by as much, and holds fuel there.",
        "Two in a hundred or more, and clips closer together.",
      ];
    case "oneClamp":
      return [
        `${at}: one clamp at an end`,
        "",
        "A fill hose that comes off pours a tank's filling under the floor.",
        "Two clamps at each end, behind the bead, screws apart.",
      ];
    case "petrolDrain":
      return [
        `${at}: a petrol tank has no drain`,
        "",
        "A drain that weeps or is knocked open empties petrol where its vapour gathers.",
        "Close the opening at the tank, and pump it out from above. Licensed work where the law says so.",
      ];
  }
}

function ventWords(v: ValuesOf<"ventLow">, say: Say): Words {
  const { tank } = v;
  switch (v.code) {
    case "spillsFirst":
      return [
        `${tank}: the vent spills before the fill at heel`,
        `Its top lies ${say.length(v.figure)} under the fill's lip at the worst of the envelope.`,
        "Fuel runs out of the vent, where no one looks.",
        "Lead the vent's loop higher, or to the other side.",
      ];
    case "dip":
      return [
        `${tank}: the vent line has a dip`,
        "",
        "Fuel lies in it and shuts the air off.",
        "A fall all the way back to the tank.",
      ];
    case "brimPressure":
      return [
        `${tank}: ${say.gauge(v.figure)} at the bottom when filled to the lip`,
        `${say.gauge(v.limit ?? 0)} is the most at fill, 80 % of its rating.`,
        "A high fill pipe presses on the tank with all its height.",
        "A lower fill, or a tank rated for it.",
      ];
    case "noArrester":
      return [
        `${tank}: no flame arrester in the vent`,
        "",
        "Petrol's vapour stands at the vent's end.",
        "An arrester that can be cleaned. Licensed work where the law says so.",
      ];
    case "fillBore":
    case "fillHose":
    case "ventBore":
      return [
        `${tank}: ${narrow[v.code]} ${say.bore(v.figure)} inside, ${say.bore(v.limit ?? 0)} is the least`,
        "",
        "Too narrow, it blows back when it is filled.",
        "The next larger bore.",
      ];
  }
}

export const tanks: Sentences<
  | "tankCapacity"
  | "fuelFouled"
  | "fuelWaxes"
  | "tankHeavy"
  | "plateHole"
  | "noRoomAbove"
  | "noWayOut"
  | "pickupClearance"
  | "sumpHangs"
  | "ventLow"
  | "tankLine"
  | "standingWater"
  | "cleaningTaken"
  | "warningGone"
  | "gaugeEmpty"
  | "mouthOutside"
  | "noStripping"
  | "sloshing"
  | "returnNearPickup"
  | "returnHot"
  | "lubricatedLow"
> = {
  tankCapacity: (v, say) => [
    `${v.tank} measures ${say.volume(v.measuredM3)}, its plate says ${say.volume(v.plateM3)}`,
    "Further apart than plates are rounded.",
    "Levels, dip table and hours are computed from the measured shape: one wrong size moves them all.",
    "Measure its sizes again, and say whether they were taken inside or outside.",
  ],
  tankHeavy: (v, say) => [
    `${v.tank} weighs ${say.mass(v.allKg)} to drop`,
    `${capital(means[v.means])} is good for ${say.mass(v.mostKg)}: drain ${say.volume(v.drainM3)} first.`,
    "A tank that slips crushes, spills, and tears the lines it still hangs on.",
    "Drain it first, or use a cradle and jack. Never lie under a tank on straps alone.",
  ],
  plateHole: holeWords,
  noRoomAbove: (v, say) => [
    `${v.tank}: no room to lift the ${lifted[v.use]} out`,
    `${say.length(v.byM)} more is needed above the plate.`,
    "A sender or pickup that cannot be lifted out is never serviced.",
    "Turn the plate, shorten or fold the part, or cut a hatch over it.",
  ],
  noWayOut: (v, say) => [
    `${v.tank} does not come out through its hatch`,
    [
      v.shortM > 0 && `${say.length(v.shortM)} is lacking on the short side`,
      v.longM > 0 && `${say.length(v.longM)} on the long side`,
    ]
      .filter(Boolean)
      .join(", ")
      .concat("."),
    "A tank that cannot be lifted out is mended where it stands, or the floor is cut over it.",
    "A larger hatch, a tank in two halves, or an opening large enough to clean and mend it from inside.",
  ],
  pickupClearance: (v, say) => [
    `${v.tank}: pickup stands ${say.length(v.clearM)} over the floor`,
    `A ${v.mouth} mouth needs ${say.length(v.leastM)}.`,
    "Nearer than that the mouth throttles itself, or sits on the floor when the tank settles.",
    "Shorten the tube, or bevel or notch its mouth. Measure with the tank hung as when full.",
  ],
  sumpHangs: (v, say) => [
    `${v.tank}: sump ${say.length(v.clearM)} over the ground`,
    `${say.volume(v.lostM3)} runs out if it is struck off; ${say.length(v.leastM)} is wanted.`,
    "A sump is the lowest thing on the vehicle and meets the kerb first.",
    "A guard that takes the blow, or a shallower sump.",
  ],
  tankLine: tankLineWords,
  ventLow: ventWords,
  fuelFouled: (v, _, { school = "" }) => [
    `${v.tank}: ${jars[v.sign]}`,
    v.count > 0 ? `${counted(v.count, "line-up")} ${v.count === 1 ? "feeds" : "feed"} from it.` : "",
    v.sign === "water"
      ? "Water lies at the pickup's foot: it stops an engine, rusts the injection system and feeds growth."
      : "What is in the jar is on its way to the filters, and through them to the injection system.",
    v.sign === "haze"
      ? "Let the jar stand a day, look again, and write it down."
      : v.sign === "water"
        ? "Draw it off at the lowest point until clear fuel comes, then polish; take another sample within two weeks, until two in a row are clear."
        : `Do not run on it: ${cleanings[school.split(":")[1] as SchoolChoice<"dirtyTank">] ?? cleanings.stripWipePolish}, and take another sample.`,
  ],
  fuelWaxes: (v, say) => [
    `At ${say.temperature(v.coldestC)} the fuel waxes: its cloud point is ${say.temperature(v.cloudC)}`,
    "Below the cloud point no flow or vacuum that is shown holds.",
    "Wax lies on the filter first, and the engine starves with fuel in the tank.",
    "Winter fuel or a cold-flow grade, a heater before the filter, or the tank and lines kept warmer; never petrol in it.",
  ],
  standingWater: (v) => [
    v.drains === "foam" ? `${v.tank} stands on open foam` : `Water stands under ${v.tank}`,
    "",
    "Metal that stays wet from below rots from outside in, where no one sees it.",
    "A channel that drains, strips or closed-cell pads that really bear, checked by hand all round.",
  ],
  cleaningTaken: (v) => [
    `${v.tank}: a sender's adapter has taken the cleaning opening`,
    "",
    "Growth and sludge are wiped out by hand through that opening.",
    "A plate with both, or a second opening.",
  ],
  warningGone: (v) => [
    `${v.tank}: nothing warns when it is full or low`,
    "The whistle, sight glass or gauge it had is gone.",
    "Filling goes by the ear and the eye; what warned before must be replaced by something that warns.",
    "Fit a whistle, a sight glass or a gauge, and say here which.",
  ],
  gaugeEmpty: (v, say) => [
    `${v.tank}: ${say.volume(v.atEM3)} left when the gauge says E`,
    "By shape and sender; not dipped yet.",
    "E is where the float stops, not where the fuel does: some run dry before it, some carry a reserve no one knows of.",
    "Dip the tank when the gauge first shows E, and enter the depth.",
  ],
  mouthOutside: (v, say) => [
    `${v.tank}: the mouth of ${v.port} lies ${say.length(v.byM)} beyond its ${v.beyond}`,
    "",
    "A mouth outside its tank draws nothing: level, dead fuel and the way to it are worked out for a place that is not there.",
    "Measure the mouth again from the tank's own corner, or the tank's shape.",
  ],
  noStripping: (v, say) => [
    `${v.tank}: nothing reaches its lowest point`,
    `${say.volume(v.hiddenM3)} lies under the lowest mouth.`,
    "Water and growth gather there and are seen only when the engine swallows them.",
    "A stripping tube to the lowest point at trim.",
  ],
  sloshing: (v, say) => [
    `${v.tank}: ${say.length(v.longM)} without a baffle`,
    v.across === 1 ? "Its long side lies across the vehicle." : "",
    "Fuel that sloshes uncovers the pickup and works the seams.",
    "Baffles, or its long side along the vehicle.",
  ],
  returnNearPickup: (v, say) => [
    `${v.tank}: return ${say.length(v.apartM)} from the pickup`,
    v.boxed === 1 ? "No baffle stands between the two." : `${say.length(v.leastM)} apart is wanted.`,
    "Hot, foaming return fuel goes straight back into the pickup.",
    "Move the return mouth away, or lead it into a swirl pot.",
  ],
  returnHot: (v, say) => [
    `${v.tank} reaches ${say.temperature(Math.round(v.hottestC))} from its return`,
    `Passes ${say.temperature(Math.round(v.limitC))} after ${hours(v.hours)} at full load on the hottest day.`,
    v.flash === 1
      ? "Over the fuel's flash point the space above it is to be treated as petrol's."
      : "Hot fuel is thin: pumps lose flow, seals harden, and the engine loses power.",
    "A cooler in the return, a larger tank to return to, or more fuel kept aboard.",
  ],
  lubricatedLow: (v, say) => [
    `${v.tank} is too low for ${v.part}`,
    `${say.volume(v.aboardM3)} aboard; air comes below ${say.volume(v.leastM3)} at the worst attitude. The rule of thumb is a quarter tank, ${say.volume(v.quarterM3)}.`,
    "Its injection pump is lubricated by fuel alone and seizes on air.",
    "Fill up, or a sump, well or second pickup.",
  ],
};
