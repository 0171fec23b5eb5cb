import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { applyCommand } from "../edit/commands";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { checkBook } from "./check";
import type { BookEntry, Strike } from "./entries";
import { hashOf, type Snapshot, snapshotOf } from "./snapshot";
import { standingOf } from "./standing";

interface File {
  job: Job;
  book: BookEntry[];
  snapshots: Record<string, Snapshot>;
}
const marram = (): File => JSON.parse(readFileSync("demo/marram.keel.json", "utf8"));
/** Entries that the demo job has of its own. */
const OWN = marram().book.length;
const base = {
  at: "2026-01-01T00:00:00Z",
  planId: "planA",
  planHash: marram().book.find(({ planId }) => planId === "planA")?.planHash ?? "",
};
const dip = (id: string): BookEntry => ({ ...base, kind: "dip", id, tankId: "dayTank", depthM: 0.1 });
const strike = (id: string, entryId: string): Strike => ({ ...base, kind: "strike", id, entryId });
const ids = (entries: readonly BookEntry[]) => entries.map(({ id }) => id);

describe("what stands in a book", () => {
  test("an entry that is struck no longer counts; struck by mistake, it counts again", () => {
    const book = [dip("a"), dip("b"), strike("s", "a")];
    expect(ids(standingOf(book))).toEqual(["b"]);
    expect(ids(standingOf([...book, strike("t", "s")]))).toEqual(["a", "b"]);
  });

  test("does not hang on the order of the rows: two devices' books may be joined either way", () => {
    const ring = fc
      .array(fc.nat(20), { minLength: 1, maxLength: 20 })
      .map((of) => [dip("e0"), ...of.map((at, i) => strike(`e${i + 1}`, `e${at % (i + 1)}`))]);
    fc.assert(
      fc.property(ring, fc.infiniteStream(fc.nat()), (book, order) => {
        const mixed = book
          .map((entry) => [order.next().value as number, entry] as const)
          .sort(([a], [b]) => a - b)
          .map(([, entry]) => entry);
        expect(new Set(ids(standingOf(mixed)))).toEqual(new Set(ids(standingOf(book))));
      }),
      { numRuns: 60 },
    );
  });

  test("a ring of strikes ends, and is a fault of the file", () => {
    const book = [dip("a"), strike("s", "t"), strike("t", "s")];
    expect(() => standingOf(book)).not.toThrow();
    const codes = checkBook(book, marram().snapshots).map(({ code }) => code);
    expect(codes).toContain("strikesRound");
  });
});

describe("plans that a book cites", () => {
  test("the hash is SHA-256 of the content, as another library has it", () => {
    const snapshot = { plan: { b: 2, a: [1, { d: "x", c: null }] } } as unknown as Snapshot;
    const text = '{"plan":{"a":[1,{"c":null,"d":"x"}],"b":2}}';
    expect(hashOf(snapshot)).toBe(createHash("sha256").update(text).digest("hex").slice(0, 32));
  });

  test("one content has one hash: conditions and places on the drawing do not count, a bore does", () => {
    const { job } = marram();
    const hash = (one: Job) => snapshotOf(one, currentPlan(one)).hash;
    const warmer = applyCommand(job, { name: "setConditions", change: { fuelC: 3 } }).job;
    const moved = applyCommand(warmer, { name: "put", id: "lift", x: 4, y: 0 }).job;
    expect(hash(moved)).toBe(hash(job));
    const wider = applyCommand(job, { name: "editPart", id: "lift", change: { boreM: 0.011 } }).job;
    expect(hash(wider)).not.toBe(hash(job));
  });
});

describe("faults of a book", () => {
  const faults = (change: (file: File) => void) => {
    const file = marram();
    change(file);
    return checkBook(file.book, file.snapshots).map(({ path, code }) => `${path}: ${code}`);
  };
  const first = (file: File) => file.book[0] as unknown as Record<string, unknown>;

  test("the demo job has none", () => {
    expect(faults(() => undefined)).toEqual([]);
  });

  test.each<[string, (file: File) => void, string]>([
    ["an id twice", (f) => f.book.push(f.book[0]!), `book[${OWN}].id: duplicateId`],
    ["a gauge that was not there", (f) => (first(f).gaugeId = "nobody"), "book[0].gaugeId: missingPart"],
    ["a line-up that was not there", (f) => (first(f).lineUpId = "none"), "book[0].lineUpId: missingPart"],
    [
      "loading of no element",
      (f) => ((first(f).conditions as { loading: Record<string, number> }).loading.gone = 2),
      "book[0].conditions.loading.gone: missingPart",
    ],
    [
      "a plan that is not kept",
      (f) => (first(f).planHash = "0".repeat(32)),
      "book[0].planHash: missingSnapshot",
    ],
    ["another plan's hash", (f) => (first(f).planId = "planB"), "book[0].planId: otherPlan"],
    [
      "a dip of no tank",
      (f) => f.book.push({ ...dip("x"), tankId: "none" } as BookEntry),
      `book[${OWN}].tankId: missingPart`,
    ],
    ["a strike of nothing", (f) => f.book.push(strike("x", "none")), `book[${OWN}].entryId: missingEntry`],
    [
      "a kept plan that was changed",
      (f) => (f.snapshots[base.planHash]!.plan.name = "other"),
      `snapshots.${base.planHash}: hashDiffers`,
    ],
  ])("%s", (_what, change, place) => {
    expect(faults(change)).toContain(place);
  });
});
