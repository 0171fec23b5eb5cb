/** The three demo jobs as 0.3.0 (version 1) and 0.4.0 (version 2) wrote them are kept as fixtures for ever. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { type FileFault, readJobFile, writeJobFile } from "./file";
import { migratePatches } from "./migrations";
import { VERSION } from "./version";

type Loose = Record<string, unknown>;
const names = ["marram", "unit-12", "reading-van"];
const first = (name: string) => readFileSync(`app/schemas/fixtures/v1/${name}.keel.json`, "utf8");

/** A dosing pump's share of its period is the time of its stroke since version 3; nothing is nudged since version 4. */
const withStrokes = <T>(value: T): T =>
  JSON.parse(JSON.stringify(value), (key, one: Loose) => {
    if (key === "nudges") return undefined;
    if (one?.kind !== "dosingPump") return one;
    const { drawShare, ...rest } = one;
    return { ...rest, strokeS: (drawShare as number) / (one.mostHz as number) };
  }) as T;

describe("a file of version 1", () => {
  test.each(names)("%s opens with everything that was in it", (name) => {
    const read = readJobFile(first(name));
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    const { book, keptRevisions, ...job } = (JSON.parse(first(name)) as { job: Loose }).job;
    expect(read.job).toEqual(withStrokes(job));
    const entries = book as Loose[];
    expect(read.book).toHaveLength(entries.length);
    entries.forEach(({ revision: _, ...entry }, i) => expect(read.book[i]).toMatchObject(entry));
    for (const { plan } of keptRevisions as { plan: Loose }[]) {
      const { conditions: _, nudges: __, duty: ___, ...built } = plan;
      expect(Object.values(read.snapshots).map((snapshot) => snapshot.plan)).toContainEqual(
        withStrokes(built),
      );
    }
  });

  test.each(names)("%s written again is of this version, and reads back the same", (name) => {
    const read = readJobFile(first(name));
    if (!read.ok) throw new Error("refused");
    const text = writeJobFile(read);
    expect(JSON.parse(text)).toMatchObject({ version: VERSION });
    expect(readJobFile(text)).toEqual(read);
  });

  test("its pictures come out of their text, byte for byte", async () => {
    const bytes = Uint8Array.from({ length: 300 }, (_, i) => (i * 7) % 256);
    const file = JSON.parse(first("marram")) as { job: { book: Loose[] } };
    const picture = `data:image/png;base64,${Buffer.from(bytes).toString("base64")}`;
    file.job.book.push({
      kind: "photo",
      id: "p1",
      at: "2026-01-01T00:00:00Z",
      planId: "planA",
      revision: 0,
      ofId: "portWing",
      note: "",
      picture,
    });
    const read = readJobFile(JSON.stringify(file));
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    expect(read.book.at(-1)).toMatchObject({ kind: "photo", pictureId: "p1" });
    const kept = read.pictures.get("p1");
    expect(kept?.type).toBe("image/png");
    expect(new Uint8Array((await kept?.full.arrayBuffer()) ?? [])).toEqual(bytes);
  });

  test("what named things that were gone is left behind, not refused", () => {
    const file = JSON.parse(first("marram")) as { job: { plans: { conditions: { loading: Loose } }[] } };
    file.job.plans[0]!.conditions.loading.long = 3;
    const read = readJobFile(JSON.stringify(file));
    expect(read.ok && Object.keys(read.job.plans[0]!.conditions.loading)).not.toContain("long");
  });

  test.each<[string, (job: Loose) => void]>([
    ["no plans", (job) => delete job.plans],
    ["a book that is no list of records", (job) => (job.book = ["x"])],
    ["tanks that are text", (job) => (job.tanks = "none")],
  ])("with %s is refused, not thrown", (_what, spoil) => {
    const file = JSON.parse(first("marram")) as { job: Loose };
    spoil(file.job);
    const read = readJobFile(JSON.stringify(file));
    expect(read.ok).toBe(false);
    const { faults } = read as { faults: FileFault[] };
    expect(faults.length).toBeGreaterThan(0);
  });
});

describe("a file of version 2", () => {
  const second = (name: string) => readFileSync(`app/schemas/fixtures/v2/${name}.keel.json`, "utf8");

  test.each(names)("%s opens as it was, and is written as this version", (name) => {
    const read = readJobFile(second(name));
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    const then = JSON.parse(second(name)) as { job: Loose; book: Loose[]; snapshots: Loose };
    expect(read.job).toEqual(withStrokes(then.job));
    const bare = (entries: readonly object[]) => entries.map((entry) => ({ ...entry, planHash: "" }));
    expect(bare(read.book)).toEqual(bare(then.book));
    expect(Object.values(read.snapshots)).toEqual(
      expect.arrayContaining(Object.values(withStrokes(then.snapshots))),
    );
    for (const { planHash } of read.book) expect(read.snapshots[planHash]).toBeDefined();
    expect(readJobFile(writeJobFile(read))).toEqual(read);
    expect(JSON.parse(writeJobFile(read))).toMatchObject({ version: VERSION });
  });

  test("keeps its undo, but for what set a dosing pump's share", () => {
    const patches = [{ op: "replace" as const, path: ["plans", 0, "name"], value: "B" }];
    expect(migratePatches(patches, 2)).toEqual(patches);
    const share = [{ op: "replace" as const, path: ["plans", 0, "parts", 1, "drawShare"], value: 0.3 }];
    expect(migratePatches(share, 2)).toBeNull();
  });
});

