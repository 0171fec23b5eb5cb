/** Practice 18: spare ports of a filter head that are not plugged. Common practice. */
import { joinedPorts, portsOf } from "../../plan/ports";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const sparePorts = rule({
  id: "sparePorts",
  practice: [18],
  place: "layout",
  judge: ({ plan }) => {
    const joined = joinedPorts(plan);
    return plan.parts.flatMap((part) => {
      if (part.kind !== "filter" || part.sparePorts?.plugged) return [];
      // Of a pair of like ports the ones that no hose is on.
      const unused = portsOf(part).filter(
        ({ id, sameAs }) => sameAs && !(joined.has(`${part.id}.${id}`) && joined.has(`${part.id}.${sameAs}`)),
      ).length;
      const count = (part.sparePorts?.count ?? 0) + unused;
      return count > 0 ? [onPart({ grade: "watch", part, values: { count } })] : [];
    });
  },
});
