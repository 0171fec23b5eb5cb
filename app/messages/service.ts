/** Steps of an element change in words. */

import type { Job } from "~/core/plan/types";
import type { ServiceStepId } from "~/core/service/elementChange";
import type { ServiceStep } from "~/core/service/report";
import { HOUR_S } from "~/core/units/factors";
import { formatNumber } from "~/core/units/format";
import { hours } from "./findings/say";
import { nameOf } from "./notes";

export const serviceStepTexts: Record<ServiceStepId, string> = {
  openHatch: "open the hatch",
  layOut: "lay out pan, rag, gloves and seals, counted",
  switchOver: "switch over to the other filter",
  stopConsumer: "stop the engine",
  shutValve: "shut the valve before it",
  holdBack: "pinch the hose before it with flat jaws, or raise its end above the fuel",
  cupUnder: "cup under its drain",
  openVent: "open its vent",
  drainBowl: "drain it",
  unplugSensor: "unplug its sensor",
  spinOff: "spin the element off",
  liftLid: "lift the lid",
  liftElement: "lift the element out",
  cleanSeat: "wipe the seat clean",
  moveBowl: "move the bowl to the new element",
  newSeal: "new seal, oiled; the old one counted out",
  spinOn: "spin the new element on",
  openValve: "open the valve again",
  handFill: "fill it by hand, on its dirty side",
  setLid: "set the lid",
  plugSensor: "plug the sensor in",
  shutDrain: "shut the drain",
  prime: "fill it by the pump",
  shutVent: "shut the vent when no bubbles come",
  wipeLook: "wipe dry and look",
  idle: "run and look for a leak",
  writeDown: "write it down",
  closeHatch: "close the hatch",
};

/** Working time as a hand takes it: hours and minutes from an hour on, seconds under twenty minutes. */
export function minutesText(seconds: number): string {
  if (seconds >= HOUR_S) return hours(seconds / HOUR_S);
  const whole = Math.floor(seconds / 60);
  const rest = Math.round(seconds - whole * 60);
  if (whole === 0) return `${rest} s`;
  return whole < 20 && rest > 0 ? `${whole} min ${rest} s` : `${Math.round(seconds / 60)} min`;
}

/** A step of a change as it is read out: the valve or the engine by its name, the turns of what is spun on. */
export function serviceWords(job: Job, { step, of, turns }: ServiceStep): string {
  const [id = ""] = of;
  const text = serviceStepTexts[step];
  const named = ["shutValve", "openValve", "stopConsumer"].includes(step) ? `: ${nameOf(job, id)}` : "";
  const by = turns === undefined ? "" : `, ${formatNumber(turns)} turn after its seal touches`;
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}${named}${by}.`;
}
