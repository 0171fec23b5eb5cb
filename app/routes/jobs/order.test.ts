/** The job list sorted and sought: by every order, and by words wherever they stand. */
import { describe, expect, test } from "@jest/globals";
import type { Glance } from "~/schemas/noted";
import type { JobSummary } from "~/store/list";
import { inOrder } from "./order";

const job = (id: string, name: string, updatedAt: string, note = ""): JobSummary => ({
  id,
  name,
  note,
  kind: "boat",
  tanks: 1,
  parts: 3,
  updatedAt,
  exportedAt: null,
  changedSinceExport: true,
  mark: "m",
  isNewer: false,
});
const glance = (grade: "stop" | "mend" | null, on: string | null, text = "Separator: element"): Glance => ({
  mark: "m",
  worst: grade ? { grade, title: `${grade}: return shut` } : null,
  counts: { stop: 0, mend: 0, watch: 0 },
  due: on ? [{ uid: "u", on, text, detail: "" }] : [],
  awaited: 0,
  sketch: null,
  changed: null,
});
const jobs = [
  job("a", "Tern", "2026-03-01", "a tender"),
  job("b", "Gannet", "2026-05-01"),
  job("c", "Auk", "2026-04-01"),
];
const glances = new Map([
  ["a", glance("mend", "2026-06-01")],
  ["b", glance("stop", null)],
]);
const ids = (...[order, sought = ""]: [Parameters<typeof inOrder>[2], string?]) =>
  inOrder(jobs, glances, order, sought)
    .map(({ id }) => id)
    .join("");

describe("the list", () => {
  test("in each of its orders; what is not worked out yet, and what has nothing due, stands last", () => {
    expect(ids("changed")).toBe("bca");
    expect(ids("name")).toBe("cba");
    expect(ids("worst")).toBe("bac");
    expect(ids("due")).toBe("acb");
  });

  test("sought by words in any letters, all of them, wherever they stand", () => {
    expect(ids("name", "TENDER")).toBe("a");
    expect(ids("name", "element tern")).toBe("a");
    expect(ids("name", "return shut")).toBe("ba");
    expect(ids("name", "gannet tender")).toBe("");
    expect(ids("name", "  ")).toBe("cba");
  });

  test("the jobs that it was given stay as they are", () => {
    inOrder(jobs, glances, "name", "");
    expect(jobs.map(({ id }) => id).join("")).toBe("abc");
  });
});
