import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { renderToStaticMarkup } from "react-dom/server";
import { drawnHoses, drawnNodes } from "~/core/drawing/nodes";
import type { Placed } from "~/core/drawing/placed";
import { startJob } from "~/core/edit/starters";
import { gaugeAtPort, returnLinks } from "~/core/hydraulics/derive";
import { judgeAll, type LineUpVerdict } from "~/core/hydraulics/worst";
import type { Part } from "~/core/kinds/index";
import { buildNetwork } from "~/core/network/network";
import { newPart, newTank } from "~/core/plan/blank";
import { currentPlan, portKey, portsOf } from "~/core/plan/ports";
import type { Job } from "~/core/plan/types";
import { metricUnits } from "~/core/units/format";
import { newPartKinds } from "~/messages/kinds";
import { drawnEdges, flowMarks, MARK_UNITS } from "./edges";
import { TankGlyph } from "./glyphs";
import { needleRad } from "./kinds/gauge";
import { PartNode, TankNode } from "./nodes";
import { Plumbing } from "./Plumbing";

const read = (name: string): Job =>
  (JSON.parse(readFileSync(`demo/${name}.keel.json`, "utf8")) as { job: Job }).job;
const verdictOf = (job: Job, name: string): LineUpVerdict => {
  const network = buildNetwork(job);
  const found = judgeAll(network, network.plan.conditions).find(({ lineUp }) => lineUp.name === name);
  if (!found) throw new Error(`no line-up ${name}`);
  return found;
};

const empty = (): Placed => ({
  width: 0,
  height: 0,
  nodes: new Map(),
  ports: new Map(),
  edges: new Map(),
  cells: new Map(),
});

/** Parts in a row, hoses straight from one to the other: a layout that needs no layouter. */
function inARow(job: Job): Placed {
  const network = buildNetwork(job);
  const nodes = drawnNodes(network, {});
  const placed = empty();
  nodes.forEach(({ id, kind, widthPx, heightPx, rowPx, ports }, i) => {
    placed.nodes.set(id, { x: i * 200, y: 0, width: widthPx, height: heightPx, bodyHeight: heightPx, kind });
    for (const { key, side, row } of ports)
      placed.ports.set(key, { x: i * 200 + (side === "WEST" ? 0 : widthPx), y: rowPx + 12 * row, side });
  });
  for (const { id, from, to } of drawnHoses(network, nodes))
    placed.edges.set(id, [placed.ports.get(from)!, placed.ports.get(to)!]);
  return placed;
}

function drawn(job: Job, verdict: LineUpVerdict | null, extra: object = {}): string {
  return renderToStaticMarkup(
    <svg>
      <Plumbing
        network={buildNetwork(job)}
        placed={inARow(job)}
        verdict={verdict}
        units={metricUnits}
        selectedId={null}
        glowIds={[]}
        onSelect={() => undefined}
        scale={1}
        {...extra}
      />
    </svg>,
  );
}

/** The markup of one button of the drawing, by its name. */
function button(markup: string, label: string): string {
  const at = markup.indexOf(`aria-label="${label}`);
  if (at < 0) throw new Error(`nothing is named ${label}`);
  const next = markup.indexOf('role="button"', at);
  return markup.slice(at, next < 0 ? undefined : next);
}

/** A part by itself, its first port to the left or, turned, to the right. */
const alone = (part: Part, verdict: LineUpVerdict | null = null, isTurned = false) => {
  const placed = empty();
  portsOf(part).forEach(({ id }, i) => {
    const isWest = (i === 0) !== isTurned;
    placed.ports.set(`${part.id}.${id}`, { x: isWest ? 0 : 60, y: 20 + i, side: isWest ? "WEST" : "EAST" });
  });
  return renderToStaticMarkup(
    <svg>
      <PartNode
        part={part}
        placed={placed}
        box={{ x: 0, y: 0, width: 60, height: 90 }}
        verdict={verdict}
        passing={undefined}
        units={metricUnits}
        text={1}
      />
    </svg>,
  );
};

