/** Where practice is divided: the matter, why the default is the default, and each school in words. */
import { type SchoolMatter, type Schools, schoolOf } from "~/core/plan/types";

export const schoolTexts: Readonly<
  Record<
    SchoolMatter,
    { name: string; reason: string; touches: string; choices: Readonly<Record<string, string>> }
  >
> = {
  returnMouth: {
    name: "Return mouth",
    reason: "Hot, foaming fuel has time to cool and settle before it is drawn again.",
    touches: "Findings on the return's place; a jet or swirl pot that is missing.",
    choices: {
      away: "away from the pickup, outside its box",
      jetOrSwirl: "into the pickup's well, through a jet or swirl pot",
    },
  },
  liftPump: {
    name: "Lift pump",
    reason: "It is reached and changed without opening the tank.",
    touches: "A finding where the plan's pump stands elsewhere.",
    choices: { frame: "on the frame or engine", inTank: "in the tank" },
  },
  priming: {
    name: "Priming",
    reason: "Nothing is opened and nothing is bridged.",
    touches: "How the pump is run in Bleed and on its card.",
    choices: {
      keyCycles: "key or switch cycles",
      relayJumper: "a jumper at the pump's relay",
      tankLifted: "a tank or can lifted",
      loosenedOutlet: "an outlet loosened",
    },
  },
  waterSensor: {
    name: "Water sensor",
    reason: "It warns with the least water on its way.",
    touches: "The finding on the sensor's place.",
    choices: { firstBowl: "in the first separator's bowl", factoryFilter: "kept at the factory filter" },
  },
  filterFill: {
    name: "Filling a new filter",
    reason: "Nothing unfiltered reaches the clean side.",
    touches: "How a new filter goes on, in Bleed and on its card.",
    choices: {
      finalDry: "the final filter goes on dry, primed through the primary",
      primaryByHand: "the primary filled by hand on its dirty side",
      bothByHand: "both filled by hand with filtered fuel",
    },
  },
  finest: {
    name: "Finest medium",
    reason: "Water is taken out before a pump shears it; the fine medium has a pump's push behind it.",
    touches: "The finding on how the media stand.",
    choices: {
      afterPump: "coarse on the suction side, 2 micron after the pump",
      beforePump: "2 micron before the pump",
      allAfterPump: "all media after the pump",
    },
  },
  factoryFilter: {
    name: "Factory filter",
    reason: "It is the last line of defence, and its water sensor still warns.",
    touches: "A finding where a block stands in its place against the school.",
    choices: {
      kept: "kept as last line of defence",
      removed: "removed, every circuit it carried led elsewhere",
      adapter: "an adapter for another cartridge in its place",
    },
  },
  takeOff: {
    name: "Tank take-off",
    reason: "A truck's sump strips water; a boat's tank has no outlet under its fuel.",
    touches: "A finding where a tank is drawn from otherwise.",
    choices: {
      byKind: "sump or bottom on trucks, top pickup in boats",
      drawStraw: "draw straw",
      inTankModule: "in-tank pump module",
      bottomWithShutOff: "bottom outlet with a shut-off at the tank",
    },
  },
  heaterFuel: {
    name: "Heater's fuel",
    reason: "A night's heat cannot leave the vehicle without fuel, and its fuel is known.",
    touches: "The finding on the heater's tank.",
    choices: {
      ownTank: "its own tank",
      vehicleAboveReserve: "the vehicle's tank, above a reserve",
      vehicleAll: "the vehicle's tank, low, taking all",
    },
  },
  primer: {
    name: "Primer",
    reason: "It needs no current and shows by its feel when fuel has come.",
    touches: "A finding where the plan has no such primer; the hands used in Bleed.",
    choices: {
      bulb: "bulb before the filter",
      electricBypass: "electric pump with a bypass",
      liftLever: "lift lever",
    },
  },
  joints: {
    name: "Joints",
    reason:
      "Under pressure a screwed flare holds; at low pressure a barb with two clamps is mended anywhere.",
    touches: "A finding where a part ends in another way.",
    choices: {
      flareAndBarb: "flare ends on pressure, barb and two clamps else",
      pushOnBarb: "push-on barb",
      pushToConnect: "push-to-connect",
    },
  },
  torque: {
    name: "Torque in aluminium banjos",
    reason: "The maker's figure goes before any other.",
    touches: "The torque to compare by, in Install.",
    choices: { makers: "maker's", lowerBySixth: "lower by a sixth, re-checked" },
  },
  dirtyTank: {
    name: "Dirty tank",
    reason: "What sticks to its walls is not polished away.",
    touches: "What is to be done when a jar shows growth.",
    choices: {
      stripWipePolish: "strip, open and wipe, then polish",
      polishOnly: "polish only",
      discard: "discard and refill",
    },
  },
  support: {
    name: "Supports",
    reason: "A hose held close does not chafe or sag.",
    touches: "The finding on clip spacing.",
    choices: {
      close: "close together, by the published spacing",
      wide: "twice as far where straight and light",
    },
  },
};

/** 'Priming: key or switch cycles', as the job chose or by default. */
export const schoolText = (schools: Schools, matter: SchoolMatter): string => {
  const { name, choices } = schoolTexts[matter];
  const choice = schoolOf(schools, matter);
  return `${name}: ${choices[choice] ?? choice}`;
};