describe("a file of version 4", () => {
  const fourth = (name: string) => readFileSync(`app/schemas/fixtures/v4/${name}.keel.json`, "utf8");

  test.each(names)("%s opens with everything that was in it", (name) => {
    const read = readJobFile(fourth(name));
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    const { job, book, snapshots } = JSON.parse(fourth(name)) as Loose;
    expect({ job: read.job, book: read.book, snapshots: read.snapshots }).toEqual({ job, book, snapshots });
    expect(JSON.parse(writeJobFile(read))).toMatchObject({ version: VERSION });
  });

  test("with words that cannot be printed is cleaned: job, book and the plans it cites; prose keeps its lines", () => {
    const file = JSON.parse(fourth("marram")) as {
      job: { name: string; note: string; tanks: { name: string }[] };
      book: { kind: string; note?: string }[];
      snapshots: Record<string, { tanks?: { name: string }[] }>;
    };
    const wild = "Wing\r\nBEGIN:VEVENT\u0000\u2028";
    file.job.name = wild;
    file.job.note = "first\r\nsecond\u0000";
    file.job.tanks[0]!.name = wild;
    for (const kept of Object.values(file.snapshots)) if (kept.tanks?.[0]) kept.tanks[0].name = wild;
    const read = readJobFile(JSON.stringify(file));
    // The plans that were cited are under the hashes of what they were: the changed ones under those of what they are.
    if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 3)));
    const clean = "Wing  BEGIN:VEVENT  ";
    expect([read.job.name, read.job.note, read.job.tanks[0]?.name]).toEqual([clean, "first\nsecond ", clean]);
    for (const { tanks } of Object.values(read.snapshots)) if (tanks) expect(tanks[0]?.name).toBe(clean);
    expect(JSON.stringify(read)).not.toMatch(/\\u0000|\\r|\u2028/);
  });

  test("of this version with such words is refused, each with its place", () => {
    const file = JSON.parse(fourth("marram")) as { version: number; job: { name: string; note: string } };
    file.version = VERSION;
    for (const [field, value, isRight] of [
      ["name", "a\nb", false],
      ["name", "a\u0000", false],
      ["note", "a\nb\tc", true],
      ["note", "a\rb", false],
    ] as const) {
      const read = readJobFile(JSON.stringify({ ...file, job: { ...file.job, [field]: value } }));
      expect([field, value, read.ok]).toEqual([field, value, isRight]);
      if (!read.ok) expect(read.faults).toEqual([{ path: `job.${field}`, code: "controlCharacter" }]);
    }
  });

  test("keeps its undo, its words cleaned", () => {
    const named = [{ op: "replace" as const, path: ["plans", 0, "name"], value: "B\nC" }];
    expect(migratePatches(named, 4)).toEqual([{ ...named[0], value: "B C" }]);
  });
});

describe("records in one another without end", () => {
  test.each([
    ["lists", "[", "]"],
    ["records", '{"a":', "}"],
  ])("%s 5,000 deep are a fault with their place, not a crash", (_what, open, shut) => {
    const inner = `${open.repeat(5000)}1${shut.repeat(5000)}`;
    const read = readJobFile(`{"format":"iron-keel","version":${VERSION},"job":${inner}}`);
    expect(read).toMatchObject({ ok: false, faults: [{ code: "tooDeep" }] });
    expect((read as { faults: FileFault[] }).faults[0]?.path).toMatch(/^job/);
  });
});

describe("history at a migration", () => {
  const set = (path: (string | number)[]) => ({ op: "replace" as const, path, value: 1 });

  test("loses what has left the job, and keeps the rest", () => {
    const kept = set(["plans", 0, "name"]);
    expect(migratePatches([kept, set(["book", 3]), set(["keptRevisions", 0])], 1)).toEqual([kept]);
  });

  test("cannot carry a change of the whole", () => {
    expect(migratePatches([set([])], 1)).toBeNull();
  });
});

describe("keys that a record cannot hold", () => {
  test.each(["__proto__", "constructor", "toString", "hasOwnProperty"])("%s is refused as an id", (id) => {
    const text = JSON.stringify(JSON.parse(readFileSync("demo/marram.keel.json", "utf8"))).replaceAll(
      '"sep1"',
      `"${id}"`,
    );
    const read = readJobFile(text);
    expect(read.ok).toBe(false);
    expect((read as { faults: FileFault[] }).faults.map(({ code }) => code)).toContain("badId");
  });
});