describe("every kind of part", () => {
  const kinds = newPartKinds.map(({ id }) => id);
  const nameless = (id: (typeof kinds)[number]) =>
    alone({ ...newPart(id, "p", { xM: 0, yM: 0, zM: 0 }), name: "X" } as Part);

  test("is drawn in a way of its own", () => {
    const seen = new Map<string, string>();
    for (const kind of kinds) {
      const drawing = nameless(kind);
      expect(drawing.length).toBeGreaterThan(40);
      expect(seen.get(drawing) ?? kind).toBe(kind);
      seen.set(drawing, kind);
    }
    expect(seen.size).toBe(kinds.length);
  });

  test("stands within numbers: nothing is drawn at NaN", () => {
    for (const kind of kinds) expect(nameless(kind)).not.toMatch(/NaN|undefined|Infinity/);
  });

  test("bears its name, but for tees and gauges, which say what they join and read", () => {
    for (const kind of kinds)
      if (kind !== "tee" && kind !== "gauge") expect(nameless(kind)).toContain(">X</text>");
  });
});

describe("parts as they stand", () => {
  test("a lever lies along the pipe when open and across it when shut", () => {
    const job = read("marram");
    const run = verdictOf(job, "Run on port wing");
    const lever = (position: string) => {
      const valve = job.plans[0]!.parts.find(({ id }) => id === "valveP") as Part;
      const valves = { ...run.lineUp.valves, valveP: { kind: "position" as const, position } };
      return alone(valve, { ...run, lineUp: { ...run.lineUp, valves } });
    };
    expect(lever("shut")).toContain("rotate(90");
    expect(lever("open")).not.toContain("rotate");
  });

  test("a pump that is off says so, and one that is on lifts what is computed", () => {
    const run = verdictOf(read("unit-12"), "Run");
    const markup = drawn(read("unit-12"), run);
    const station = run.way?.stations.find(({ id }) => id === "lift");
    const rise = ((station?.afterPa ?? 0) - (station?.beforePa ?? 0)) / 1000;
    expect(button(markup, "Frame pump")).toContain(`+${rise.toPrecision(3)} kPa`);
    expect(button(markup, "Frame pump")).not.toContain(">off<");
    expect(button(markup, "Transfer pump")).toContain(">off<");
  });

  test("flow to the left turns what has an arrow", () => {
    const at = { xM: 0, yM: 0, zM: 0 };
    for (const kind of ["check", "relief", "jetPump", "liftPump", "strainer"] as const) {
      const part = newPart(kind, "p", at);
      expect(alone(part, null, true)).not.toBe(alone(part));
    }
    expect(alone(newPart("check", "p", at), null, true)).toContain("scale(-1 1)");
    expect(alone(newPart("check", "p", at))).not.toContain("scale");
  });

  test("a filter without its element is crossed out", () => {
    const filter = read("unit-12").plans[0]!.parts.find(({ id }) => id === "fine") as Part;
    const cross = 'stroke="var(--danger)"';
    expect(alone(filter)).not.toContain(cross);
    expect(alone({ ...filter, element: null } as Part)).toContain(cross);
  });

  test("a gauge's needle goes from stop to stop over its dial, the one way by vacuum, the other by pressure", () => {
    expect(needleRad(0, "vacuum")).toBeCloseTo(-2.2);
    expect(needleRad(-25000, "vacuum")).toBeCloseTo(0);
    expect(needleRad(-80000, "vacuum")).toBeCloseTo(2.2);
    expect(needleRad(30000, "vacuum")).toBeCloseTo(-2.2);
    expect(needleRad(50000, "pressure")).toBeCloseTo(0);
    expect(needleRad(-5000, "pressure")).toBeCloseTo(-2.2);
    const gauge = newPart("gauge", "p", { xM: 0, yM: 0, zM: 0 });
    expect(alone(gauge)).not.toContain("var(--vacuum)");
    const job = read("marram");
    const verdict = verdictOf(job, "Run on port wing");
    const fitted = job.plans[0]!.parts.find(({ kind }) => kind === "gauge") as Part;
    expect(alone(fitted, verdict)).toContain("var(--vacuum)");
  });

  test("the surface in a tank stands at its level, as wide as the tank is there", () => {
    const tank = newTank("t", "T", { xM: 0, yM: 0, zM: 0 });
    const surface = (levelM: number) => {
      const markup = renderToStaticMarkup(<TankGlyph tank={tank} levelM={levelM} width={100} height={80} />);
      const [, x1, x2, y1] = /<line x1="([\d.-]+)" x2="([\d.-]+)" y1="([\d.-]+)"/.exec(markup)!.map(Number);
      return { width: (x2 as number) - (x1 as number), y: y1 as number };
    };
    const { shape } = tank;
    if (shape.kind !== "box") throw new Error("the blank tank is a box");
    expect(surface(shape.heightM / 2)).toEqual({ width: 100, y: 40 });
    expect(surface(shape.heightM / 4).y).toBeCloseTo(60);
  });
});

