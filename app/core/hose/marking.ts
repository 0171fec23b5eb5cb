/**
 * What is printed on a fuel hose: standard, fire class, permeation class, bore and date.
 * SAE J1527, ISO 7840 (fire tested) and ISO 8469 (not), SAE 30R, EPA 40 CFR 1060 (from memory of the published text).
 */
import { INCH_M } from "../units/factors";

export type HoseStandard = "SAE J1527" | "ISO 7840" | "ISO 8469" | "SAE 30R";

export interface Marking {
  standard: HoseStandard | null;
  /** A passes the fire test, B does not. */
  fire: "A" | "B" | null;
  /** Most permeation, g/m2 in 24 h: 100 for class 1, 300 for class 2, 15 for -15. */
  permeationGM2Day: number | null;
  boreM: number | null;
  made: { year: number; month: number } | null;
}

const standards: readonly [RegExp, HoseStandard][] = [
  [/SAE\s*J\s*1527/i, "SAE J1527"],
  [/ISO\s*7840/i, "ISO 7840"],
  [/ISO\s*8469/i, "ISO 8469"],
  [/SAE\s*(?:J30\s*)?(?:30\s*)?R\s*\d+|SAE\s*30R/i, "SAE 30R"],
];

function readClass(text: string): Pick<Marking, "fire" | "permeationGM2Day"> {
  const match = /\b(?:TYPE\s*)?([AB])\s*-?\s*([12])(?:\s*-\s*(15))?\b/i.exec(text);
  if (!match) return { fire: null, permeationGM2Day: /\b15\s*g/i.test(text) ? 15 : null };
  const [, fire, number, low] = match;
  return {
    fire: fire?.toUpperCase() === "A" ? "A" : "B",
    permeationGM2Day: low ? 15 : number === "1" ? 100 : 300,
  };
}

function readBore(text: string): number | null {
  const inch = /(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)\s*(?:"|''|in\b|inch)/i.exec(text);
  if (inch) return (Number(inch[1] ?? 0) + Number(inch[2]) / Number(inch[3])) * INCH_M;
  const mm = /(\d+(?:[.,]\d+)?)\s*mm/i.exec(text);
  return mm ? Number((mm[1] ?? "").replace(",", ".")) / 1000 : null;
}

const fullYear = (text: string): number => (text.length === 4 ? Number(text) : 2000 + Number(text));

/** Dates as makers print them: 3Q14 or Q3 2014, 05/14 or 05-2014, week 23/14, 2014-05, or a year alone. */
function readDate(text: string): Marking["made"] {
  const quarter = /\b(?:Q([1-4])[\s/-]*|([1-4])Q[\s/-]*)(\d{4}|\d{2})\b/i.exec(text);
  if (quarter) return { year: fullYear(quarter[3] ?? ""), month: Number(quarter[1] ?? quarter[2]) * 3 - 2 };
  const week = /\b(?:WK|WEEK)\s*(\d{1,2})[\s/-]+(\d{4}|\d{2})\b/i.exec(text);
  if (week)
    return {
      year: fullYear(week[2] ?? ""),
      month: Math.min(12, 1 + Math.floor((Number(week[1]) - 1) / 4.345)),
    };
  const iso = /\b(19\d\d|20\d\d)-(0[1-9]|1[0-2])\b/.exec(text);
  if (iso) return { year: Number(iso[1]), month: Number(iso[2]) };
  const month = /\b(0?[1-9]|1[0-2])[/-](\d{4}|\d{2})\b(?!\s*(?:"|in|mm))/i.exec(text);
  if (month) return { year: fullYear(month[2] ?? ""), month: Number(month[1]) };
  const year = /\b(19[89]\d|20[0-4]\d)\b/.exec(text);
  return year ? { year: Number(year[1]), month: 1 } : null;
}

/** Reads what is printed, piece by piece; what is not there is null, never guessed. */
export function readMarking(printed: string): Marking {
  const standard = standards.find(([pattern]) => pattern.test(printed))?.[1] ?? null;
  const rest = standards.reduce((text, [pattern]) => text.replace(pattern, " "), printed);
  const boreText = rest.replace(/\b(?:TYPE\s*)?[AB]\s*-?\s*[12](?:\s*-\s*15)?\b/i, " ");
  const bore = readBore(boreText);
  const withoutBore = boreText.replace(/(?:\d+[\s-]+)?\d+\s*\/\s*\d+\s*(?:"|''|in\b|inch)/i, " ");
  return { standard, ...readClass(rest), boreM: bore, made: readDate(withoutBore) };
}
