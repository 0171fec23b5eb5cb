import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { applyCommand } from "~/core/edit/commands";
import { startJob } from "~/core/edit/starters";
import { buildNetwork } from "~/core/network/network";
import { randomJob } from "~/core/network/randomPlan.fixture";
import { newPart } from "~/core/plan/blank";
import { currentPlan } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { newPartKinds } from "~/messages/kinds";
import { settingText } from "~/messages/settingText";
import { edgePath } from "./edges";
import { plumbingGraph } from "./graph";
import { labelRoom } from "./labelRoom";
import { LINE_PX, wrapped } from "./labels";
import { toElk } from "./layout.client";

const graphOf = (job: Job) => plumbingGraph(job, currentPlan(job), buildNetwork(job));
const marram = (JSON.parse(readFileSync("demo/marram.keel.json", "utf8")) as { job: Job }).job;

describe("the graph to be laid out", () => {
  const graph = graphOf(marram);
  const edge = (id: string) => graph.edges.find((one) => one.id === id);

  test("supply runs with its flow from left to right, return against it, so that nothing has to run back", () => {
    expect(edge("run1")).toMatchObject({ source: "valveP.b", target: "supply.port" });
    expect(edge("run12")).toMatchObject({ source: "second.out", target: "engine.feed" });
    expect(edge("run13")).toMatchObject({ source: "teeRet.a", target: "engine.return" });
    expect(edge("run17")).toMatchObject({ source: "portWing.ret", target: "returns.port" });
  });

  test("a part meets what comes from the tanks on its left and what goes to the engine on its right", () => {
    for (const { nodes, edges } of [graph, graphOf(startJob("s", "S", "twoTanksTwoSelectors"))]) {
      const sides = new Map(nodes.flatMap(({ ports }) => ports.map(({ id, side }) => [id, side])));
      for (const { source, target } of edges) {
        expect(sides.get(source)).toBe("EAST");
        expect(sides.get(target)).toBe("WEST");
      }
    }
  });

  test("no plan, however joined, gives an edge to a port that is not drawn", () => {
    for (let seed = 0; seed < 40; seed++) {
      const { nodes, edges } = graphOf(randomJob(seed));
      const ports = new Set(nodes.flatMap((node) => node.ports.map(({ id }) => id)));
      for (const { source, target } of edges) {
        expect(ports.has(source)).toBe(true);
        expect(ports.has(target)).toBe(true);
        expect(source).not.toBe(target);
      }
    }
  });

  test("hoses go on a tank where they really do: the higher port higher, and apart enough to be told", () => {
    const tank = graph.nodes.find(({ id }) => id === "portWing");
    const y = (id: string) => tank?.ports.find((port) => port.id === id)?.y ?? 0;
    expect(y("portWing.ret")).toBeLessThan(y("portWing.out") - 10);
  });

  test("a slider or a nudge does not change it: the drawing stands still", () => {
    const moved = applyCommand(applyCommand(marram, { name: "nudge", id: "lift", dx: 9, dy: 9 }).job, {
      name: "setConditions",
      change: { fuelC: -4 },
    }).job;
    expect(graphOf(moved)).toEqual(graph);
  });

  test("a name takes the room it needs, beside and under its part, and moves no port", () => {
    const named = (name: string) =>
      graphOf(applyCommand(marram, { name: "editPart", id: "lift", change: { name } }).job).nodes.find(
        ({ id }) => id === "lift",
      );
    const short = named("Pump");
    const long = named("Pump of the longest conceivable denomination");
    expect(long?.label?.height).toBeGreaterThan((short?.label?.height ?? 0) + 40);
    expect(long?.label?.width).toBeGreaterThan(12 * 6);
    expect({ ...long, label: null }).toEqual({ ...short, label: null });
  });
});

