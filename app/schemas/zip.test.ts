import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, test } from "@jest/globals";
import { readJobFile, writeJobFile } from "./file";
import type { Picture } from "./migrations";
import { readAllZip, readJobBytes, writeAllZip, writeJobZip } from "./zip";

const text = readFileSync("demo/marram.keel.json", "utf8");
const file = () => {
  const read = readJobFile(text);
  if (!read.ok) throw new Error("refused");
  return { job: read.job, book: read.book, snapshots: read.snapshots };
};
const bytes = (seed: number, length: number) => Uint8Array.from({ length }, (_, i) => (i * seed) % 251);
const pictures = (count: number): Map<string, Picture> =>
  new Map(
    Array.from({ length: count }, (_, i) => [
      `pic${i}`,
      { type: "image/jpeg", bytes: bytes(i + 1, 900), preview: bytes(i + 2, 90) },
    ]),
  );

describe("a job's file with its pictures", () => {
  test("goes out and in without loss, and equal contents give equal bytes", () => {
    const whole = { ...file(), pictures: pictures(3) };
    const zip = writeJobZip(whole);
    expect(readJobBytes(zip)).toEqual({ ok: true, ...whole });
    expect(Buffer.compare(zip, writeJobZip(whole))).toBe(0);
  });

  test("is a ZIP file by another program's judgement, with the job readable in it", () => {
    const at = join(mkdtempSync(join(tmpdir(), "keel-")), "x.keel.zip");
    writeFileSync(at, writeJobZip({ ...file(), pictures: pictures(2) }));
    const script = `import zipfile,sys;z=zipfile.ZipFile(sys.argv[1]);assert z.testzip() is None;sys.stdout.buffer.write(z.read("job.keel.json"))`;
    expect(execFileSync("python3", ["-c", script, at], { encoding: "utf8" })).toBe(text);
  });

  test("without pictures is the readable file", () => {
    expect(readJobBytes(new TextEncoder().encode(writeJobFile(file())))).toMatchObject({ ok: true });
  });

  test.each([
    ["cut short", (zip: Uint8Array) => zip.slice(0, zip.length / 2), "notAZip"],
    ["another ZIP", () => writeAllZip({ jobs: [], settings: {} }), "notAJobFile"],
  ])("%s is refused", (_what, spoil, code) => {
    const read = readJobBytes(spoil(writeJobZip({ ...file(), pictures: pictures(1) })));
    expect(read).toMatchObject({ ok: false, faults: [{ code }] });
  });
});

describe("everything in one file", () => {
  test("goes out and in without loss", () => {
    const other = { ...file(), job: { ...file().job, id: "other", name: "Tern" }, pictures: pictures(1) };
    const all = { jobs: [{ ...file(), pictures: pictures(2) }, other], settings: { theme: "night" } };
    const read = readAllZip(writeAllZip(all));
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    expect(read.settings).toEqual(all.settings);
    expect(read.jobs.map(({ job }) => job)).toEqual(all.jobs.map(({ job }) => job));
    expect(read.jobs.map((one) => one.pictures)).toEqual(all.jobs.map((one) => one.pictures));
  });

  test("one job with a fault refuses the whole, with its place", () => {
    const bad = { ...file(), pictures: new Map() };
    const zip = writeAllZip({ jobs: [bad], settings: {} });
    // A file whose job no longer fits its book: the kept plan is another one.
    const spoiled = { ...bad, snapshots: {} };
    expect(readAllZip(zip).ok).toBe(true);
    const read = readAllZip(writeAllZip({ jobs: [spoiled], settings: {} }));
    expect(read.ok).toBe(false);
    expect((read as { faults: { path: string }[] }).faults[0]?.path).toContain("marram: book[0]");
  });
});
