/**
 * Practice 41: what reaches a heater at its glow current against its window of volts, and its peak watts against what
 * the regulator gives. The window is the maker's; without it only the drop is judged (rule 46).
 */
import { circuitFigures, supplyVolts } from "../../circuits/circuit";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const heaterSupply = rule({
  id: "heaterSupply",
  practice: [41],
  place: "prove",
  judge: ({ job }) =>
    job.consumers.flatMap((part) => {
      const { heater, circuit } = part;
      if (part.kind !== "heater" || !heater || !circuit) return [];
      const volts = supplyVolts(job);
      const { peakDropV } = circuitFigures(circuit, volts, true);
      const atPeakV = volts - peakDropV;
      const peakW = circuit.peakA * volts;
      const most = job.site.supply?.regulatorPeakW;
      const found = (
        code: "low" | "high" | "regulator",
        values: { atPeakV?: number; limitV?: number; peakW?: number; mostW?: number },
        figure: number,
      ) =>
        onPart({
          grade: "mend",
          part,
          also: [code],
          basis: "maker",
          values: { code, ...values },
          figure,
        });
      return [
        ...(heater.leastV !== undefined && atPeakV < heater.leastV
          ? [found("low", { atPeakV, limitV: heater.leastV }, heater.leastV - atPeakV)]
          : []),
        ...(heater.mostV !== undefined && volts > heater.mostV
          ? [found("high", { atPeakV: volts, limitV: heater.mostV }, volts - heater.mostV)]
          : []),
        ...(most !== undefined && peakW > most
          ? [found("regulator", { peakW, mostW: most }, peakW - most)]
          : []),
      ];
    }),
});
