/**
 * Practice 32, 33, 34, 52: how a joint was made. Washers new, two for one eye and three for a double, never one on an old
 * one; stainless in stainless or aluminium with anti-seize; a clamp behind the bead, clear of the hose's end; a taper thread
 * that comes tight where handles and hoses can go. Told where somebody looked and it was wrong; galling also before.
 */
import { type JointLookFor, looksOf, planJoints } from "../../joints/joints";
import { INCH_M } from "../../units/factors";
import type { Grade } from "../rule";
import { rule } from "../rule";

/** From the hose's end: 1/4 in, ABYC kind, from memory. */
const CLAMP_EDGE_M = 0.25 * INCH_M;

const gradeOf: Record<JointLookFor, Grade> = {
  newWashers: "mend",
  antiSeize: "mend",
  clampPlaced: "watch",
  clocked: "mend",
};

export const jointMade = rule({
  id: "jointMade",
  practice: [32, 33, 34, 52],
  place: "parts",
  judge: ({ job, plan }) =>
    planJoints(job, plan).flatMap((joint) =>
      looksOf(joint).flatMap((look) => {
        const seen = plan.jointLooks?.[joint.key]?.[look];
        // What galls cannot be undone: it is told while it can still be greased.
        const isToldBefore = look === "antiSeize" && seen === undefined;
        if (seen !== false && !isToldBefore) return [];
        return [
          {
            grade: isToldBefore ? ("watch" as const) : gradeOf[look],
            ids: [joint.a.id],
            lineUpIds: [],
            basis: look === "clampPlaced" ? ("standard" as const) : ("common" as const),
            about: `${joint.key} ${look}`,
            values: {
              joint: joint.a.name,
              code: look,
              edgeM: CLAMP_EDGE_M,
              washers: joint.joined?.fit === "seals" ? joint.joined.washers : (joint.chain?.washers ?? 0),
            },
            figure: null,
          },
        ];
      }),
    ),
});