describe("the plumbing of a line-up", () => {
  const job = read("marram");
  const run = verdictOf(job, "Run on port wing");
  const markup = drawn(job, run);

  test("every part, tank and hose can be chosen by its name", () => {
    const { plan } = buildNetwork(job);
    expect(markup.match(/role="button"/g)).toHaveLength(
      plan.parts.length + job.consumers.length + job.tanks.length + plan.runs.length,
    );
    expect(markup).not.toMatch(/NaN|undefined/);
  });

  /** Taken from the solution itself: what flows by its pressure and side, what rests thin. */
  test("each hose is drawn by what the fuel in it does", () => {
    if (run.result.outcome !== "solved") throw new Error("not solved");
    const { result } = run;
    const returns = returnLinks(result);
    const drawings = markup.split('role="button"');
    const seen = new Set<string>();
    for (const item of currentPlan(job).runs) {
      const index = result.network.linkOf.get(item.id)!;
      const [from, to] = [item.from, item.to].map((ref) => result.network.ports.get(portKey(ref))!);
      const label = `Hose from ${from!.ownerName} to ${to!.ownerName}`;
      const own = drawings.filter((one) => one.includes(label));
      if (own.length !== 1) continue;
      const gauge = (gaugeAtPort(result, portKey(item.from)) + gaugeAtPort(result, portKey(item.to))) / 2;
      const flows = result.flow[index] !== 0;
      const colour = !flows ? "idle" : returns[index] ? "back" : gauge < 0 ? "vacuum" : "pressure";
      expect(`${label} ${own[0]}`).toContain(`stroke="var(--${colour})"`);
      expect(own[0]!.includes('stroke-dasharray="8 5"')).toBe(colour === "back");
      seen.add(colour);
    }
    expect([...seen].sort()).toEqual(["back", "idle", "pressure", "vacuum"]);
  });

  test("a valve screwed to a tank is joined to it by what passes the valve", () => {
    const { joints } = currentPlan(job);
    const tanks = job.tanks.map(({ id }) => id);
    const atTank = joints.filter(({ from, to }) => tanks.includes(from.part) || tanks.includes(to.part));
    expect(atTank.length).toBeGreaterThan(0);
    const only = (id: string) => {
      const placed = inARow(job);
      for (const other of [...placed.edges.keys()]) if (other !== id) placed.edges.delete(other);
      placed.nodes.clear();
      return drawn(job, run, { placed });
    };
    const colours = atTank.map(({ id, from, to }) => {
      const flows = [from.part, to.part].includes("portWing");
      expect(only(id)).toMatch(flows ? /var\(--(pressure|vacuum)\)/ : /var\(--idle\)/);
      return flows;
    });
    expect(new Set(colours).size).toBe(2);
  });

  test("every engine that runs shows its own line at work, not only the one on the Keel", () => {
    const twin = startJob("t", "T", "twinEngine");
    const both = verdictOf(twin, "Run both");
    const markup = drawn(twin, both);
    expect(markup.match(/in\u00a0use/g)).toHaveLength(2);
    expect(markup).not.toContain("stand-by");
    expect(markup.match(/>off</g)).toBeNull();
  });

  test("a dosing pump that holds fuel back shows it with one sign", () => {
    const heater = startJob("h", "H", "heater");
    const [lineUp] = currentPlan(heater).lineUps;
    const markup = button(drawn(heater, verdictOf(heater, lineUp?.name ?? "")), "Dosing pump");
    expect(markup).toMatch(/>[+−][\d.]+ kPa</);
  });

  test("marks move only where fuel does, each its own way and as fast as the fuel", () => {
    if (run.result.outcome !== "solved") throw new Error("not solved");
    const { network, flow } = run.result;
    const marks = flowMarks(network, inARow(job), run);
    const flowing = currentPlan(job).runs.filter(({ id }) => flow[network.linkOf.get(id)!] !== 0);
    expect(marks).toHaveLength(flowing.length);
    for (const { speed } of marks) {
      expect(Math.abs(speed)).toBeGreaterThanOrEqual(MARK_UNITS / 6 - 1e-9);
      expect(Number.isFinite(speed)).toBe(true);
    }
    expect(flowMarks(network, inARow(job), null)).toEqual([]);
  });

  test("without a solution everything rests", () => {
    const rest = drawn(job, null);
    expect(rest).not.toMatch(/var\(--(vacuum|pressure|back)\)/);
    expect(button(rest, "Engine")).toContain("stopped");
  });

  test("a part in focus glows, and one that another plan has otherwise bears a sign that needs no colour", () => {
    expect(button(drawn(job, run, { glowIds: ["sep1"] }), "Separator 1,")).toContain('fill="var(--danger)"');
    const other = button(drawn(job, run, { differences: new Map([["sep1", "changed"]]) }), "Separator 1,");
    expect(other).toContain("otherwise in the other plan");
    expect(other).toContain("≠");
  });

  test("a part that the hand holds takes its hoses along", () => {
    const edge = (shift: (id: string) => { x: number; y: number }) =>
      drawnEdges(buildNetwork(job), inARow(job), run, shift).find(({ id }) => id === "run10")?.d;
    const held = edge((id) => (id === "lift" ? { x: 30, y: 50 } : { x: 0, y: 0 }));
    expect(held).toMatch(/^M[\d.]+ [\d.]+L/);
    expect(held).not.toBe(edge(() => ({ x: 0, y: 0 })));
  });
});

