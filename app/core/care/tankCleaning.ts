/** What polishing leaves, what a tank breathes, what a dose is. */
import { HOUR_S } from "../units/factors";

export interface Polish {
  volumeM3: number;
  flowM3S: number;
  /** Share held back in one pass. */
  singlePass: number;
  /** In the whole tank's measure, per hour. */
  ingressPerH: number;
}

const turnoversOf = ({ volumeM3, flowM3S }: Polish, hours: number) => (flowM3S * hours * HOUR_S) / volumeM3;

/** A tank that is well mixed: C = Cinf + (C0 - Cinf) exp(-eta turnovers). */
export function polished(
  task: Polish,
  initial: number,
  hours: number,
): { turnovers: number; remaining: number } {
  const turnovers = turnoversOf(task, hours);
  const perTurn = hours > 0 ? turnovers / hours : turnoversOf(task, 1);
  const rest = task.ingressPerH / (task.singlePass * perTurn);
  return { turnovers, remaining: rest + (initial - rest) * Math.exp(-task.singlePass * turnovers) };
}

/**
 * A stirred part that is drawn from and a dead part behind it: V1 C1' = -(eta Q + q) C1 + q C2 + r V1,
 * V2 C2' = q (C1 - C2) + r V2, in closed form by the eigenvalues of the pair.
 */
export function polishedInTwoParts(
  task: Polish,
  { deadShare, exchangeShare }: { deadShare: number; exchangeShare: number },
  initial: number,
  hours: number,
): { turnovers: number; stirred: number; dead: number; remaining: number; slowHours: number } {
  const { volumeM3, flowM3S, singlePass, ingressPerH: r } = task;
  const [v1, v2] = [(1 - deadShare) * volumeM3, deadShare * volumeM3];
  const drawn = flowM3S * HOUR_S;
  const q = exchangeShare * drawn;
  const [a, b, c, d] = [-(singlePass * drawn + q) / v1, q / v1, q / v2, -q / v2];
  // Where nothing changes any more.
  const determinant = a * d - b * c;
  const [rest1, rest2] = [(-r * d + r * b) / determinant, (-r * a + r * c) / determinant];
  const half = (a + d) / 2;
  const spread = Math.sqrt(((a - d) / 2) ** 2 + b * c);
  const [slow, fast] = [half + spread, half - spread];
  const [u1, u2] = [initial - rest1, initial - rest2];
  // exp(A t) by its two eigenvalues (Sylvester).
  const [es, ef] = [Math.exp(slow * hours), Math.exp(fast * hours)];
  const gap = slow - fast;
  const on = (x: number, y: number, own: number, other: number) =>
    ((es * (own - fast) - ef * (own - slow)) / gap) * x + (((es - ef) * other) / gap) * y;
  const stirred = rest1 + on(u1, u2, a, b);
  const dead = rest2 + on(u2, u1, d, c);
  return {
    turnovers: turnoversOf(task, hours),
    stirred,
    dead,
    remaining: (1 - deadShare) * stirred + deadShare * dead,
    slowHours: -1 / slow,
  };
}

const KELVIN = 273.15;
/** Of water vapour, J/(kg K). */
const VAPOUR_J_KG_K = 461.52;
/** Over water, Pa (Magnus form, WMO, from memory). */
const saturationPa = (tempC: number): number => 611.2 * Math.exp((17.62 * tempC) / (243.12 + tempC));

/** One breath a day over the fuel: what it draws as it cools, and what of its damp stays. An upper bound of breathing alone. */
export function breathed(
  ullageM3: number,
  { warmC, coldC, relativeHumidity }: { warmC: number; coldC: number; relativeHumidity: number },
): { airM3: number; waterKg: number } {
  const [warmK, coldK] = [warmC + KELVIN, coldC + KELVIN];
  const airM3 = ullageM3 * (1 - coldK / warmK);
  const comes = (relativeHumidity * saturationPa(warmC)) / (VAPOUR_J_KG_K * warmK);
  const holds = saturationPa(coldC) / (VAPOUR_J_KG_K * coldK);
  return { airM3, waterKg: Math.max(0, airM3 * (comes - holds)) };
}

/** By the maker's dose on what has not been treated yet. */
export function biocideDose(
  perM3: number,
  { aboardM3, treatedShare, fillM3 }: { aboardM3: number; treatedShare: number; fillM3: number },
): { doseM3: number; treatedM3: number } {
  return { doseM3: perM3 * (aboardM3 * (1 - treatedShare) + fillM3), treatedM3: aboardM3 + fillM3 };
}
