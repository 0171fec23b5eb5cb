/** What the steps of an order use up, put together, is what the plan needs by its own lists. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { jointNeeds, planJoints } from "../joints/joints";
import { elementsOf } from "../kinds/families";
import { clipLines } from "../parts/clips";
import { currentPlan } from "../plan/ports";
import type { Job } from "../plan/types";
import { derive } from "./derive";
import { type KitItem, kitOf } from "./kit";

describe.each(["marram", "unit-12", "reading-van"])("%s from nothing", (name) => {
  const { job } = JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job };
  const plan = currentPlan(job);
  const joints = planJoints(job, plan);
  const clips = clipLines(job, plan);
  const { steps } = derive(job, null, plan);
  const source = { job, plan, joints, clips };
  const all = steps.flatMap((step) => kitOf(source, step));
  const count = (kind: KitItem["what"]["kind"]) =>
    all.reduce((sum, item) => sum + (item.what.kind === kind ? item.count : 0), 0);

  test("washers and clamps are those of its joints, clips those of its lines, elements those of its filters", () => {
    const needs = jointNeeds(joints);
    expect(count("washer")).toBe(needs.washers);
    expect(count("clamp")).toBe(needs.clamps);
    expect(count("adapter")).toBe(needs.adapters.reduce((sum, one) => sum + one.count, 0));
    expect(count("clip")).toBe(clips.reduce((sum, line) => sum + line.clips.length, 0));
    expect(count("element")).toBe(elementsOf(plan.parts).length);
  });

  test("every powered part brings two wires and a fuse; what undoes or drains uses nothing up", () => {
    const wired = steps.filter(({ verb }) => verb === "wire");
    for (const step of wired) {
      const kinds = kitOf(source, step).map(({ what }) => what.kind);
      if (kinds.length > 0) expect(kinds.filter((kind) => kind === "wire").length).toBe(2);
    }
    for (const step of steps.filter(({ verb }) => ["undo", "drainBowl", "shutOff", "bleed"].includes(verb)))
      expect(kitOf(source, step)).toEqual([]);
  });
});