test("a tank's name stands clear of its level line, however full it is", () => {
  const tank = newTank("t", "Port", { xM: 0, yM: 0, zM: 0 });
  const box = { x: 0, y: 0, width: 132, height: 108 };
  const drawnTank = (aboardM3: number) =>
    renderToStaticMarkup(
      <svg>
        <TankNode tank={tank} box={box} placed={empty()} units={metricUnits} text={1} aboardM3={aboardM3} />
      </svg>,
    );
  for (let litres = 4; litres < 200; litres += 4) {
    const markup = drawnTank(litres / 1000);
    const level = Number(/<line [^>]*y1="([\d.]+)"/.exec(markup)?.[1]);
    const lines = [...markup.matchAll(/<text [^>]*?\by="([\d.]+)"/g)].map(([, y]) => Number(y));
    expect(lines).toHaveLength(2);
    expect(Number.isFinite(level)).toBe(true);
    // Letters reach about 10 px over the foot of their line.
    for (const foot of lines) expect(level > foot || level < foot - 9).toBe(true);
    expect(Math.min(...lines)).toBeGreaterThan(10);
    expect(Math.max(...lines)).toBeLessThan(108);
  }
});

test("what a Stop stands against carries the octagon, by shape and in its name; nothing else does", () => {
  const job = read("marram");
  const [run] = currentPlan(job).runs;
  const verdict = verdictOf(job, "Run on port wing");
  const octagon = "M5 .8h6L15.2 5v6L11 15.2H5L.8 11V5z";
  expect(drawn(job, verdict)).not.toContain(octagon);
  const markup = drawn(job, verdict, { stopIds: new Set(["lift", run!.id]) });
  expect(markup.split(octagon)).toHaveLength(3);
  expect(button(markup, "Lift pump")).toContain(octagon);
  expect(button(markup, "Lift pump")).toMatch(/^aria-label="Lift pump[^"]*, a Stop"/);
  expect(markup).toMatch(/aria-label="Hose from [^"]*, a Stop"/);
  expect(button(markup, "Separator 1")).not.toContain(octagon);
});
