/** The hand-over document, read back: its words, its pages, its code. */
import { readFileSync } from "node:fs";
import { beforeAll, describe, expect, test } from "@jest/globals";
import jsQR from "jsqr";
import { PDFDocument } from "pdf-lib";
import type { BookEntry } from "~/core/book/entries";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { baselineDay, type HandOverPart, handOverParts, handOverTitles } from "~/messages/handOver";
import { provisionalOf } from "~/messages/notes";
import { codeOf, handOverPdf } from "./handOverPdf";
import { wordsOf } from "./pdfWords.fixture";

const { job, book } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as {
  job: Job;
  book: BookEntry[];
};
const font = (name: string) => readFileSync(`node_modules/dejavu-fonts-ttf/ttf/${name}.ttf`);
const fonts = { text: font("DejaVuSansCondensed"), strong: font("DejaVuSansCondensed-Bold") };
const today = new Date("2026-11-26T00:00:00Z");
const of = (
  change: Partial<Job> = {},
  parts: readonly HandOverPart[] = handOverParts,
  size: "A4" | "Letter" = "A4",
) => handOverPdf({ job: { ...job, ...change }, book, parts: new Set(parts), today, size }, fonts);

describe("the document", () => {
  let words = "";
  beforeAll(async () => {
    const made = await of({ handOver: { owner: "Żółć Ødegård", vessel: "oyster tender", on: "2026-11-26" } });
    words = (await wordsOf(made!.bytes)).join(" ").replace(/\s+/g, " ");
  });

  test("has every part, every line-up with its valves, every hose and finding, and whom it is for", () => {
    const said = words.replace(/\s/g, "");
    const has = (text: string) => expect(said).toContain(text.replace(/\s/g, ""));
    for (const part of handOverParts) has(handOverTitles[part]);
    const plan = currentPlan(job);
    for (const { name } of [...plan.lineUps, ...job.tanks]) has(name);
    has("Run on starboard returns to Port wing");
    has("Owner: Żółć Ødegård");
    has("never loosened");
    expect(words.match(/ISO 7840 A1|SAE J1527 A1-15/g)?.length).toBeGreaterThanOrEqual(plan.runs.length);
  });

  test("on Letter as on A4, with chosen parts alone; a letter that no font has is told", async () => {
    const made = await of({ name: "船 Marram" }, ["lineUps"], "Letter");
    expect(made!.missing).toEqual(["船"]);
    const pdf = await PDFDocument.load(made!.bytes);
    expect(pdf.getPage(0).getSize()).toEqual({ width: 612, height: 792 });
    const only = (await wordsOf(made!.bytes)).join(" ");
    expect(only).toContain(handOverTitles.lineUps);
    expect(only).not.toContain(handOverTitles.assumed);
  });

  test("draws the plan with its names and holds its photographs, each with what it shows", async () => {
    // A picture of one dot (PNG, by hand).
    const dot = Buffer.from(
      "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==",
      "base64",
    );
    const drawing = {
      width: 200,
      height: 80,
      lines: [{ d: "M20 40L180 40", isBack: true, isIdle: false }],
      boxes: [
        { name: "Port wing", x: 0, y: 20, width: 60, height: 40 },
        { name: "Tee behind the separator", x: 150, y: 36, width: 8, height: 8 },
      ],
    };
    const pictures = [1, 2, 3].map((i) => ({
      words: `Lid ${i}`,
      type: "image/png",
      bytes: new Uint8Array(dot),
    }));
    const made = await handOverPdf(
      { job, book, parts: new Set(["drawing", "pictures"] as const), today, size: "A4", drawing, pictures },
      fonts,
    );
    const said = (await wordsOf(made!.bytes)).join(" ").replace(/\s+/g, " ");
    for (const words of ["Port wing", "Tee behind", "Lid 1", "Lid 3"]) expect(said).toContain(words);
    expect(
      Buffer.from(made!.bytes)
        .toString("latin1")
        .match(/\/Subtype \/Image/g)?.length,
    ).toBeGreaterThanOrEqual(3);
    const without = await of({}, ["drawing", "pictures"]);
    const bare = (await wordsOf(without!.bytes)).join(" ").replace(/\s+/g, " ");
    expect(bare).toContain("has no drawing");
    expect(bare).toContain("None goes with it");
  });

  test("is stopped between two parts, and the same for the same words", async () => {
    const stopped = await handOverPdf(
      { job, book, parts: new Set(handOverParts), today, size: "A4", onSection: (done) => done < 2 },
      fonts,
    );
    expect(stopped).toBeNull();
    const [a, b] = [await of({}, ["system"]), await of({}, ["system"])];
    expect(Buffer.from(a!.bytes).equals(Buffer.from(b!.bytes))).toBe(true);
  });

  test("its code, read by another's reader, has the job's name and the baseline's day and nothing else", () => {
    const said = `${job.name}, baseline ${baselineDay(book)}`;
    const rows = codeOf(said);
    // Four pixels a module, and the white border of four modules that a reader needs.
    const [module, border] = [4, 4];
    const side = (rows.length + 2 * border) * module;
    const pixels = new Uint8ClampedArray(side * side * 4).fill(255);
    rows.forEach((row, i) =>
      row.forEach((isDark, k) => {
        if (!isDark) return;
        for (let y = 0; y < module; y++)
          for (let x = 0; x < module; x++) {
            const at = (((i + border) * module + y) * side + (k + border) * module + x) * 4;
            pixels.set([0, 0, 0], at);
          }
      }),
    );
    expect(jsQR(pixels, side, side)?.data).toBe(said);
  });
});

test("what is there for the time being is known by its name", () => {
  const [plan] = job.plans;
  const part = plan!.parts[0]!;
  const held = {
    ...job,
    plans: [{ ...plan!, parts: [{ ...part, provisional: true }, ...plan!.parts.slice(1)] }],
  };
  expect(provisionalOf(held as Job)).toEqual([part.name]);
  expect(provisionalOf(job)).toEqual([]);
});
