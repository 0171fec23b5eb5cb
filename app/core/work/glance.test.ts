/** A job at a glance: the worst finding first, each grade counted, what was set aside left out. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import type { BookEntry, SetAside } from "../book/entries";
import { standingOf } from "../book/standing";
import { findingsOf } from "../findings/findings";
import type { Job } from "../plan/types";
import { glanceOf } from "./glance";

const TODAY = new Date("2026-11-26T00:00:00Z");
const { job, book } = JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as {
  job: Job;
  book: BookEntry[];
};

describe("Marram", () => {
  const glance = glanceOf(job, standingOf(book), TODAY);
  const all = findingsOf(job, standingOf(book), undefined, undefined, TODAY);

  test("tells its Stop first, and counts what the findings count", () => {
    expect(glance.worst).toMatchObject({ grade: "stop", rule: all[0]!.rule });
    for (const grade of ["stop", "mend", "watch"] as const)
      expect(glance.counts[grade]).toBe(all.filter((one) => one.grade === grade).length);
    expect(glance.awaited).toBe(0);
    expect(glance.due[0]?.on).not.toBeNull();
  });

  test("with its Stop set aside tells the next, and one fewer", () => {
    const stop = all[0]!;
    const aside: SetAside = {
      id: "aside",
      at: "2026-11-01T00:00:00Z",
      planId: job.currentPlanId,
      planHash: "",
      kind: "setAside",
      rule: stop.rule,
      ids: stop.ids,
      lineUpId: null,
      ...(stop.about === undefined ? {} : { about: stop.about }),
      reason: "known",
      figure: null,
    };
    const after = glanceOf(job, [...standingOf(book), aside], TODAY);
    expect(after.counts.stop).toBe(glance.counts.stop - 1);
    expect(after.worst?.grade).toBe("mend");
  });
});

test("what is awaited by the plan in work is counted, and a job with nothing in it has nothing to tell", () => {
  const unit = (JSON.parse(readFileSync("demo/unit-12.keel.json", "utf8")) as { job: Job }).job;
  expect(glanceOf({ ...unit, currentPlanId: "planB" }, [], TODAY).awaited).toBe(1);
  expect(glanceOf(unit, [], TODAY).awaited).toBe(0);
});