describe("names in lines", () => {
  test("at natural size a long name stands in two even lines, a short one in one", () => {
    expect(wrapped("Polish valve")).toEqual(["Polish valve"]);
    expect(wrapped("Starboard tank valve")).toEqual(["Starboard", "tank valve"]);
    expect(wrapped("Windscreenwasher")).toEqual(["Windscreenwasher"]);
  });

  test("large beside its part it stands in as many lines as it needs, no word is lost and none is broken", () => {
    const name = "Starboard engine transfer shut-off valve";
    const lines = wrapped(name, 1.4);
    expect(lines.join(" ")).toBe(name);
    for (const line of lines) expect(line.length <= 11 || !line.includes(" ")).toBe(true);
  });

  test("every kind of part has room for its name, or says it elsewhere", () => {
    const named: string[] = ["tee", "bank", "gauge"];
    for (const { id } of newPartKinds) {
      const room = labelRoom(newPart(id, "p", { xM: 0, yM: 0, zM: 0 }));
      if (named.includes(id)) expect(room).toBeNull();
      else expect(room?.height).toBeGreaterThanOrEqual(LINE_PX);
    }
  });
});

describe("the way of a hose on the drawing", () => {
  const none = { x: 0, y: 0 };
  const points = (d: string) =>
    [...d.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)]);

  test("goes from end to end over its corners", () => {
    const d = edgePath([none, { x: 50, y: 0 }, { x: 50, y: 40 }, { x: 90, y: 40 }], none, none);
    expect(points(d)[0]).toEqual([0, 0]);
    expect(points(d).at(-1)).toEqual([90, 40]);
    expect(d.match(/Q/g)).toHaveLength(2);
  });

  test("follows a part that was nudged, and stays at right angles", () => {
    const straight = edgePath([none, { x: 90, y: 0 }], none, { x: 10, y: 30 });
    expect(points(straight).at(-1)).toEqual([100, 30]);
    expect(straight.match(/Q/g)).toHaveLength(2);
    const bent = edgePath([none, { x: 50, y: 0 }, { x: 50, y: 40 }, { x: 90, y: 40 }], { x: 0, y: 12 }, none);
    expect(points(bent)[0]).toEqual([0, 12]);
    expect(bent).toContain("Q50 12");
  });
});

test("a setting is said in the valve's own words", () => {
  const part = (id: string) => currentPlan(marram).parts.find((one) => one.id === id)!;
  expect(settingText(part("returns"), { kind: "branches", open: ["port", "day"] })).toBe("open: port, day");
  expect(settingText(part("returns"), { kind: "branches", open: [] })).toBe("all shut");
  expect(settingText(part("valveP"), { kind: "position", position: "open" })).toBe("open");
  expect(settingText(part("valveP"), undefined)).toBe("not set");
});

describe("the layouter takes every plan", () => {
  const laid = async (job: Job) => {
    const { default: Elk } = await import("elkjs/lib/elk.bundled.js");
    return new Elk().layout(toElk(graphOf(job)));
  };

  test("a hose from tank to tank, both ways, and in a ring", async () => {
    const job = startJob("j", "J", "threeTanks");
    const ids = job.tanks.map(({ id }) => id);
    const spare = (tank: string, port: string, role: "outlet" | "return") => {
      const one = job.tanks.find(({ id }) => id === tank)!;
      return { ...one.ports[0]!, id: port, name: port, role };
    };
    const withPorts = ids.reduce(
      (now, id) =>
        applyCommand(now, {
          name: "editTank",
          id,
          change: {
            ports: [
              ...now.tanks.find((tank) => tank.id === id)!.ports,
              spare(id, "x", "outlet"),
              spare(id, "y", "return"),
            ],
          },
        }).job,
      job,
    );
    const ring = ids.reduce(
      (now, id, i) =>
        applyCommand(now, {
          name: "connect",
          id: `ring${i}`,
          from: { part: id, port: "x" },
          to: { part: ids[(i + 1) % ids.length] as string, port: "y" },
        }).job,
      withPorts,
    );
    const placed = await laid(ring);
    expect(placed.children).toHaveLength(graphOf(ring).nodes.length);
    expect((placed.edges ?? []).every(({ sections }) => (sections ?? []).length > 0)).toBe(true);
  });

  test.each(["marram", "unit-12", "reading-van"])("%s", async (name) => {
    const { job } = JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job };
    expect((await laid(job)).children).toHaveLength(graphOf(job).nodes.length);
  });
});
