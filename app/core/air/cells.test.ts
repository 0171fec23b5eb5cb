/** A plan cut into cells: nothing of it is lost or twice there, and what flow costs is shared out whole. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { HEAD_SHARE, isSealed } from "../kinds/filtering";
import { buildNetwork } from "../network/network";
import { postureOf } from "../network/posture";
import { currentPlan } from "../plan/ports";
import { runVolumeM3 } from "../plan/route";
import type { Job } from "../plan/types";
import { type AirMesh, airMesh } from "./cells";
import { randomLine } from "./lines.fixture";

const read = (name: string) =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const meshOf = (job: Job, trim?: { pitchDeg: number; rollDeg: number }): AirMesh => {
  const network = buildNetwork(job);
  return airMesh(network, postureOf(network, trim));
};
const jobs: [string, () => Job][] = [
  ["Marram", () => read("marram")],
  ["Unit 12", () => read("unit-12")],
  ["the van", () => read("reading-van")],
  ...[5, 15, 26, 103].map((seed): [string, () => Job] => [`line ${seed}`, () => randomLine(seed)]),
];

describe.each(jobs)("%s", (_, load) => {
  const job = load();
  const mesh = meshOf(job);
  const { cells, faces, network } = mesh;

  test("holds in its hoses what its hoses hold", () => {
    for (const link of network.links) {
      if (link.kind !== "run" || link.geometry.lengthM <= 0) continue;
      const own = mesh.cellsOf.get(link.id) ?? [];
      const held = own.reduce((sum, cell) => sum + (cells.volumeM3[cell] as number), 0);
      expect(held / runVolumeM3(link.run.boreM, link.geometry.lengthM)).toBeCloseTo(1, 9);
      // From end to end in order, without a gap.
      own.slice(1).forEach((cell, i) => {
        expect(cells.fromM[cell]).toBeCloseTo(cells.toM[own[i] as number] as number, 9);
        expect(cells.fromZM[cell]).toBeCloseTo(cells.toZM[own[i] as number] as number, 9);
      });
      expect(own.length).toBeLessThanOrEqual(20);
    }
  });

  test("shares out all that flow costs over the faces of each link, and its constant once", () => {
    network.links.forEach((link, i) => {
      const own = mesh.facesOf[i] as readonly number[];
      expect(own.length).toBeGreaterThan(0);
      const share = own.reduce((sum, f) => sum + (faces.share[f] as number), 0);
      expect(share).toBeCloseTo(1, 9);
      if (link.kind !== "run") expect(own.filter((f) => faces.isFirst[f]).length).toBe(1);
    });
  });

  test("has no cell without room, and no face that leads nowhere", () => {
    for (let c = 0; c < cells.count; c++) expect(cells.volumeM3[c]).toBeGreaterThan(0);
    const ends = cells.count + job.tanks.length + 1;
    for (let f = 0; f < faces.count; f++) {
      for (const end of [faces.from[f] as number, faces.to[f] as number]) {
        expect(end).toBeGreaterThanOrEqual(0);
        expect(end).toBeLessThan(ends);
      }
      expect(faces.from[f]).not.toBe(faces.to[f]);
      expect(Math.abs(faces.sine[f] as number)).toBeLessThanOrEqual(1);
    }
    for (let node = 0; node < network.topology.unknowns; node++)
      expect(mesh.cellOfNode[node]).toBeGreaterThanOrEqual(0);
  });

  test("gives each filter the volume of its sheet, its outlet under the room of its head", () => {
    for (const part of currentPlan(job).parts) {
      const cell = mesh.vesselOf.get(part.id);
      if (cell === undefined || part.kind !== "filter") continue;
      expect(cells.volumeM3[cell]).toBe(part.volumeM3);
      // A sealed one has no lid, and no room over its outlet.
      expect(mesh.lidOf.has(part.id)).toBe(!isSealed(part));
      if (isSealed(part)) continue;
      const lid = faces.zM[mesh.lidOf.get(part.id) as number] as number;
      const link = network.links.findIndex((one) => one.kind === "filter" && one.part.id === part.id);
      const out = faces.zM[(mesh.facesOf[link] as readonly number[])[1] as number] as number;
      expect(lid - out).toBeGreaterThanOrEqual(HEAD_SHARE * (cells.tallM[cell] as number) - 1e-9);
    }
  });
});

test("a boat that lies over has its cells where they then stand", () => {
  const level = meshOf(read("marram"));
  const over = meshOf(read("marram"), { pitchDeg: 0, rollDeg: 15 });
  expect(over.cells.count).toBe(level.cells.count);
  const moved = Array.from(over.cells.zM, (z, c) => Math.abs(z - (level.cells.zM[c] as number)));
  expect(Math.max(...moved)).toBeGreaterThan(0.1);
  expect([...over.cells.volumeM3]).toEqual([...level.cells.volumeM3]);
});
