import { readFileSync } from "node:fs";
import { inflateSync } from "node:zlib";
import { beforeAll, describe, expect, test } from "@jest/globals";
import { PDFDocument, PDFName, PDFRawStream } from "pdf-lib";
import type { BookEntry } from "~/core/book/entries";
import type { Job } from "~/core/plan/types";
import { capacityM3 } from "~/core/tanks/tank";
import { surveyReport } from "./report";

const marram = (): Job => (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;
const book = (): BookEntry[] =>
  (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { book: BookEntry[] }).book;
const TODAY = new Date("2026-06-01T00:00:00Z");

/** The words of each page, in the order they were written: the text operators of its content streams. */
async function wordsOf(bytes: Uint8Array): Promise<string[]> {
  const pdf = await PDFDocument.load(bytes);
  return pdf.getPages().map((page) => {
    const contents = page.node.Contents();
    const streams = contents && "asArray" in contents ? contents.asArray() : [contents];
    return streams
      .map((one) => pdf.context.lookup(one as never))
      .filter((stream): stream is PDFRawStream => stream instanceof PDFRawStream)
      .map((stream) => {
        const raw = Buffer.from(stream.contents);
        const text = stream.dict.has(PDFName.of("Filter")) ? inflateSync(raw) : raw;
        return [...text.toString("latin1").matchAll(/<([0-9A-Fa-f]+)> Tj/g)]
          .map(([, hex]) => Buffer.from(hex ?? "", "hex").toString("latin1"))
          .join("\n");
      })
      .join("\n");
  });
}

describe("the survey report", () => {
  let pages: string[] = [];
  let all = "";
  beforeAll(async () => {
    pages = await wordsOf(await surveyReport(marram(), book(), TODAY));
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

  test("names in letters that its fonts lack are written by the nearest plain letter, and nothing fails", async () => {
    const job = { ...marram(), name: "Łódź − 漁船", note: "naïve" };
    const words = (await wordsOf(await surveyReport(job, [], TODAY))).join("\n");
    expect(words).toContain("ód");
    expect(words).toContain("naïve");
  });

  test("a job with nothing in it still makes a report", async () => {
    const job = marram();
    const bare = {
      ...job,
      tanks: [],
      consumers: [],
      plans: job.plans.map((plan) => ({ ...plan, parts: [], runs: [], joints: [], lineUps: [] })),
    };
    const words = (await wordsOf(await surveyReport(bare, [], TODAY))).join("\n");
    expect(words).toContain("None taken.");
  });
});
