/**
 * What is printed on a fuel hose: standard and its edition, fire class, permeation class, bore and date.
 * SAE J1527 (named by 33 CFR 183.540, printed as USCG TYPE), ISO 7840 (fire tested) and ISO 8469 (not), SAE J30,
 * SAE 100R, DIN 73379, EPA 40 CFR 1060 (from memory of the published text).
 */
import { INCH_M } from "../units/factors";

export type HoseStandard =
  | "SAE J1527"
  | "ISO 7840"
  | "ISO 8469"
  | "SAE J30"
  | "SAE 100R"
  | "DIN 73379"
  | "33 CFR 183";

export interface Marking {
  standard: HoseStandard | null;
  /** Its type as printed: A1-15, R9, 100R5. */
  type: string | null;
  /** A passes the fire test, B does not. */
  fire: "A" | "B" | null;
  /** Most permeation, g/m2 in 24 h: 100 for class 1, 300 for class 2, 15 for -15. */
  permeationGM2Day: number | null;
  boreM: number | null;
  /** Where day and month cannot be told apart the earlier date stands: an older hose is the safer guess. */
  made: { year: number; month: number } | null;
  isDateUnsure: boolean;
}

/** What is left of the text as pieces of it are read: a piece counts once. */
class Printing {
  constructor(private text: string) {}

  take(pattern: RegExp): RegExpExecArray | null {
    const found = pattern.exec(this.text);
    if (found)
      this.text = `${this.text.slice(0, found.index)} ${this.text.slice(found.index + found[0].length)}`;
    return found;
  }
}

/** Standards with their edition, which is no date of making: ISO 7840:2013, SAE J1527-2011. */
const EDITION = "(?:\\s*[:-]\\s*(?:19|20)\\d\\d)?";
const standards: readonly [RegExp, HoseStandard, type?: boolean][] = [
  [new RegExp(`\\b(?:SAE\\s*)?J\\s*-?\\s*1527${EDITION}\\b`, "i"), "SAE J1527"],
  [new RegExp(`\\b(?:EN\\s*)?ISO\\s*-?\\s*7840${EDITION}`, "i"), "ISO 7840"],
  [new RegExp(`\\b(?:EN\\s*)?ISO\\s*-?\\s*8469${EDITION}`, "i"), "ISO 8469"],
  [/\b(?:SAE\s*)?(?:J517\s*)?(100\s*R\s*\d+)\b/i, "SAE 100R", true],
  [/\b(?:SAE\s*)?(?:J\s*30\s*)?(?:30\s*)?(R\s*\d+)\b/i, "SAE J30", true],
  [/\b(?:SAE\s*)?J\s*30\b/i, "SAE J30"],
  [/\bDIN\s*73379\b/i, "DIN 73379"],
  [/\b(?:USCG|33\s*CFR\s*183(?:\.\d+)?)\b/i, "33 CFR 183"],
];

function readStandard(printing: Printing): Pick<Marking, "standard" | "type"> {
  let standard: HoseStandard | null = null;
  let type: string | null = null;
  for (const [pattern, name, hasType] of standards) {
    const found = printing.take(pattern);
    if (!found) continue;
    // A hose that names the Coast Guard's rule and a standard is of the standard.
    standard ??= name;
    if (hasType) type ??= (found[1] ?? "").replace(/\s/g, "").toUpperCase();
  }
  return { standard, type };
}

function readClass(printing: Printing): Pick<Marking, "type" | "fire" | "permeationGM2Day"> {
  const match = printing.take(/\b(?:TYPE\s*)?([AB])\s*-?\s*([12])(?:\s*-\s*(15)(?!\d))?(?=\b|$)/i);
  const low = printing.take(/\b(?:EPA\s*)?15\s*g(?:\s*\/\s*m.?2?(?:\s*\/\s*(?:day|24\s*h))?)?/i);
  if (!match) return { type: null, fire: null, permeationGM2Day: low ? 15 : null };
  const [, fire = "", number, fifteen] = match;
  return {
    type: `${fire.toUpperCase()}${number}${fifteen ? "-15" : ""}`,
    fire: fire.toUpperCase() === "A" ? "A" : "B",
    permeationGM2Day: fifteen || low ? 15 : number === "1" ? 100 : 300,
  };
}

const isSize = (text: string | undefined) => ["2", "4", "8", "16", "32"].includes(text ?? "");

