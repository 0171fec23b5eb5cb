/** Dip readings from a CSV file: every row is read or its fault told, with its line; nothing is taken from a file with one. */
import Papa from "papaparse";
import { parseQuantity, type QuantityFault } from "../units/parse";

export interface DipRowRead {
  at: string | null;
  depthM: number;
  volumeM3: number | null;
}

export type DipCsvFault =
  | { line: number; code: "noDepthColumn" | "badDate" | "notMoreThanNothing" | "noRows" | "tooManyRows" }
  | { line: number; code: "badQuantity"; fault: QuantityFault };

const MOST_ROWS = 500;

/** Columns by name: `depth`, and `volume` and `at` where there are any; quantities with or without their unit. */
export function readDipCsv(
  text: string,
  units: { length: string; volume: string },
): { ok: true; rows: DipRowRead[] } | { ok: false; faults: DipCsvFault[] } {
  const { data, meta } = Papa.parse<Record<string, string>>(text.trim(), {
    header: true,
    skipEmptyLines: true,
    transformHeader: (name) => name.trim().toLowerCase(),
  });
  if (!meta.fields?.includes("depth")) return { ok: false, faults: [{ line: 1, code: "noDepthColumn" }] };
  if (data.length === 0) return { ok: false, faults: [{ line: 1, code: "noRows" }] };
  if (data.length > MOST_ROWS) return { ok: false, faults: [{ line: MOST_ROWS + 1, code: "tooManyRows" }] };
  const faults: DipCsvFault[] = [];
  const rows = data.map((row, i): DipRowRead => {
    const line = i + 2;
    const read = (column: string, dimension: "length" | "volume", unit: string): number | null => {
      const parsed = parseQuantity(row[column] ?? "", dimension, unit);
      if (!parsed.ok) {
        faults.push({ line, code: "badQuantity", fault: parsed.fault });
        return null;
      }
      if (parsed.si < 0) faults.push({ line, code: "notMoreThanNothing" });
      return parsed.si;
    };
    const at = row.at?.trim() || null;
    if (at !== null && Number.isNaN(Date.parse(at))) faults.push({ line, code: "badDate" });
    return {
      at,
      depthM: read("depth", "length", units.length) ?? 0,
      volumeM3: row.volume?.trim() ? read("volume", "volume", units.volume) : null,
    };
  });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, rows };
}
