/** Visits of a diagnosis: what can be read or looked at in one go, and the minutes that it takes. */
import type { Diagnoser, ReadState, Visit } from "./diagnose";
import type { Look } from "./looks";

export type PlainVisit = Omit<Visit, "bits" | "ifThen">;

/** Minutes of each, with the way there. Common practice, no source. */
const stateMinutes: Readonly<Record<ReadState, number>> = { full: 3, idle: 2, stopped: 2, capOff: 4 };
const lookMinutes: Readonly<Record<Look, number>> = {
  bubbles: 6,
  puddle: 2,
  handlesRight: 2,
  mouthClear: 3,
  hissAtCap: 2,
};
/** A gauge is put in with a tee, and the line bled after it. */
const GAUGE_MINUTES = 12;

/** Everything that can be read of a line-up; ports of the feed each once, in the order of the way. */
export function visitsOf(diagnoser: Diagnoser): PlainVisit[] {
  const states = (Object.keys(stateMinutes) as ReadState[])
    .filter((state) => diagnoser.placesOf({ kind: "state", state }).length > 0)
    .map(
      (state): PlainVisit => ({ id: `read:${state}`, kind: "state", state, minutes: stateMinutes[state] }),
    );
  const gauges = new Set(diagnoser.placesOf({ kind: "state", state: "full" }).map(({ port }) => port));
  const consumerM = diagnoser.consumerM;
  const ports = [...diagnoser.portM]
    .filter(([port, atM]) => atM > 0 && atM <= consumerM && !gauges.has(port))
    .sort((a, b) => a[1] - b[1]);
  const placed = ports.filter(([, atM], i) => i === 0 || atM > (ports[i - 1]?.[1] ?? 0) + 1e-6);
  const looks: PlainVisit[] = [
    ...(["handlesRight", "hissAtCap", "mouthClear", "puddle"] as const).map(
      (look): PlainVisit => ({ id: `look:${look}`, kind: "look", look, minutes: lookMinutes[look] }),
    ),
    ...placed.map(
      ([port]): PlainVisit => ({
        id: `bubbles:${port}`,
        kind: "look",
        look: "bubbles",
        port,
        minutes: lookMinutes.bubbles,
      }),
    ),
  ];
  const put = placed.map(
    ([port]): PlainVisit => ({
      id: `gauge:${port}`,
      kind: "gauge",
      port,
      state: "full",
      minutes: GAUGE_MINUTES,
    }),
  );
  return [...states, ...looks, ...put];
}
