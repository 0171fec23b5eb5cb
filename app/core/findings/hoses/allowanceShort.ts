/** Practice 35: no hose to spare at barbs that grow to it: 150 mm a run is wanted. Common practice. */
import { COMMON_SERVICE_ALLOWANCE_M } from "../../plan/blank";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const allowanceShort = rule({
  id: "allowanceShort",
  practice: [35],
  place: "parts",
  judge: ({ plan }) =>
    plan.runs.length > 0 && plan.serviceAllowanceM < COMMON_SERVICE_ALLOWANCE_M
      ? [
          onPart({
            grade: "watch",
            part: plan,
            values: { allowanceM: plan.serviceAllowanceM, leastM: COMMON_SERVICE_ALLOWANCE_M },
            figure: COMMON_SERVICE_ALLOWANCE_M - plan.serviceAllowanceM,
          }),
        ]
      : [],
});
