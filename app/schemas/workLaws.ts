/** Laws of the work order as scripts call them. */
import { drained, siphonedM3 } from "~/core/order/litres";
import { criticalWay, finishMin, schedule } from "~/core/order/schedule";
import { areaM2 } from "~/core/units/bore";
import { LITRE_M3 } from "~/core/units/factors";
import { CalcFault, type Law, law } from "./law";
import { z } from "./zod";

const minutes = z.number().min(0).max(1e5);
const step = z.strictObject({
  id: z.string().min(1).max(60),
  workMin: minutes,
  waitMin: minutes,
  people: z.int().min(1).max(2),
  notBeforeMin: minutes,
  place: z.string().max(40),
  needs: z.array(z.string()).max(1000),
});
const metre = z.number().min(-100).max(100);
const MM = 1e-3;
const ML_M3 = LITRE_M3 / 1000;

export const workLaws: Readonly<Record<string, Law>> = {
  workSchedule: law(
    z.strictObject({
      steps: z.array(step).max(1000),
      placeHolds: z.record(z.string(), z.int().min(1).max(20)).default({}),
    }),
    ({ steps, placeHolds }) => {
      const ids = new Set(steps.map(({ id }) => id));
      if (ids.size !== steps.length) throw new CalcFault("steps", "duplicateId", { id: "" });
      steps.forEach(({ needs }, i) => {
        const stray = needs.find((need) => !ids.has(need));
        if (stray !== undefined) throw new CalcFault(`steps[${i}].needs`, "noSuch", { id: stray });
      });
      const critical = criticalWay(steps);
      if (!critical) throw new CalcFault("steps", "needsRound");
      const finish = (people: number) => finishMin(schedule(steps, people, placeHolds) ?? []);
      return { criticalMin: critical.minutes, finishMin: { "1": finish(1), "2": finish(2) } };
    },
  ),
  drained: law(
    z.strictObject({
      boreMm: z.number().positive().max(300),
      pointsM: z
        .array(z.tuple([z.number().min(0).max(1000), metre]))
        .min(2)
        .max(200),
      open: z.array(z.enum(["from", "to"])).max(2),
    }),
    ({ boreMm, pointsM, open }) => {
      const turned = pointsM.findIndex(([at], i) => i > 0 && at <= (pointsM[i - 1]?.[0] ?? 0));
      if (turned >= 0) throw new CalcFault(`pointsM[${turned}]`, "notRising");
      const { outM3, staysM3 } = drained(
        pointsM.map(([atM, zM]) => ({ atM, zM })),
        areaM2(boreMm * MM),
        open,
      );
      return { outMl: outM3 / ML_M3, staysMl: staysM3 / ML_M3 };
    },
  ),
  siphon: law(
    z.strictObject({
      boxM: z.tuple([z.number().positive(), z.number().positive(), z.number().positive()]),
      floorZM: metre,
      levelM: z.number().min(0),
      mouthM: z.number().min(0),
      openingZM: metre,
      shut: z.boolean(),
    }),
    ({ boxM: [long, wide, high], levelM, shut, ...rest }) => {
      if (levelM > high) throw new CalcFault("levelM", "tooLarge", { most: high });
      return { litres: siphonedM3(long * wide, { ...rest, levelM, isShut: shut }) / LITRE_M3 };
    },
  ),
};
