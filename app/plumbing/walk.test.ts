/** The drawing by arrows: along the hoses, over the branches, and back; nothing that is drawn cannot be come to. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { placedOf } from "~/core/drawing/placed";
import { buildNetwork } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { type Arrow, isArrow, stepFrom } from "./walk";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const arrows: Arrow[] = ["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown"];
const walkOf = (job: Job) => {
  const plan = currentPlan(job);
  const placed = placedOf(buildNetwork(job));
  return { plan, placed, step: (id: string, arrow: Arrow) => stepFrom(plan, placed, id, arrow) };
};

describe("Marram by arrows", () => {
  const { plan, placed, step } = walkOf(read("marram"));
  const hoseAt = (part: string, port: string) =>
    plan.runs.find(({ from, to }) => [from, to].some((end) => end.part === part && end.port === port))!;

  test("right goes from the pump to the hose on its outlet, on to what that meets, and left comes back", () => {
    const out = hoseAt("lift", "out");
    expect(step("lift", "ArrowRight")).toBe(out.id);
    const far = out.from.part === "lift" ? out.to.part : out.from.part;
    expect(step(out.id, "ArrowRight")).toBe(far);
    expect(step(out.id, "ArrowLeft")).toBe("lift");
  });

  test("down and up go over the branches that meet at one part", () => {
    const branches = plan.runs.filter(({ from, to }) => from.part === "supply" || to.part === "supply");
    expect(branches.length).toBeGreaterThan(2);
    const seen = new Set<string>();
    const ports = (id: string) => {
      const run = plan.runs.find((one) => one.id === id)!;
      const own = run.from.part === "supply" ? run.from : run.to;
      return placed.ports.get(`supply.${own.port}`)!.y;
    };
    const top = [...branches].sort((a, b) => ports(a.id) - ports(b.id))[0]!;
    for (let at: string | null = top.id; at && !seen.has(at); at = step(at, "ArrowDown")) seen.add(at);
    for (const { id } of branches) expect([...seen]).toContain(id);
  });

  test("what an arrow names is drawn, and no arrow leads to where it began", () => {
    for (const id of [...placed.nodes.keys(), ...plan.runs.map((run) => run.id)])
      for (const arrow of arrows) {
        const next = step(id, arrow);
        if (next === null) continue;
        expect(next).not.toBe(id);
        expect(placed.nodes.has(next) || placed.edges.has(next)).toBe(true);
      }
  });

  test("what is not drawn leads nowhere; only arrows are arrows", () => {
    for (const arrow of arrows) expect(step("nobody", arrow)).toBeNull();
    expect([isArrow("ArrowUp"), isArrow("Enter"), isArrow("ArrowUpward")]).toEqual([true, false, false]);
  });
});

test.each(["marram", "unit-12", "reading-van"])(
  "%s: every part and hose is come to from the first tank",
  (name) => {
    const job = read(name);
    const { plan, placed, step } = walkOf(job);
    const first = job.tanks.find(({ id }) => placed.nodes.has(id))!.id;
    const seen = new Set([first]);
    for (const id of seen)
      for (const arrow of arrows) {
        const next = step(id, arrow);
        if (next) seen.add(next);
      }
    for (const id of placed.nodes.keys()) expect([id, seen.has(id)]).toEqual([id, true]);
    const missed = plan.runs.filter(({ id }) => placed.edges.has(id) && !seen.has(id));
    expect(missed.map(({ id }) => id)).toEqual([]);
  },
);