function readBore(printing: Printing): number | null {
  const mixed = printing.take(
    /\b(?:(\d)[\s-]+)?(\d{1,2})\s*\/\s*(\d{1,2})\s*(?:"|''|″|in\b\.?|inch(?:es)?\b)/i,
  );
  if (mixed) return (Number(mixed[1] ?? 0) + Number(mixed[2]) / Number(mixed[3])) * INCH_M;
  const decimal = printing.take(/(?<![\d.])(\d?[.,]\d+|\d(?:[.,]\d+)?)\s*(?:"|''|″|in\b\.?|inch(?:es)?\b)/i);
  if (decimal) return Number((decimal[1] ?? "").replace(",", ".")) * INCH_M;
  const mm = printing.take(/(?<![\d.,])(\d{1,3}(?:[.,]\d+)?)\s*mm\b/i);
  const nominal = printing.take(/\bDN\s*(\d{1,3})\b/i);
  if (mm) return Number((mm[1] ?? "").replace(",", ".")) / 1000;
  if (nominal) return Number(nominal[1]) / 1000;
  return null;
}

/** A bare fraction whose foot is an inch's: 5/16. With a nought before it, or another foot, it is a month and year. */
function readBareFraction(printing: Printing): number | null {
  const bare = printing.take(/(?<![\d/.-])([1-9]\d?)\/(2|4|8|16|32)(?![\d/])/);
  if (!bare || !isSize(bare[2]) || Number(bare[1]) >= Number(bare[2])) return null;
  return (Number(bare[1]) / Number(bare[2])) * INCH_M;
}

/** Bores of 100R5 and 100R14 by their dash size, which is that of the tube, in. SAE J517, from memory. */
const TUBE_DASH: Readonly<Record<string, number>> = {
  "4": 3 / 16,
  "5": 1 / 4,
  "6": 5 / 16,
  "8": 13 / 32,
  "10": 1 / 2,
  "12": 5 / 8,
  "16": 7 / 8,
  "20": 1.125,
};

/** A dash size, -8: sixteenths of an inch of bore, but for hose that is sized by its tube. Printed on SAE 100R hose alone. */
function readDash(printing: Printing, type: string | null): number | null {
  if (!type?.startsWith("100R")) return null;
  const dash = printing.take(/(?<![\w/.])-\s?(\d{1,2})(?![\d/-])/)?.[1];
  if (dash === undefined) return null;
  const isByTube = type === "100R5" || type === "100R14";
  const inches = isByTube ? TUBE_DASH[dash] : Number(dash) / 16;
  return inches ? inches * INCH_M : null;
}

const fullYear = (text: string): number =>
  text.length === 4 ? Number(text) : Number(text) >= 80 ? 1900 + Number(text) : 2000 + Number(text);
const MONTHS = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];
const YEAR = "(19[89]\\d|20[0-4]\\d|\\d\\d)";
const LONG_YEAR = "(19[89]\\d|20[0-4]\\d)";
const sure = (year: number, month: number) => ({ made: { year, month }, isDateUnsure: false });
const ofWeek = (week: string | undefined) => Math.min(12, 1 + Math.floor((Number(week) - 1) / 4.345));

/**
 * Dates as makers print them: 3Q14 or Q3 2014, WK 23/14, W23 2014 or 14W23, 2014-05-12 or 2014-05, 12/05/2014,
 * 05/14 or 05-2014, MAY 2014, or a year alone.
 */
function readDate(printing: Printing): Pick<Marking, "made" | "isDateUnsure"> {
  const word = printing.take(
    new RegExp(`\\b(?:\\d{1,2}[\\s.-]*)?(${MONTHS.join("|")})[a-z]*[\\s.,/'-]*${YEAR}\\b`, "i"),
  );
  if (word) return sure(fullYear(word[2] ?? ""), 1 + MONTHS.indexOf((word[1] ?? "").toLowerCase()));
  const quarter = printing.take(new RegExp(`\\b(?:Q([1-4])|([1-4])Q)[\\s/'-]*${YEAR}\\b`, "i"));
  if (quarter) return sure(fullYear(quarter[3] ?? ""), Number(quarter[1] ?? quarter[2]) * 3 - 2);
  const week = printing.take(new RegExp(`\\b(?:WK|WEEK|W|KW)\\s*(\\d{1,2})[\\s/'-]+${YEAR}\\b`, "i"));
  if (week) return sure(fullYear(week[2] ?? ""), ofWeek(week[1]));
  const yearWeek = printing.take(new RegExp(`\\b${YEAR}[\\s/-]?(?:WK|W|KW)\\s*(\\d{1,2})\\b`, "i"));
  if (yearWeek) return sure(fullYear(yearWeek[1] ?? ""), ofWeek(yearWeek[2]));
  const iso = printing.take(/\b(19[89]\d|20[0-4]\d)[-./](0[1-9]|1[0-2])(?:[-./]\d{1,2})?\b/);
  if (iso) return sure(Number(iso[1]), Number(iso[2]));
  const day = printing.take(new RegExp(`\\b(\\d{1,2})[./-](\\d{1,2})[./-]${YEAR}\\b`));
  if (day) {
    const [first, second] = [Number(day[1]), Number(day[2])];
    const months = [first, second].filter((one) => one >= 1 && one <= 12);
    if (months.length === 0) return { made: null, isDateUnsure: false };
    const made = { year: fullYear(day[3] ?? ""), month: Math.min(...months) };
    return { made, isDateUnsure: months.length === 2 && first !== second };
  }
  const month = printing.take(new RegExp(`\\b(0?[1-9]|1[0-2])[/-]${YEAR}\\b`));
  if (month) return sure(fullYear(month[2] ?? ""), Number(month[1]));
  const year = printing.take(new RegExp(`\\b${LONG_YEAR}\\b`));
  return year ? sure(Number(year[1]), 1) : { made: null, isDateUnsure: false };
}

export function readMarking(text: string): Marking {
  const printing = new Printing(text);
  const { standard, type } = readStandard(printing);
  const ofClass = readClass(printing);
  const boreM = readBore(printing) ?? readDash(printing, type) ?? readBareFraction(printing);
  const date = readDate(printing);
  return { standard, ...ofClass, type: ofClass.type ?? type, boreM, ...date };
}

/** One name for a hose wherever it is listed: its standard and type, as read off it. */
export const markingName = ({ standard, type }: Marking): string =>
  [standard === "33 CFR 183" ? "USCG" : standard, type].filter((one) => one !== null).join(" ");
