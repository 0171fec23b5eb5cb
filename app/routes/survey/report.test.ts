import { readFileSync } from "node:fs";
import { beforeAll, describe, expect, test } from "@jest/globals";
import type { BookEntry } from "~/core/book/entries";
import type { Job } from "~/core/plan/types";
import { capacityM3 } from "~/core/tanks/tank";
import { wordsOf } from "~/state/pdfWords.fixture";
import { surveyReport } from "./report";

const marram = (): Job => (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;
const book = (): BookEntry[] =>
  (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { book: BookEntry[] }).book;
const TODAY = new Date("2026-06-01T00:00:00Z");

const font = (name: string) => readFileSync(`node_modules/dejavu-fonts-ttf/ttf/${name}.ttf`);
const fonts = { text: font("DejaVuSansCondensed"), strong: font("DejaVuSansCondensed-Bold") };

describe("the survey report", () => {
  let pages: string[] = [];
  let all = "";
  beforeAll(async () => {
    pages = await wordsOf((await surveyReport(marram(), book(), TODAY, fonts)).bytes);
    all = pages.join("\n");
  });

  test("names the job, the day, and every tank with its capacity", () => {
    expect(all).toContain("Marram: survey");
    expect(all).toContain("1 Jun 2026");
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
