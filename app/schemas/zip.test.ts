import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { crc32, deflateRawSync } from "node:zlib";
import { afterEach, describe, expect, test } from "@jest/globals";
import { readJobFile, writeJobFile } from "./file";
import type { Picture } from "./migrations";
import { readAllBlob, readJobBlob, writeAllZip, writeJobZip, zipLimits } from "./zip";

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
      { type: "image/jpeg", full: new Blob([bytes(i + 1, 900)]), preview: new Blob([bytes(i + 2, 90)]) },
    ]),
  );
const bytesOf = async (blob: Blob) => Buffer.from(await blob.arrayBuffer());
const contents = async (all: ReadonlyMap<string, Picture>) =>
  Promise.all(
    [...all].map(async ([id, { type, full, preview }]) => [
      id,
      type,
      (await bytesOf(full)).toString("hex"),
      preview && (await bytesOf(preview)).toString("hex"),
    ]),
  );

/** An entry as a hostile file may declare it; entries of one `at` share their bytes. */
interface Declared {
  name: string;
  packed: Uint8Array;
  method?: number;
  size: number;
  crc?: number;
  at?: number;
}

/** A ZIP file by its specification (APPNOTE.TXT 6.3, 4.3.7 and 4.3.12), with whatever its directory is to say. */
function zipOf(entries: readonly Declared[]): Blob {
  const body: Buffer[] = [];
  const directory: Buffer[] = [];
  let offset = 0;
  for (const { name, packed, method = 8, size, crc = 0, at } of entries) {
    const common = Buffer.alloc(26);
    common.writeUInt16LE(20, 0);
    common.writeUInt16LE(method, 4);
    common.writeUInt32LE(crc, 10);
    common.writeUInt32LE(packed.length, 14);
    common.writeUInt32LE(size, 18);
    common.writeUInt16LE(name.length, 22);
    const here = at ?? offset;
    if (at === undefined) {
      const local = Buffer.concat([
        Buffer.from("PK\x03\x04"),
        common,
        Buffer.from(name),
        Buffer.from(packed),
      ]);
      body.push(local);
      offset += local.length;
    }
    const rest = Buffer.alloc(14);
    rest.writeUInt32LE(here, 10);
    directory.push(
      Buffer.concat([Buffer.from("PK\x01\x02"), Buffer.from([20, 0]), common, rest, Buffer.from(name)]),
    );
  }
  const central = Buffer.concat(directory);
  const end = Buffer.alloc(22);
  end.write("PK\x05\x06", 0, "latin1");
  end.writeUInt16LE(entries.length, 8);
  end.writeUInt16LE(entries.length, 10);
  end.writeUInt32LE(central.length, 12);
  end.writeUInt32LE(offset, 16);
  return new Blob([Buffer.concat([...body, central, end])]);
}
const entry = (name: string, body: Uint8Array, change: Partial<Declared> = {}): Declared => ({
  name,
  packed: deflateRawSync(body),
  size: body.length,
  crc: crc32(body),
  ...change,
});

describe("a job's file with its pictures", () => {
  test("goes out and in without loss, and equal contents give equal bytes", async () => {
    const whole = { ...file(), pictures: pictures(3) };
    const zip = await writeJobZip(whole);
    const read = await readJobBlob(zip);
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    expect({ job: read.job, book: read.book, snapshots: read.snapshots }).toEqual(file());
    expect(await contents(read.pictures)).toEqual(await contents(whole.pictures));
    expect(Buffer.compare(await bytesOf(zip), await bytesOf(await writeJobZip(whole)))).toBe(0);
  });

  test("is a ZIP file by another program's judgement, with the job readable in it", async () => {
    const at = join(mkdtempSync(join(tmpdir(), "keel-")), "x.keel.zip");
    writeFileSync(at, await bytesOf(await writeJobZip({ ...file(), pictures: pictures(2) })));
    const script = `import zipfile,sys;z=zipfile.ZipFile(sys.argv[1]);assert z.testzip() is None;sys.stdout.buffer.write(z.read("job.keel.json"))`;
    expect(execFileSync("python3", ["-c", script, at], { encoding: "utf8" })).toBe(text);
  });

  test("as another program packs it, pictures pressed too, is read", async () => {
    const read = await readJobBlob(
      zipOf([entry("job.keel.json", Buffer.from(text)), entry("pictures/p.jpg", bytes(3, 5000))]),
    );
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    expect(await bytesOf(read.pictures.get("p")!.full)).toEqual(Buffer.from(bytes(3, 5000)));
  });

  test("without pictures is the readable file", async () => {
    expect(await readJobBlob(new Blob([writeJobFile(file())]))).toMatchObject({ ok: true });
  });

  test.each<[string, (zip: Blob) => Blob | Promise<Blob>, string]>([
    ["cut short", (zip) => zip.slice(0, zip.size >> 1), "notAZip"],
    ["another ZIP", () => writeAllZip({ jobs: [], settings: {} }), "notAJobFile"],
    [
      "with a picture that was changed in it",
      async (zip) => {
        const all = await bytesOf(zip);
        all[all.indexOf("pictures/pic0.jpg") + 40]! ^= 1;
        return new Blob([all]);
      },
      "notAZip",
    ],
  ])("%s is refused", async (_what, spoil, code) => {
    const read = await readJobBlob(await spoil(await writeJobZip({ ...file(), pictures: pictures(1) })));
    expect(read).toMatchObject({ ok: false, faults: [{ code }] });
  });
});

