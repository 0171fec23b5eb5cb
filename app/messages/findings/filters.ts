/** Sentences for filters, gauges and sensors. */
import type { ValuesOf } from "~/core/findings/index";
import { HOUR_S, LITRE_M3 } from "~/core/units/factors";
import { formatNumber } from "~/core/units/format";
import { counted } from "../counted";
import { minutesText, serviceStepTexts } from "../service";
import { capital, type Sentences } from "./say";

const gaugePlaces: Record<ValuesOf<"gaugePlace">["code"], string> = {
  afterPump: "a vacuum gauge after the pump reads pressure",
  beforeFilter: "before the filter it does not see the filter load",
  beforePump: "a pressure gauge before the pump reads vacuum",
  beforeLastFilter: "before the last filter it does not see that filter load",
};

const stagings: Record<ValuesOf<"filterStaging">["code"], string> = {
  coarseAfterFine: "a coarser medium stands after a finer one",
  fineBeforePump: "the finest medium stands on the suction side",
  fineAfterPump: "no fine medium stands before the pump",
  anyBeforePump: "a medium stands before the pump",
};

export const filters: Sentences<
  | "changeSlow"
  | "filterTooSmall"
  | "filterStaging"
  | "elementMissing"
  | "sparePorts"
  | "sensorLate"
  | "waterSensorHigh"
  | "pumpUnscreened"
  | "gaugeOverLimit"
  | "gaugePlace"
  | "flowGuessed"
  | "bulbPlace"
  | "burnUnlikely"
> = {
  changeSlow: (v, say) => [
    v.code === "spills"
      ? `${v.part}: its change spills ${say.pan(v.spilledM3)}`
      : `${v.part}: its change takes ${minutesText(v.seconds)}, a quarter of an hour is the aim`,
    `${minutesText(v.seconds)} in all; dearest: ${serviceStepTexts[v.dearest]}, ${minutesText(v.dearestS)}.`,
    "What is awkward in the yard is not done under way; what is spilled stays and burns.",
    v.code === "spills"
      ? "Room for a larger cup under it, or drain it in two goes."
      : "Free its rooms, a second filter beside it, a pump that fills it.",
  ],
  burnUnlikely: (v, say) => {
    const [burn, least, most] = [v.burnLH, v.leastLH, v.mostLH].map((lh) =>
      say.flow((lh * LITRE_M3) / HOUR_S),
    );
    return [
      `${v.part} is said to burn ${burn}; its power takes ${least} to ${most}`,
      `At full load, by what engines of its fuel take for a kilowatt hour; ${formatNumber(v.powerW / 1000, 2)} kW is entered.`,
      "Range, run time and what comes back by the return all follow from it.",
      "Look both up on the maker's sheet; one of the two is another engine's.",
    ];
  },
  filterTooSmall: (v, say) => [
    `${v.filter} passes ${say.flow(v.flowM3S)}, rated ${say.flow(v.ratedFlowM3S)}`,
    "The whole feed passes the filter, not the burn alone.",
    "Above its rating a separator lets water through and its drop grows out of proportion.",
    "A larger element, two in parallel, or less flow in this line-up.",
  ],
  filterStaging: (v) => [
    `${v.part}: ${stagings[v.code]}`,
    v.code === "coarseAfterFine"
      ? `${formatNumber(v.micron)} micron after ${v.other}.`
      : `${formatNumber(v.micron)} micron.`,
    "A fine medium first blocks first; on the suction side it costs vacuum, after a pump water is sheared finer.",
    "Coarse before fine along the flow, the finest where your school has it.",
  ],
  waterSensorHigh: (v, say) => [
    `${v.part}: its sensor warns when ${say.pan(v.heldM3)} of the ${say.pan(v.volumeM3)} bowl are water`,
    "It sits at the top of the bowl.",
    "Water is carried on to the engine before it warns.",
    "A sensor lower in the bowl, or a check of the figure on its sheet.",
  ],
  pumpUnscreened: (v) => [
    `${v.part} draws from the bottom of ${v.tank} with nothing before it`,
    "The screens of the factory's pickup went with it.",
    "Dirt, and chips of the cut, go through the pump first.",
    "A coarse filter or strainer before the pump.",
  ],
  gaugeOverLimit: (v, say) => [
    `${v.part}: change its element now, ${v.gauge} read ${say.vacuum(v.readPa)}`,
    `The limit is ${say.vacuum(v.limitPa)}.`,
    "Over it the engine loses power, and the pump draws air through joints that hold otherwise.",
    "Change the element, bleed, and read the gauge clean; a reading that stays is a hose, a valve or a mouth that is blocked.",
  ],
  elementMissing: (v) => [
    `${v.part} has no element`,
    "A line-up powers a pump.",
    "Fuel, and what is in it, goes straight to the injection system; an open head is a spill.",
    "Fit an element before anything is powered. Eye protection on, pan under it.",
  ],
  sparePorts: (v) => [
    `${v.part}: ${counted(v.count, "spare port")} not plugged`,
    "",
    "An open port on the suction side draws air, on the pressure side it spills.",
    "Plugs with the thread's own sealant, snug and not more.",
  ],
  sensorLate: (v, say) => [
    `${v.part} warns after ${say.pan(v.heldM3)} of water`,
    "An earlier bowl fills first.",
    "Water is carried on before anyone is warned.",
    "A sensor in the first bowl that water reaches.",
  ],
  gaugePlace: (v) => [
    `${v.part} stands in the wrong place`,
    `${capital(gaugePlaces[v.code])}.`,
    "Readings mean something only where all that can block lies on one side of the gauge.",
    "Vacuum: between the first filter and the lift pump. Pressure: after the last filter.",
  ],
  flowGuessed: (v) => [
    `Which way fuel goes through ${v.part} was guessed`,
    "",
    "A head the wrong way round passes dirt to the clean side.",
    "Find its arrow, the maker's sheet, or which side leads to the outer face of the element.",
  ],
  bulbPlace: (v) =>
    v.code === "notForDiesel"
      ? [
          `${v.part} is not rated for diesel`,
          "",
          "Diesel swells common bulbs, and their valves stick: the engine starves or draws air.",
          "A priming pump with a bypass, a lever, or a bulb that is rated for diesel.",
        ]
      : [
          `${v.part} stands after the filter`,
          "",
          "Squeezed there it draws through the filter and fills it badly.",
          "Between tank and filter, arrow to the engine, upright as it is squeezed.",
        ],
};
