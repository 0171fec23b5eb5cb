/** A joint that was wet when it was last looked at: a Stop until it is looked at again and dry. */

import { lastLooks } from "../../book/looks";
import { portKey } from "../../plan/ports";
import { onPart } from "../onPart";
import { rule } from "../rule";

export const jointWet = rule({
  id: "jointWet",
  practice: [],
  place: "install",
  judge: ({ book, plan, network }) =>
    [...lastLooks(book, plan.id).values()].flatMap(({ joint, result, at }) => {
      const port = network.ports.get(portKey(joint));
      if (result !== "wet" || !port) return [];
      const part = { id: joint.part, name: port.ownerName };
      return [onPart({ grade: "stop", part, values: { port: port.name, on: at.slice(0, 10) } })];
    }),
});
