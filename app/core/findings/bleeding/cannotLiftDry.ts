/**
 * Practice 9, dry: a pump that draws air lifts fuel only so high. Its line rises higher over the fuel than the pump lifts
 * when it is dry, so that it cannot prime itself. Clearance generic by kind, common practice; the maker's dry lift goes
 * first. Law: laws/dryLift.ts.
 */
import { atmospherePa, fuelAt } from "../../fuel/fuel";
import { clearanceOf, DRY_CHECK_PA } from "../../hydraulics/clearance";
import { dryVacuumPa, liftM } from "../../laws/dryLift";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const cannotLiftDry = rule({
  id: "cannotLiftDry",
  practice: [9],
  place: "bleed",
  judge: ({ job, plan, verdicts }) => {
    const air = atmospherePa(job.site.altitudeM);
    const fuel = fuelAt(job.fuel, plan.conditions.fuelC);
    if (!fuel) return [];
    return plan.parts.flatMap((part) => {
      const ratio = clearanceOf(part);
      const mostM = liftM(dryVacuumPa({ ratio }, air, air, DRY_CHECK_PA), fuel.densityKgM3);
      const over = verdicts.flatMap(({ lineUp, way, result }) => {
        if (way?.firstPumpId !== part.id || result.outcome !== "solved") return [];
        const pump = way.stations.find(({ id }) => id === part.id);
        const tank = way.stations[0];
        const surfaceM = tank && result.settings.surfaceM.get(tank.id);
        if (!pump || surfaceM === undefined) return [];
        const before = way.legs
          .filter(({ side }) => side === "feed")
          .flatMap(({ points }) => points)
          .filter(({ atM }) => atM <= pump.atM);
        const liftNeededM = Math.max(pump.zM, ...before.map(({ zM }) => zM)) - surfaceM;
        return liftNeededM > mostM ? [{ id: lineUp.id, liftNeededM }] : [];
      });
      if (over.length === 0) return [];
      const needsM = Math.max(...over.map(({ liftNeededM }) => liftNeededM));
      return [
        onPart({
          grade: "mend",
          part,
          lineUpIds: over.map(({ id }) => id),
          values: { needsM, liftM: mostM },
          figure: needsM / mostM,
        }),
      ];
    });
  },
});