describe("a file that is meant to harm", () => {
  const limits = { ...zipLimits };
  afterEach(() => void Object.assign(zipLimits, limits));
  const nothing = Buffer.alloc(3_000_000);

  test.each<[string, () => Blob, string]>([
    ["gives a thousand times its size", () => zipOf([entry("job.keel.json", nothing)]), "zipRatio"],
    [
      "has forty entries over the same bytes",
      () => {
        const first = entry("pictures/a.jpg", bytes(7, 30_000), { packed: bytes(7, 30_000), method: 0 });
        const others = Array.from({ length: 39 }, (_, i) => ({
          ...first,
          name: `pictures/a${i}.jpg`,
          at: 0,
        }));
        return zipOf([first, ...others]);
      },
      "notAZip",
    ],
    [
      "gives more than it says",
      () => zipOf([entry("job.keel.json", Buffer.from("x".repeat(5000)), { size: 4000 })]),
      "notAZip",
    ],
    [
      "says more than one text may be",
      () => zipOf([entry("job.keel.json", Buffer.from(text), { size: 3e8 })]),
      "zipEntryLarge",
    ],
    [
      "says more than one picture may be",
      () => zipOf([entry("pictures/a.jpg", Buffer.from(text), { size: 2e8 })]),
      "zipEntryLarge",
    ],
    [
      "has one name twice",
      () => zipOf([entry("a", nothing.subarray(0, 9)), entry("a", nothing.subarray(0, 9))]),
      "notAZip",
    ],
    [
      "is packed in another way",
      () => zipOf([entry("job.keel.json", Buffer.from(text), { method: 12 })]),
      "notAZip",
    ],
  ])("one that %s is refused before it is unpacked", async (_what, make, code) => {
    expect(await readJobBlob(make())).toMatchObject({ ok: false, faults: [{ code }] });
  });

  test("the numbers of entries and of bytes in all have their limits, told in the fault", async () => {
    const many = zipOf(Array.from({ length: 30 }, (_, i) => entry(`pictures/p${i}.jpg`, bytes(i + 1, 4000))));
    Object.assign(zipLimits, { entries: 29 });
    expect(await readJobBlob(many)).toMatchObject({ faults: [{ code: "zipEntries", values: { most: 29 } }] });
    Object.assign(zipLimits, { ...limits, wholeBytes: 100_000 });
    expect(await readJobBlob(many)).toMatchObject({ faults: [{ code: "zipLarge" }] });
    Object.assign(zipLimits, limits);
    expect(await readJobBlob(many)).toMatchObject({ faults: [{ code: "notAJobFile" }] });
  });

  test("folders that would be patterns are names like any other", async () => {
    const settings = Buffer.from(JSON.stringify({ format: "iron-keel-all", version: 1, settings: {} }));
    const folders = ["(a+)+$", `${"a".repeat(30)}!`, "[", "constructor"];
    const zip = zipOf([
      entry("settings.json", settings),
      ...folders.flatMap((folder) => [
        entry(`jobs/${folder}/job.keel.json`, Buffer.from("{}")),
        entry(`jobs/${folder}/pictures/p.jpg`, bytes(3, 50)),
      ]),
    ]);
    const began = performance.now();
    const read = await readAllBlob(zip);
    expect(read).toMatchObject({ ok: false });
    expect((read as { faults: { path: string }[] }).faults.map(({ path }) => path.split(": ")[0])).toEqual(
      folders,
    );
    // It hung for most of a minute; this is for what hangs, not for what is slow.
    expect(performance.now() - began).toBeLessThan(10_000);
  });
});

describe("everything in one file", () => {
  test("goes out and in without loss", async () => {
    const other = { ...file(), job: { ...file().job, id: "other", name: "Tern" }, pictures: pictures(1) };
    const all = { jobs: [{ ...file(), pictures: pictures(2) }, other], settings: { theme: "night" } };
    const read = await readAllBlob(await writeAllZip(all));
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    expect(read.settings).toEqual(all.settings);
    expect(read.jobs.map(({ job }) => job)).toEqual(all.jobs.map(({ job }) => job));
    for (const [i, { pictures: kept }] of read.jobs.entries())
      expect(await contents(kept)).toEqual(await contents(all.jobs[i]!.pictures));
  });

  test("one job with a fault refuses the whole, with its place", async () => {
    const bad = { ...file(), pictures: new Map() };
    const zip = await writeAllZip({ jobs: [bad], settings: {} });
    // A file whose job no longer fits its book: the kept plan is another one.
    const spoiled = { ...bad, snapshots: {} };
    expect((await readAllBlob(zip)).ok).toBe(true);
    const read = await readAllBlob(await writeAllZip({ jobs: [spoiled], settings: {} }));
    expect(read.ok).toBe(false);
    expect((read as { faults: { path: string }[] }).faults[0]?.path).toContain("marram: book[0]");
  });
});
