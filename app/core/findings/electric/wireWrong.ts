/**
 * Practice 46: a fuse over what its wire bears or under what it must carry, and a drop over 10 % (3 % for heaters).
 * Common practice; what wire bears after ISO 10133 (from memory).
 */
import { circuitFigures, circuitOf, supplyVolts } from "../../circuits/circuit";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const wireWrong = rule({
  id: "wireWrong",
  practice: [46],
  place: "prove",
  judge: ({ job, plan }) =>
    [...plan.parts, ...job.consumers].flatMap((part) => {
      const circuit = circuitOf(part);
      if (!circuit) return [];
      const figures = circuitFigures(circuit, supplyVolts(job), part.kind === "heater");
      const { fuseA, peakA } = circuit;
      const found = (code: "fuseOverWire" | "fuseUnderLoad" | "drop", figure: number) =>
        onPart({
          grade: "mend",
          part,
          also: [code],
          basis: code === "fuseOverWire" ? "standard" : "common",
          values: {
            code,
            fuseA,
            peakA,
            bearsA: figures.wireBearsA,
            dropShare: figures.dropShare,
            allowedShare: figures.allowedShare,
            leastAreaM2: figures.leastAreaM2,
          },
          figure,
        });
      return [
        ...(fuseA > figures.wireBearsA ? [found("fuseOverWire", fuseA - figures.wireBearsA)] : []),
        ...(fuseA < peakA ? [found("fuseUnderLoad", peakA - fuseA)] : []),
        ...(figures.dropShare > figures.allowedShare ? [found("drop", figures.dropShare)] : []),
      ];
    }),
});
