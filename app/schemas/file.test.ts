import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { starterIds, startJob } from "~/core/edit/starters";
import { fileJsonSchema, readJobFile, writeJobFile } from "./file";

const text = readFileSync("demo/marram.keel.json", "utf8");

describe("job files", () => {
  test("the demo file is what writing it again gives, to the letter", () => {
    const read = readJobFile(text);
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    expect(writeJobFile(read)).toBe(text);
  });

  test.each([...starterIds])("the starting plan %s goes out and in without loss", (starter) => {
    const job = startJob("id", "Job", starter);
    const file = { job, book: [], snapshots: {} };
    expect(readJobFile(writeJobFile(file))).toEqual({ ok: true, ...file, pictures: new Map() });
  });

  test("every fault of a file is listed, each with its place", () => {
    const file = JSON.parse(text);
    file.job.plans[0].runs[0].boreM = -1;
    file.job.plans[0].runs[1].endBoreM = ["NaN", null];
    file.job.tanks[0].colour = "red";
    const read = readJobFile(JSON.stringify(file));
    expect(read.ok).toBe(false);
    if (read.ok) return;
    const places = read.faults.map(({ path }) => path);
    for (const place of [
      "job.plans[0].runs[0].boreM",
      "job.plans[0].runs[1].endBoreM[0]",
      "job.plans[0].runs[1].endBoreM[1]",
      "job.tanks[0].colour",
    ]) {
      expect(places).toContain(place);
    }
  });

  test("faults between records: tanks too full, sections that cross, hoses shorter than their way, ids twice", () => {
    const file = JSON.parse(text);
    const [plan] = file.job.plans;
    plan.conditions.aboardM3.dayTank = 0.2;
    file.job.tanks[0].shape.section = [
      [0, 0],
      [1, 1],
      [1, 0],
      [0, 1],
    ];
    plan.runs[0].route.lengthM = 0.1;
    plan.parts[1].id = plan.parts[0].id;
    const read = readJobFile(JSON.stringify(file));
    const codes = read.ok ? [] : read.faults.map(({ code }) => code);
    for (const code of ["overfull", "crossingSection", "tooShort", "duplicateId"])
      expect(codes).toContain(code);
  });

  test("no text, however broken, does more than be refused", () => {
    fc.assert(
      fc.property(
        fc.nat(text.length - 2),
        fc.constantFrom("", "}", '"', "null", "-", "1e999", "[[["),
        (at, put) => {
          const read = readJobFile(text.slice(0, at) + put + text.slice(at + 1));
          expect(typeof read.ok).toBe("boolean");
          if (!read.ok) expect(read.faults.length).toBeGreaterThan(0);
        },
      ),
      { numRuns: 60 },
    );
  });

  test("the published JSON Schema is the one in docs", () => {
    expect(JSON.parse(readFileSync("docs/job.schema.json", "utf8"))).toEqual(
      JSON.parse(JSON.stringify(fileJsonSchema())),
    );
  });
});

describe("the published JSON Schema", () => {
  test("is one that an independent validator takes, and so are the demo files; a wrong one is not", async () => {
    const { default: Ajv } = await import("ajv/dist/2020.js");
    const { default: addFormats } = await import("ajv-formats");
    const ajv = new Ajv({ strict: false });
    addFormats(ajv);
    const validate = ajv.compile(JSON.parse(readFileSync("docs/job.schema.json", "utf8")));
    for (const name of ["marram", "unit-12", "reading-van"]) {
      const file = JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8"));
      expect(validate(file)).toBe(true);
      expect(validate({ ...file, version: 9 })).toBe(false);
      file.job.plans[0].runs[0].boreM = -1;
      expect(validate(file)).toBe(false);
    }
  });
});
