import { readFileSync } from "node:fs";
import { inflateSync } from "node:zlib";
import { beforeAll, describe, expect, test } from "@jest/globals";
import { type PDFDict, PDFDocument, PDFName, PDFRawStream } from "pdf-lib";
import type { BookEntry } from "~/core/book/entries";
import type { Job } from "~/core/plan/types";
import { capacityM3 } from "~/core/tanks/tank";
import { surveyReport } from "./report";

const marram = (): Job => (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;
const book = (): BookEntry[] =>
  (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { book: BookEntry[] }).book;
const TODAY = new Date("2026-06-01T00:00:00Z");

const font = (name: string) => readFileSync(`node_modules/dejavu-fonts-ttf/ttf/${name}.ttf`);
const fonts = { text: font("DejaVuSansCondensed"), strong: font("DejaVuSansCondensed-Bold") };

const textOf = (stream: PDFRawStream) => {
  const raw = Buffer.from(stream.contents);
  return (stream.dict.has(PDFName.of("Filter")) ? inflateSync(raw) : raw).toString("latin1");
};

/** What each glyph of a font stands for, by its own table for readers (ISO 32000, 9.10.3). */
function lettersOf(font: PDFDict): Map<string, string> {
  const table = textOf(font.lookup(PDFName.of("ToUnicode")) as PDFRawStream);
  const pairs = table.matchAll(/<([0-9A-Fa-f]{4})>\s*<([0-9A-Fa-f]+)>/g);
  const utf16 = (hex: string) => Buffer.from(hex, "hex").swap16().toString("utf16le");
  return new Map([...pairs].map(([, glyph, letters]) => [glyph!.toUpperCase(), utf16(letters!)]));
}

/** The words of each page, in the order they were written: the text operators of its content streams. */
async function wordsOf(bytes: Uint8Array): Promise<string[]> {
  const pdf = await PDFDocument.load(bytes);
  return pdf.getPages().map((page) => {
    const named = page.node.Resources()?.lookup(PDFName.of("Font")) as PDFDict;
    const fontsOfPage = new Map(
      named.keys().map((key) => [key.asString().slice(1), lettersOf(named.lookup(key) as PDFDict)]),
    );
    const contents = page.node.Contents();
    const streams = contents && "asArray" in contents ? contents.asArray() : [contents];
    return streams
      .map((one) => pdf.context.lookup(one as never))
      .filter((stream): stream is PDFRawStream => stream instanceof PDFRawStream)
      .map((stream) => {
        let letters = new Map<string, string>();
        const words: string[] = [];
        for (const [, name, hex] of textOf(stream).matchAll(/\/(\S+) [\d.]+ Tf|<([0-9A-Fa-f]+)> Tj/g)) {
          if (name !== undefined) letters = fontsOfPage.get(name) ?? letters;
          else
            words.push((hex?.toUpperCase().match(/.{4}/g) ?? []).map((glyph) => letters.get(glyph)).join(""));
        }
        return words.join("\n");
      })
      .join("\n");
  });
}

describe("the survey report", () => {
  let pages: string[] = [];
  let all = "";
  beforeAll(async () => {
    pages = await wordsOf((await surveyReport(marram(), book(), TODAY, fonts)).bytes);
    all = pages.join("\n");
  });

  test("names the job, the day, and every tank with its capacity", () => {
    expect(all).toContain("Marram: survey");
    expect(all).toContain("01/06/2026");
    for (const tank of marram().tanks) {
      expect(all).toContain(tank.name);
      expect(all).toContain(`Capacity ${Math.round(capacityM3(tank) * 1000)} L`);
    }
  });

  test("a tank's name and its dip table stand on one page", () => {
    for (const { name } of marram().tanks) {
      const page = pages.find((words) => words.split("\n").includes(name));
      expect(page?.slice(page.indexOf(name))).toContain("depth: volume");
    }
  });

  test("hoses with their verdict, samples with theirs, findings with their grade and way to mend", () => {
    expect(all).toContain("SAE J1527 B2 05/2012");
    expect(all).toMatch(/replace\n/);
    expect(all).toContain("strip and polish");
    expect(all).toContain("Stop: Run on starboard returns to Port wing");
    expect(all).toContain("licensed trades go before it");
  });

  test("pages are numbered", () => {
    pages.forEach((words, i) => expect(words).toContain(`${i + 1} of ${pages.length}`));
  });

  test("names stand in their own letters; those that no font has are named, and nothing fails", async () => {
    const job = { ...marram(), name: "Łódź, Δελφίνι, Чайка − 漁船", note: "naïve" };
    const { bytes, missing } = await surveyReport(job, [], TODAY, fonts);
    const words = (await wordsOf(bytes)).join("\n");
    expect(words).toContain("Łódź, Δελφίνι, Чайка −");
    expect(words).toContain("naïve");
    expect(missing).toEqual(["漁", "船"]);
  });

  test("only the letters that are used go into it", async () => {
    const { bytes } = await surveyReport(marram(), book(), TODAY, fonts);
    expect(bytes.length).toBeLessThan(200_000);
  });

  test("a job with nothing in it still makes a report", async () => {
    const job = marram();
    const bare = {
      ...job,
      tanks: [],
      consumers: [],
      plans: job.plans.map((plan) => ({ ...plan, parts: [], runs: [], joints: [], lineUps: [] })),
    };
    const words = (await wordsOf((await surveyReport(bare, [], TODAY, fonts)).bytes)).join("\n");
    expect(words).toContain("None taken.");
  });
});
