/** How far a job pitches and rolls when nobody has said. */
import type { Job } from "./types";

/** Common practice, no source: a work boat in a seaway, a truck on a hill and a camber, a parked van. */
const common: Readonly<Record<Job["kind"], { pitchDeg: number; rollDeg: number }>> = {
  boat: { pitchDeg: 6, rollDeg: 15 },
  truck: { pitchDeg: 12, rollDeg: 8 },
  heater: { pitchDeg: 5, rollDeg: 5 },
  other: { pitchDeg: 10, rollDeg: 10 },
};

export const envelopeOf = (job: Pick<Job, "kind" | "site">): { pitchDeg: number; rollDeg: number } =>
  job.site.envelope ?? common[job.kind];
