/** Sentences for circuits. */
import type { ValuesOf } from "~/core/findings/index";
import { formatNumber, percentText } from "~/core/units/format";
import type { Say, Sentences, Words } from "./say";

const amperes = (value: number) => `${formatNumber(value)} A`;

function wireWords(v: ValuesOf<"wireWrong">, say: Say): Words {
  const { part } = v;
  const least =
    v.leastAreaM2 !== null ? `Wire of ${say.leastWire(v.leastAreaM2)}.` : "Shorter wire, or a relay near it.";
  switch (v.code) {
    case "fuseOverWire":
      return [
        `${part}: a fuse of ${amperes(v.fuseA)} on wire that bears ${amperes(v.bearsA)}`,
        "",
        "The wire burns before the fuse does.",
        `A smaller fuse where the load allows it, or thicker wire. ${least}`,
      ];
    case "fuseUnderLoad":
      return [
        `${part}: a fuse of ${amperes(v.fuseA)} under a peak of ${amperes(v.peakA)}`,
        "",
        "It blows as the load starts.",
        "A fuse over the peak, and wire that bears the fuse.",
      ];
    case "drop":
      return [
        `${part}: its wire loses ${percentText(v.dropShare)} of the volts, ${percentText(v.allowedShare)} is allowed`,
        "",
        "A pump short of volts gives less fuel, and a heater faults.",
        least,
      ];
  }
}

export const electric: Sentences<"triggerOverloaded" | "wireWrong"> = {
  triggerOverloaded: (v) => [
    `${v.part} draws ${amperes(v.runA)} through a circuit for ${amperes(v.triggerA)}`,
    "",
    "A factory circuit that is overloaded faults or burns at the first cold start.",
    "A relay, and a fused supply of its own from the battery.",
  ],
  wireWrong: wireWords,
};
