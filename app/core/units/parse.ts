import { type Dimension, dimensions, toSi, unitsOf } from "./factors";
import { readGauge, wireAreaM2 } from "./wire";

export type QuantityFault =
  | { code: "empty" }
  | { code: "notANumber"; text: string }
  | { code: "ambiguousComma"; text: string }
  | { code: "divideByZero"; text: string }
  | { code: "unknownUnit"; text: string }
  | { code: "wrongDimension"; text: string; dimension: Dimension; wanted: Dimension }
  | { code: "mixedUnits"; text: string }
  | { code: "tooLarge"; text: string };

export type ParsedQuantity =
  | { ok: true; si: number; entered: string; unit: string }
  | { ok: false; fault: QuantityFault };

/** A whole, decimal, vulgar ('3/8') or mixed ('1 1/2', '1-1/2') number at the start of the text. */
const NUMBER =
  /^([-+−–]?)\s*(?:(\d+)[\s-]+(\d+)\s*\/\s*(\d+)|(\d+)\s*\/\s*(\d+)|(\d+(?:[.,]\d+)?|[.,]\d+)(e[+-]?\d+)?)/i;

const fail = (fault: QuantityFault): ParsedQuantity => ({ ok: false, fault });

function findUnit(dimension: Dimension, text: string): string | undefined {
  return Object.entries(unitsOf(dimension)).find(([, unit]) => unit.names.includes(text))?.[0];
}

const allDimensions = Object.keys(dimensions) as Dimension[];
const allNames = allDimensions
  .flatMap((dimension) => Object.values(unitsOf(dimension)).flatMap((unit) => unit.names))
  .sort((a, b) => b.length - a.length);

/** The unit word that follows a number (longest known name first), as it was typed, and what stands after it. */
function readUnit(text: string): { word: string; typed: string; rest: string } {
  const said = text.trimStart().replace(/\s+/g, " ");
  const tidy = said.toLowerCase();
  const known = allNames.find((name) => tidy.startsWith(name) && /^(\s|\d|$)/.test(tidy.slice(name.length)));
  const word = known ?? /^[^\d\s]*/.exec(tidy)?.[0] ?? "";
  return { word, typed: said.slice(0, word.length), rest: said.slice(word.length).trimStart() };
}

function readNumber(text: string): { value: number; rest: string } | QuantityFault {
  const match = NUMBER.exec(text);
  if (!match) return { code: "notANumber", text };
  const [whole, sign, mixed, mixedTop, mixedBottom, top, bottom, decimal, exponent] = match;
  const rest = text.slice(whole.length);
  const scale = sign && sign !== "+" ? -1 : 1;
  if (decimal !== undefined) {
    if (/^\d{1,3},\d{3}$/.test(decimal)) return { code: "ambiguousComma", text: decimal };
    const value = Number(decimal.replace(",", ".") + (exponent ?? ""));
    if (!Number.isFinite(value)) return { code: "tooLarge", text: whole };
    return { value: scale * value, rest };
  }
  const divisor = Number(mixedBottom ?? bottom);
  if (divisor === 0) return { code: "divideByZero", text: whole };
  const fraction = Number(mixedTop ?? top) / divisor;
  return { value: scale * (Number(mixed ?? 0) + fraction), rest };
}

/**
 * Reads a quantity as the trade types it: '3/8 in', '1 1/2"', '9.5mm', '25 gph', '5 inHg', '80 F', `5' 3"`, '14 AWG'.
 * A number without a unit is taken in `defaultUnit`. Result is SI (temperature degC, viscosity mm2/s).
 * A decimal comma is read; '1,500' is refused, since it is 1.5 to some and 1500 to others.
 */
export function parseQuantity(entered: string, dimension: Dimension, defaultUnit: string): ParsedQuantity {
  const text = entered.trim();
  if (text === "") return fail({ code: "empty" });
  if (dimension === "area") {
    const gauge = readGauge(text, defaultUnit === "AWG");
    if (gauge !== null) return { ok: true, si: wireAreaM2(gauge), entered: text, unit: "AWG" };
  }
  const unless = defaultUnit === "AWG" ? "mm2" : defaultUnit;
  let rest = text;
  let si = 0;
  let unit = "";
  for (let part = 0; rest !== ""; part++) {
    const number = readNumber(rest);
    if ("code" in number) return fail(number);
    const { word, typed, rest: after } = readUnit(number.rest);
    const found = word === "" ? unless : findUnit(dimension, word);
    if (found === undefined) {
      const other = allDimensions.find((candidate) => findUnit(candidate, word));
      return fail(
        other
          ? { code: "wrongDimension", text: typed, dimension: other, wanted: dimension }
          : { code: "unknownUnit", text: typed },
      );
    }
    const isFeetAndInches = dimension === "length" && unit === "ft" && (found === "in" || word === "");
    if (part > 0 && !isFeetAndInches) return fail({ code: "mixedUnits", text });
    unit = part > 0 ? "in" : found;
    // The sign of the feet is that of the inches after them.
    si += toSi(dimension, part > 0 && /^[-−–]/.test(text) ? -number.value : number.value, unit);
    rest = after;
  }
  if (!Number.isFinite(si)) return fail({ code: "tooLarge", text });
  return { ok: true, si, entered: text, unit };
}
