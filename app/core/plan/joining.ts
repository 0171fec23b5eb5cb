/** What a free port can be joined to: what fits it first, then what is nearest. */
import type { Id } from "../kinds/record";
import { distanceM, type PlacedPort, placedPorts, portKey } from "./ports";
import type { Job, Plan, PortRef } from "./types";

/** What fuel does at a port: it is given, taken, given back, taken back; or either. */
type Does = "gives" | "takes" | "givesBack" | "takesBack" | "either";

function doesAt(port: PlacedPort, tanks: ReadonlySet<Id>): Does {
  switch (port.role) {
    case "outlet":
    case "out":
      return "gives";
    case "in":
    case "feed":
      return "takes";
    case "return":
      return tanks.has(port.ref.part) ? "takesBack" : "givesBack";
    default:
      return "either";
  }
}

const meets: Readonly<Record<Does, Does>> = {
  gives: "takes",
  takes: "gives",
  givesBack: "takesBack",
  takesBack: "givesBack",
  either: "either",
};

/** What a hose would be: one that feeds, or one that brings back what was not burnt. */
export type WayOfHose = "feed" | "return" | "either";

function wayOf(a: Does, b: Does): WayOfHose {
  const [known] = [a, b].filter((one) => one !== "either");
  if (!known) return "either";
  return known === "gives" || known === "takes" ? "feed" : "return";
}

export interface Joinable {
  port: PlacedPort;
  /** What a hose to it carries; between two ports that are not for one another, what it does at the first. */
  way: WayOfHose;
  /** 0 where what one gives the other takes, 1 where either way goes, 2 where it is joined against what it is for. */
  rank: 0 | 1 | 2;
}

/** Ports that nothing is joined to. */
export function freePorts(job: Job, plan: Plan): PlacedPort[] {
  const taken = new Set(
    [...plan.runs, ...plan.joints].flatMap(({ from, to }) => [portKey(from), portKey(to)]),
  );
  return [...placedPorts(job, plan).values()].filter(({ ref }) => !taken.has(portKey(ref)));
}

/** Free ports of other parts and tanks, those that fit first, the nearest of those first. */
export function joinables(job: Job, plan: Plan, from: PortRef): Joinable[] {
  const tanks = new Set(job.tanks.map(({ id }) => id));
  const free = freePorts(job, plan);
  const own = free.find(({ ref }) => portKey(ref) === portKey(from));
  if (!own) return [];
  const wants = doesAt(own, tanks);
  const rankOf = (port: PlacedPort): Joinable["rank"] => {
    const gives = doesAt(port, tanks);
    if (gives === "either" || wants === "either") return 1;
    return gives === meets[wants] ? 0 : 2;
  };
  return free
    .filter(({ ref }) => ref.part !== from.part)
    .map((port) => ({
      port,
      rank: rankOf(port),
      way: wayOf(wants, doesAt(port, tanks)),
      awayM: distanceM(own.position, port.position),
    }))
    .sort((a, b) => a.rank - b.rank || a.awayM - b.awayM)
    .map(({ port, rank, way }) => ({ port, rank, way }));
}
