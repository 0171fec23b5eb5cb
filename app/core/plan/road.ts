/** What goes by road and what floats: other words, other hoses, other ways to get at a part. */
import type { Job } from "./types";

export const goesByRoad = (kind: Job["kind"]): boolean => kind === "truck" || kind === "heater";
