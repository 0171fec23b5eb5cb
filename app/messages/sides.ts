/** The sides of a vehicle: a boat has bow, port and starboard; what goes by road has a front, a left and a right. */
import { goesByRoad } from "~/core/plan/road";
import type { Job } from "~/core/plan/types";

interface SideWords {
  front: string;
  port: string;
  starboard: string;
}

export const sideWords = (kind: Job["kind"]): SideWords =>
  goesByRoad(kind)
    ? { front: "front", port: "left", starboard: "right" }
    : { front: "bow", port: "port", starboard: "starboard" };
