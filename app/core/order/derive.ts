/** The work that makes one plan of another, or one from nothing: steps derived from what differs, never typed. */
import { isPetrol } from "../fuel/grades";
import { isConsumer, isFiltering, isPowered, isValve } from "../kinds/families";
import { type Engine, kindOf, type Part } from "../kinds/index";
import type { Id, Position } from "../kinds/record";
import { mouthHeightM } from "../network/network";
import { differs } from "../plan/differs";
import { plugsOf } from "../plan/plugs";
import { distanceM, partsOf, placedPorts, portKey, portsOf } from "../plan/ports";
import { runGeometry } from "../plan/route";
import type { Job, Plan, PortRef, Run, Tank, TankLine } from "../plan/types";
import { neverShut } from "../plan/valves";
import { heightsOf, levelOfVolumeM, volumeAtLevelM3 } from "../tanks/tank";
import { tankLineFigures, toTankFrame } from "../tanks/tankLine";
import { areaM2 } from "../units/bore";
import { LITRE_M3 } from "../units/factors";
import { endsOf, type OldWay, oldWays } from "./blowing";
import { openCovers, openWindows } from "./covers";
import { at, type Fact, type Facts, type Verb, type WorkStep } from "./facts";
import { type Drained, drainedLines, type Line, leftAfterBlowingM3 } from "./litres";
import type { StepMaker } from "./maker";
import { bareStep, DRAINS_L_MIN, FILLS_L_MIN, minutes } from "./minutes";
import { carryOff, swapPans } from "./pans";
import { capOpen, joins, prove } from "./proving";
import { takeDown } from "./tankDown";

/** Less than this in the dips of a line runs out as it is lifted. Common practice, no source. */
const WORTH_BLOWING_M3 = 5e-5;

export interface Derived {
  steps: WorkStep[];
  /** What each fact was before anything was done, and what it is to be. */
  found: Facts;
  wanted: Facts;
}

/** Ports of a part that something is joined to. */
const joinedOf = ({ runs, joints }: Plan, id: Id): PortRef[] =>
  [...runs, ...joints].flatMap(({ from, to }) => [from, to]).filter(({ part }) => part === id);

/** Two bodies whose middles are nearer than this stand in each other. Common practice, no source. */
const SAME_PLACE_M = 0.15;

class Deriving implements StepMaker {
  readonly steps = new Map<string, WorkStep>();
  readonly found = new Map<string, string>();
  readonly wanted = new Map<string, string>();
  private readonly before: Plan | null;
  private readonly tanks: Map<Id, Tank>;
  private readonly consumers: Set<Id>;

  constructor(
    private readonly job: Job,
    before: Plan | null,
    private readonly after: Plan,
  ) {
    this.before = before;
    this.tanks = new Map(job.tanks.map((tank) => [tank.id, tank]));
    this.consumers = new Set(job.consumers.map(({ id }) => id));
  }

  step(
    verb: Verb,
    object: string,
    rest: Pick<WorkStep, "of" | "place" | "pre" | "post"> & Partial<WorkStep>,
  ): WorkStep {
    const id = `${verb}:${object}`;
    const had = this.steps.get(id);
    if (had) return had;
    const step: WorkStep = { id, ...bareStep(verb), ...rest };
    this.steps.set(id, step);
    for (const { fact, value } of step.post) this.wanted.set(fact, value);
    return step;
  }

  /** A step that more is found to hang on, or that does more than was known when it was made. */
  add(id: string, { pre = [], post = [] }: { pre?: readonly Fact[]; post?: readonly Fact[] }): void {
    const step = this.steps.get(id);
    if (!step) throw new Error(`no step ${id}`);
    this.steps.set(id, { ...step, pre: [...step.pre, ...pre], post: [...step.post, ...post] });
    for (const { fact, value } of post) this.wanted.set(fact, value);
  }

  change(id: string, change: Partial<WorkStep>): void {
    this.steps.set(id, { ...(this.steps.get(id) as WorkStep), ...change });
  }

  batteryOff(): Fact {
    this.fact("battery", "found");
    this.step("batteryOff", "main", {
      of: [],
      place: "safe",
      pre: [at("battery", "found")],
      post: [at("battery", "off")],
    });
    return at("battery", "off");
  }

  /** Where a thing is worked on. */
  placeOf(id: Id): string {
    if (this.tanks.has(id)) return "tanks";
    if (this.consumers.has(id)) return "engine";
    return this.after.mounted?.[id] ? "board" : "line";
  }

  fact(fact: string, found: string): void {
    if (!this.found.has(fact)) this.found.set(fact, found);
  }

  /** A thing that is seen to once, at a place or for all of the work. */
  private once(verb: Verb, fact: string, place: string): Fact {
    this.fact(fact, "no");
    const object = place === "safe" ? "main" : place;
    this.step(verb, object, { of: [], place, pre: [], post: [at(fact, "yes")] });
    return at(fact, "yes");
  }

  /** Before anything is cut or opened: known as facts, so that nobody has to be asked. */
  private guarded(): Fact[] {
    return [
      this.batteryOff(),
      this.once("extinguisher", "extinguisher", "safe"),
      this.once("ventilate", "ventilated", "safe"),
      this.once("eyes", "eyes", "safe"),
      ...(this.job.kind === "boat" ? [] : [this.once("support", "supported", "safe")]),
    ];
  }

  /** Before fuel is let out. */
  safe(place: string): Fact[] {
    return [
      ...this.guarded(),
      this.once("pan", `pan.${place}`, place),
      this.once("photograph", `photo.${place}`, place),
    ];
  }

  /**
   * What could run out at an opened port: valves to shut on the way to a tank, and tanks that no valve shuts off and
   * whose fuel stands over the port.
   */
  private behind(plan: Plan, start: PortRef): { valves: Id[]; tanks: { tank: Tank; port: Id }[] } {
    const parts = new Map(partsOf(this.job, plan).map((part) => [part.id, part]));
    const links = new Map<string, PortRef[]>();
    for (const { from, to } of [...plan.runs, ...plan.joints]) {
      links.set(portKey(from), [...(links.get(portKey(from)) ?? []), to]);
      links.set(portKey(to), [...(links.get(portKey(to)) ?? []), from]);
    }
    const seen = new Set<string>([portKey(start)]);
    const queue: PortRef[] = [start];
    const valves = new Set<Id>();
    const tanks: { tank: Tank; port: Id }[] = [];
    for (let ref = queue.shift(); ref; ref = queue.shift()) {
      const tank = this.tanks.get(ref.part);
      if (tank) {
        tanks.push({ tank, port: ref.port });
        continue;
      }
      const part = parts.get(ref.part);
      const shares = (ids: readonly Id[]) => ids.map((id) => ({ part: (ref as PortRef).part, port: id }));
      const through = (() => {
        if (!part || isConsumer(part)) return [];
        if (!isValve(part)) return shares(portsOf(part).map(({ id }) => id));
        // A valve is shut, but what every position of its handle joins stays joined.
        const open = neverShut(part, ref.port);
        if (open.length === 0) valves.add(part.id);
        return shares(open);
      })();
      const next = [...(links.get(portKey(ref)) ?? []), ...through];
      for (const one of next) {
        if (seen.has(portKey(one))) continue;
        seen.add(portKey(one));
        queue.push(one);
      }
    }
    return { valves: [...valves], tanks };
  }

  /** A tank that would run out of an opening: emptied first, down to its mouth or the opening, the higher. */
  private emptied(plan: Plan, tank: Tank, portId: Id, openingZM: number): Fact[] {
    const port = tank.ports.find(({ id }) => id === portId);
    const aboardM3 = plan.conditions.aboardM3[tank.id] ?? 0;
    const levelM = levelOfVolumeM(tank, aboardM3);
    const mouthM = port ? mouthHeightM(tank, port) - tank.origin.zM : heightsOf(tank).lowM;
    const lowest = Math.max(mouthM, openingZM - tank.origin.zM);
    // A mouth over the fuel and a port over its surface let nothing run of itself.
    const surfaceZM = tank.origin.zM + levelM;
    if (port?.role === "return" || surfaceZM <= openingZM || levelM <= lowest) return [];
    const litresM3 = Math.max(0, aboardM3 - volumeAtLevelM3(tank, lowest));
    if (litresM3 < LITRE_M3 / 100) return [];
    return [this.drainTank(tank, litresM3)];
  }

  /** A tank is emptied by so much at the least, and filled again at the end. */
  drainTank(tank: Tank, litresM3: number): Fact {
    const fact = `fuel.${tank.id}`;
    this.fact(fact, "aboard");
    // Opened at several places, it is emptied to the lowest of them.
    const mostM3 = Math.max(litresM3, this.steps.get(`drainTank:${tank.id}`)?.litresM3 ?? 0);
    const litres = mostM3 / LITRE_M3;
    this.step("drainTank", tank.id, {
      of: [tank.id],
      place: "tanks",
      pre: this.safe("tanks"),
      post: [at(fact, "drained")],
    });
    this.change(`drainTank:${tank.id}`, {
      litresM3: mostM3,
      workMin: minutes.drainTank[0] + Math.round(litres / DRAINS_L_MIN),
    });
    this.step("fill", tank.id, {
      of: [tank.id],
      place: "tanks",
      pre: [at(fact, "drained")],
      post: [at(fact, "filled")],
    });
    this.change(`fill:${tank.id}`, { workMin: minutes.fill[0] + Math.round(litres / FILLS_L_MIN) });
    return at(fact, "drained");
  }

  /** What keeps a tank from running out of an opened port: valves shut, or the tank emptied. */
  private heldBack(plan: Plan, ref: PortRef): Fact[] {
    const { valves, tanks } = this.behind(plan, ref);
    const zM = placedPorts(this.job, plan).get(portKey(ref))?.position.zM ?? 0;
    const shut = valves.map((id) => {
      this.fact(`shut.${id}`, "no");
      const post = [at(`shut.${id}`, "yes")];
      this.step("shutOff", id, { of: [id], place: this.placeOf(id), pre: [], post });
      return at(`shut.${id}`, "yes");
    });
    return [...shut, ...tanks.flatMap(({ tank, port }) => this.emptied(plan, tank, port, zM))];
  }

  /** Undoes one port of the plan as it was found. */
  undo(plan: Plan, ref: PortRef, litresM3: number): WorkStep {
    const place = this.placeOf(ref.part);
    const key = portKey(ref);
    this.fact(`port.${key}`, "joined");
    return this.step("undo", key, {
      of: [ref.part],
      port: ref.port,
      place,
      pre: [
        ...this.safe(place),
        ...this.heldBack(plan, ref),
        ...this.bowlsAt(plan, ref),
        at(`port.${key}`, "joined"),
      ],
      post: [at(`port.${key}`, "open")],
      litresM3,
    });
  }

  /** A filter whose joint is opened, or a joint of what is screwed to it, is emptied by its drain first. */
  private bowlsAt(plan: Plan, ref: PortRef): Fact[] {
    const screwed = plan.joints.flatMap(({ from, to }) =>
      from.part === ref.part ? [to.part] : to.part === ref.part ? [from.part] : [],
    );
    return [ref.part, ...screwed].flatMap((id) => {
      const part = plan.parts.find((one) => one.id === id);
      return part &&
        isFiltering(part) &&
        part.element &&
        (part.kind === "filter" || part.kind === "pumpFilterUnit")
        ? [this.drainBowl(plan, part)]
        : [];
    });
  }

  /** Hoses that come off. Those that stand one behind the other are blown through together, before they are parted. */
  private runsOut(plan: Plan, runs: readonly Run[], emptied: ReadonlySet<Id>): void {
    for (const way of oldWays(plan, runs, emptied)) {
      const heldM3 = drainedLines(this.linesOf(plan, way), ["from", "to"]).reduce(
        (sum, { staysM3 }) => sum + staysM3,
        0,
      );
      const isBlown = !isPetrol(this.job.fuel) && heldM3 >= WORTH_BLOWING_M3;
      if (isBlown || way.legs.length === 1) this.wayOut(plan, way, isBlown);
      else for (const leg of way.legs) this.wayOut(plan, { legs: [leg], through: [] }, false);
    }
  }

  private linesOf(plan: Plan, { legs }: OldWay): Line[] {
    const ports = placedPorts(this.job, plan);
    return legs.map(({ run, isTurned }) => {
      const [from, to] = [ports.get(portKey(run.from)), ports.get(portKey(run.to))];
      const points = from && to ? runGeometry(run, from, to).profile : [];
      const longM = points.at(-1)?.atM ?? 0;
      const turned = points.map(({ atM, zM }) => ({ atM: longM - atM, zM })).reverse();
      return { points: isTurned ? turned : points, areaM2: areaM2(run.boreM) };
    });
  }

  /** The ends of a way are opened, what stands in its dips is pushed out where that is done, and its hoses come away. */
  private wayOut(plan: Plan, way: OldWay, isBlown: boolean): void {
    const lines = this.linesOf(plan, way);
    const sum = (all: readonly { outM3: number }[]) => all.reduce((m3, { outM3 }) => m3 + outM3, 0);
    const both = drainedLines(lines, ["from", "to"]);
    const oneM3 = sum(drainedLines(lines, ["from"]));
    const ends = endsOf(way);
    this.undo(plan, ends[0], oneM3);
    this.undo(plan, ends[1], Math.max(0, sum(both) - oneM3));
    const opened = ends.map((ref) => at(`port.${portKey(ref)}`, "open"));
    const lefts = way.legs.map(({ run }, i) => {
      const { staysM3 } = both[i] as Drained;
      if (!isBlown) return staysM3;
      return leftAfterBlowingM3((lines[i] as Line).points, run.boreM, staysM3, this.job.fuel.density15KgM3);
    });
    const safe = this.safe("line");
    for (const { run } of way.legs) this.fact(`run.${run.id}.old`, "there");
    if (isBlown)
      this.step("blow", way.legs.map(({ run }) => run.id).join("+"), {
        of: [...way.legs.map(({ run }) => run.id), ...way.through],
        place: "line",
        pre: [
          ...safe,
          ...opened,
          // A filter on the way is emptied first: its fuel is not blown about.
          ...way.through.flatMap((id) => {
            const part = plan.parts.find((one) => one.id === id);
            return part && isFiltering(part) && part.element ? [this.drainBowl(plan, part)] : [];
          }),
          ...way.legs.map(({ run }) => at(`run.${run.id}.old`, "there")),
        ],
        post: way.legs.map(({ run }) => at(`run.${run.id}.old`, "blown")),
        litresM3: both.reduce((m3, { staysM3 }, i) => m3 + staysM3 - (lefts[i] as number), 0),
      });
    way.legs.forEach(({ run }, i) => {
      const old = `run.${run.id}.old`;
      const own = [run.from, run.to];
      for (const ref of own) {
        const key = portKey(ref);
        if (ends.some((end) => portKey(end) === key)) continue;
        this.undo(plan, ref, 0);
        this.add(`undo:${key}`, { pre: [at(old, "blown")] });
      }
      this.step("hoseOut", run.id, {
        of: [run.id],
        place: "line",
        pre: [
          ...safe,
          ...own.map((ref) => at(`port.${portKey(ref)}`, "open")),
          at(old, isBlown ? "blown" : "there"),
        ],
        post: [at(old, "out")],
        // What its dips hold comes when it is lifted out.
        litresM3: lefts[i] as number,
      });
    });
  }

  /** A housing is emptied behind what holds its fuel back. */
  private drainBowl(plan: Plan, part: Part): Fact {
    const place = this.placeOf(part.id);
    this.fact(`bowl.${part.id}`, "full");
    this.step("drainBowl", part.id, {
      of: [part.id],
      place,
      pre: [...this.safe(place), ...joinedOf(plan, part.id).flatMap((ref) => this.heldBack(plan, ref))],
      post: [at(`bowl.${part.id}`, "drained")],
      litresM3: kindOf(part).volumeM3(part) ?? 0,
    });
    return at(`bowl.${part.id}`, "drained");
  }

  private partOut(plan: Plan, part: Part): void {
    const place = this.placeOf(part.id);
    const joined = joinedOf(plan, part.id);
    const pre: Fact[] = [...this.safe(place), ...joined.map((ref) => at(`port.${portKey(ref)}`, "open"))];
    if (isFiltering(part) && part.element) pre.push(this.drainBowl(plan, part));
    for (const { key } of plugsOf(part)) {
      const fact = `plug.${key}`;
      this.fact(fact, "on");
      this.step("unplug", key, {
        of: [part.id],
        place,
        pre: [this.batteryOff(), at(fact, "on")],
        post: [at(fact, "off")],
      });
      pre.push(at(fact, "off"));
    }
    this.fact(`part.${part.id}`, "there");
    this.step("partOut", part.id, {
      of: [part.id],
      place,
      pre: [...pre, at(`part.${part.id}`, "there")],
      post: [at(`part.${part.id}`, "out")],
    });
  }

  /** Plugs of what went, which nothing of their kind takes up again: taped, and named until hand-over. */
  private tapeSpares(gone: readonly Part[], added: readonly Part[]): void {
    const takers = added.flatMap((part) => plugsOf(part).map(({ name }) => ({ kind: part.kind, name })));
    for (const { kind, plugs } of gone.map((part) => ({ kind: part.kind, plugs: plugsOf(part) })))
      for (const { key, partId, name } of plugs) {
        const taker = takers.findIndex((one) => one.name === name && (name !== "" || one.kind === kind));
        if (taker >= 0) {
          takers.splice(taker, 1);
          continue;
        }
        this.step("tapeSpare", key, {
          of: [partId],
          place: this.placeOf(partId),
          pre: [at(`plug.${key}`, "off")],
          post: [at(`plug.${key}`, "taped")],
        });
      }
  }

  /** A part that is new, or that hangs elsewhere than it did. */
  private partIn(part: Part, wasThere: boolean): void {
    const { id } = part;
    const mounted = this.after.mounted?.[id];
    this.fact(`part.${id}`, wasThere ? "there" : "absent");
    const pre = [
      ...(wasThere ? [at(`part.${id}`, "out")] : [at(`part.${id}`, "absent"), ...this.here(id)]),
      ...this.cleared(part),
    ];
    if (mounted) {
      this.step("boardPart", id, { of: [id], place: "bench", pre, post: [at(`part.${id}`, "fixed")] });
      this.fact(`board.${mounted.boardId}`, "bench");
      this.step("boardUp", mounted.boardId, {
        of: [mounted.boardId],
        place: "board",
        pre: this.guarded(),
        post: [at(`board.${mounted.boardId}`, "up")],
      });
      this.add(`boardUp:${mounted.boardId}`, { pre: [at(`part.${id}`, "fixed")] });
    } else
      this.step("fixPart", id, {
        of: [id],
        place: "line",
        pre: [...pre, ...this.guarded()],
        post: [at(`part.${id}`, "fixed")],
      });
    if (isFiltering(part)) {
      this.fact(`element.${id}`, "none");
      this.step("element", id, {
        of: [id],
        place: mounted ? "bench" : "line",
        pre: [at(`part.${id}`, "fixed")],
        post: [at(`element.${id}`, "on")],
      });
    }
    if (isPowered(part)) {
      this.fact(`wire.${id}`, wasThere ? "laid" : "none");
      if (!wasThere)
        this.step("wire", id, {
          of: [id],
          place: this.placeOf(id),
          pre: [this.batteryOff(), at(`part.${id}`, "fixed"), ...this.onBoard(id)],
          post: [at(`wire.${id}`, "laid")],
        });
    }
    for (const { key } of plugsOf(part)) {
      if (!wasThere) this.fact(`plug.${key}`, "off");
      this.step("plugIn", key, {
        of: [id],
        place: this.placeOf(id),
        pre: [
          at(`part.${id}`, "fixed"),
          at(`plug.${key}`, "off"),
          ...this.onBoard(id),
          ...(isPowered(part) ? [at(`wire.${id}`, "laid")] : []),
        ],
        post: [at(`plug.${key}`, "in")],
      });
    }
  }

  /** What stands where a part is to go is out first. What hangs on a board is put together on the bench, away from it. */
  private cleared(part: Part): Fact[] {
    if (!this.before || this.after.mounted?.[part.id]) return [];
    return this.before.parts.flatMap((old) =>
      old.id !== part.id &&
      this.steps.has(`partOut:${old.id}`) &&
      distanceM(old.position, part.position) < SAME_PLACE_M
        ? [at(`part.${old.id}`, "out")]
        : [],
    );
  }

  /** What hangs on a board is worked on in its place once that is up. */
  private onBoard(id: Id): Fact[] {
    const boardId = this.after.mounted?.[id]?.boardId;
    return boardId !== undefined && this.steps.has(`boardUp:${boardId}`)
      ? [at(`board.${boardId}`, "up")]
      : [];
  }

  /** A part that is put in, or put back elsewhere, is there first. */
  owner(id: Id): Fact[] {
    const isIn = this.steps.has(`fixPart:${id}`) || this.steps.has(`boardPart:${id}`);
    return isIn ? [at(`part.${id}`, "fixed")] : [];
  }

  /** A port that is to be joined: open by now, its owner there. */
  private ready(ref: PortRef): Fact[] {
    const key = portKey(ref);
    const facts: Fact[] = [];
    this.fact(`port.${key}`, "open");
    facts.push(at(`port.${key}`, "open"));
    if (this.isNewTank(ref.part)) {
      const made = this.tankOpening(ref, []);
      facts.push(this.tankSet(ref.part, made));
    } else if (this.isNewOpening(ref)) facts.push(this.tankOpening(ref, this.emptiedToCut(ref)));
    return [...facts, ...this.owner(ref.part)];
  }

  /** An opening that is sawn or unblocked, its edge cleaned and its swarf taken out before anything is screwed to it. */
  private tankOpening(ref: PortRef, emptied: readonly Fact[]): Fact {
    const key = portKey(ref);
    const fact = `fitting.${key}`;
    const common = { of: [ref.part], port: ref.port, place: "tanks" };
    this.fact(fact, "none");
    this.step("tankFitting", key, {
      ...common,
      pre: [...this.guarded(), ...this.seenEmpty(ref), ...emptied],
      post: [at(fact, "cut")],
    });
    this.step("swarf", key, { ...common, pre: [at(fact, "cut")], post: [at(fact, "made")] });
    const fill = `fill:${ref.part}`;
    if (emptied.length > 0 && this.steps.has(fill)) this.add(fill, { pre: [at(fact, "made")] });
    return at(fact, "made");
  }

  /** A tank of which no plan before tells is looked into before it is opened low down, or for petrol anywhere. */
  private seenEmpty(ref: PortRef): Fact[] {
    if (!this.isNewTank(ref.part)) return [];
    const port = this.tanks.get(ref.part)?.ports.find(({ id }) => id === ref.port);
    const isLow = port?.fitting === "sump" || port?.fitting === "side";
    if (!isLow && !isPetrol(this.job.fuel)) return [];
    this.fact(`empty.${ref.part}`, "unknown");
    this.step("emptyTank", ref.part, {
      of: [ref.part],
      place: "tanks",
      pre: this.guarded(),
      post: [at(`empty.${ref.part}`, "seen")],
    });
    return [at(`empty.${ref.part}`, "seen")];
  }

  /** A port of a tank that was there, which nothing of the plan before was on. */
  private isNewOpening({ part, port }: PortRef): boolean {
    const { before } = this;
    if (!before || !this.tanks.has(part) || !joins(before, part)) return false;
    return ![...before.runs, ...before.joints].some(({ from, to }) =>
      [from, to].some((one) => one.part === part && one.port === port),
    );
  }

  /** No opening is cut with fuel over it: all of it goes before a floor is opened or where it is petrol, else what stands over the hole. */
  private emptiedToCut({ part, port: portId }: PortRef): Fact[] {
    const tank = this.tanks.get(part);
    const port = tank?.ports.find(({ id }) => id === portId);
    if (!tank || !port) return [];
    const aboardM3 = this.before?.conditions.aboardM3[part] ?? 0;
    const isAll = port.fitting === "sump" || isPetrol(this.job.fuel);
    const stays = isAll ? 0 : volumeAtLevelM3(tank, Math.max(port.outside.zM, heightsOf(tank).lowM));
    const overM3 = aboardM3 - Math.min(aboardM3, stays);
    return overM3 < LITRE_M3 / 100 ? [] : [this.drainTank(tank, overM3)];
  }

  /** A tank or consumer that the plan before did not have. */
  private isNew(id: Id): boolean {
    return joins(this.after, id) && !(this.before && joins(this.before, id));
  }

  private isNewTank(id: Id): boolean {
    return this.tanks.has(id) && this.isNew(id);
  }

  /** A new tank is set and made fast with its openings made and before its hoses are on; empty, it is filled when all is tight. */
  private tankSet(id: Id, opening: Fact): Fact {
    const stands = at(`stands.${id}`, "set");
    this.fact(`stands.${id}`, "no");
    this.step("setTank", id, {
      of: [id],
      place: "tanks",
      pre: [...this.guarded(), ...this.here(id)],
      post: [stands],
    });
    this.add(`setTank:${id}`, { pre: [opening] });
    this.fact(`fuel.${id}`, "none");
    this.step("fill", id, {
      of: [id],
      place: "tanks",
      pre: [at(`fuel.${id}`, "none"), stands],
      post: [at(`fuel.${id}`, "filled")],
    });
    const litres = (this.after.conditions.aboardM3[id] ?? 0) / LITRE_M3;
    this.change(`fill:${id}`, { workMin: minutes.fill[0] + Math.round(litres / FILLS_L_MIN) });
    return stands;
  }

  /** A new heater is fixed and wired before its fuel line is joined; an engine is in its place already. */
  private heaterIn(heater: Engine): void {
    const { id } = heater;
    if (heater.kind !== "heater" || !this.isNew(id)) return;
    this.fact(`part.${id}`, "absent");
    this.step("fixPart", id, {
      of: [id],
      place: "engine",
      pre: [at(`part.${id}`, "absent"), ...this.here(id), ...this.guarded()],
      post: [at(`part.${id}`, "fixed")],
    });
    this.fact(`wire.${id}`, "none");
    this.step("wire", id, {
      of: [id],
      place: "engine",
      pre: [this.batteryOff(), at(`part.${id}`, "fixed")],
      post: [at(`wire.${id}`, "laid")],
    });
  }

  /** Both ends on one board: bench work, done before the board goes up. */
  private boardOf(from: PortRef, to: PortRef): Id | null {
    const [a, b] = [this.after.mounted?.[from.part], this.after.mounted?.[to.part]];
    return a && b && a.boardId === b.boardId && this.steps.has(`boardUp:${a.boardId}`) ? a.boardId : null;
  }

  join(withId: Id, ref: PortRef, pre: Fact[], benchOf: Id | null): Fact {
    const key = portKey(ref);
    const step = this.step("join", key, {
      of: [ref.part, withId],
      port: ref.port,
      place: benchOf ? "bench" : this.placeOf(ref.part),
      pre: [...this.ready(ref), ...pre, ...(benchOf ? [] : this.onBoard(ref.part))],
      post: [at(`port.${key}`, "tight")],
    });
    if (benchOf) {
      this.add(`boardUp:${benchOf}`, { pre: step.post });
    }
    return at(`port.${key}`, "tight");
  }

  /** What is still awaited is checked in before it is used: count, every end started by hand, seals there. */
  private here(id: Id): Fact[] {
    if (!this.after.awaited?.includes(id)) return [];
    this.fact(`here.${id}`, "awaited");
    this.step("checkIn", id, {
      of: [id],
      place: "bench",
      pre: [at(`here.${id}`, "awaited")],
      post: [at(`here.${id}`, "yes")],
    });
    return [at(`here.${id}`, "yes")];
  }

  /** Holes that a new hose passes and that the plan before had not: cut, their edges cured, before it is laid. */
  private passed(runId: Id): Fact[] {
    const old = new Set(this.before?.passages?.map(({ id }) => id));
    return (this.after.passages ?? []).flatMap(({ id, runs }) => {
      if (!runs.includes(runId) || old.has(id)) return [];
      this.fact(`hole.${id}`, "uncut");
      this.step("cutHole", id, {
        of: [id],
        place: "line",
        pre: [...this.guarded(), at(`hole.${id}`, "uncut")],
        post: [at(`hole.${id}`, "cut")],
      });
      this.step("careEdge", id, {
        of: [id],
        place: "line",
        pre: [at(`hole.${id}`, "cut")],
        post: [at(`hole.${id}`, "sealed")],
      });
      return [at(`hole.${id}`, "sealed")];
    });
  }

  /** A hose is cut and its ends made; a tube is cut, its nuts put on, flared and bent: both at the bench. */
  private made({ id, make }: Run | TankLine): void {
    const fact = `run.${id}`;
    const [cut, end] =
      make === "rigid" ? (["cutTube", "formEnds"] as const) : (["cutHose", "makeEnds"] as const);
    const pre = [at(fact, "none"), ...this.here(id)];
    this.step(cut, id, { of: [id], place: "bench", pre, post: [at(fact, "cut")] });
    this.step(end, id, { of: [id], place: "bench", pre: [at(fact, "cut")], post: [at(fact, "ended")] });
  }

  private runIn(run: Run): void {
    const { id } = run;
    const bench = this.boardOf(run.from, run.to);
    const fact = `run.${id}`;
    this.fact(fact, "none");
    this.made(run);
    const old = this.steps.has(`hoseOut:${id}`) ? [at(`run.${id}.old`, "out")] : [];
    const owners = [...[run.from, run.to].flatMap((ref) => this.owner(ref.part)), ...this.passed(id)];
    this.step("lay", id, {
      of: [id],
      place: bench ? "bench" : "line",
      pre: [
        at(fact, "ended"),
        ...old,
        ...owners,
        ...(bench ? [] : [...this.onBoard(run.from.part), ...this.onBoard(run.to.part)]),
      ],
      post: [at(fact, "laid")],
    });
    const tight = [run.from, run.to].map((ref) => this.join(id, ref, [at(fact, "laid")], bench));
    this.fact(`clip.${id}`, "none");
    this.step("clip", id, {
      of: [id],
      place: bench ? "bench" : "line",
      pre: [...tight, at(fact, "laid")],
      post: [at(`clip.${id}`, "on")],
    });
    if (bench) {
      this.add(`boardUp:${bench}`, { pre: [at(`clip.${id}`, "on")] });
    }
  }

  /** Opened where it meets its tank, which is emptied down to there where its fuel stands over it. */
  tankLineSafe(line: TankLine): Fact[] {
    const tank = this.tanks.get(line.tank);
    const plan = this.before;
    if (!tank || !plan) return [];
    const aboardM3 = plan.conditions.aboardM3[tank.id] ?? 0;
    const { zM } = toTankFrame(tank, line.points[0] as Position);
    const overM3 = aboardM3 - volumeAtLevelM3(tank, Math.max(zM, heightsOf(tank).lowM));
    return overM3 < LITRE_M3 / 100 ? [] : [this.drainTank(tank, overM3)];
  }

  /** A fill, vent or drain that comes off; its own sags run out of it as it is lifted. */
  private tankLineOut(line: TankLine): void {
    const fact = `run.${line.id}.old`;
    this.fact(fact, "there");
    this.step("hoseOut", line.id, {
      of: [line.id],
      place: "line",
      pre: [...this.safe("line"), ...this.tankLineSafe(line), at(fact, "there")],
      post: [at(fact, "out")],
      litresM3: tankLineFigures(line).heldM3,
    });
  }

  private tankLineIn(line: TankLine): void {
    const { id } = line;
    const fact = `run.${id}`;
    this.fact(fact, "none");
    this.fact(`clip.${id}`, "none");
    const old = this.steps.has(`hoseOut:${id}`) ? [at(`run.${id}.old`, "out")] : [];
    const of = [id];
    this.made(line);
    this.step("lay", id, {
      of,
      place: "line",
      pre: [at(fact, "ended"), ...old, ...this.owner(line.tank), ...this.passed(id)],
      post: [at(fact, "laid")],
    });
    this.step("clip", id, { of, place: "line", pre: [at(fact, "laid")], post: [at(`clip.${id}`, "on")] });
  }

  /** Of the lines of a plan those that the other has not, or has otherwise. */
  private static otherLines(of: Plan | null, than: Plan | null): TankLine[] {
    const key = ({ product, boreM, make, points }: TankLine) =>
      JSON.stringify([product.marking, boreM, make, points]);
    const known = new Map((than?.tankLines ?? []).map((line) => [line.id, key(line)]));
    return (of?.tankLines ?? []).filter((line) => known.get(line.id) !== key(line));
  }

  private tankLines(): void {
    const { before, after } = this;
    for (const line of Deriving.otherLines(before, after)) this.tankLineOut(line);
    const laid = Deriving.otherLines(after, before);
    for (const line of laid) this.tankLineIn(line);
    for (const id of after.tanksDown ?? []) {
      const tank = this.tanks.get(id);
      if (before && tank) takeDown(this, this.job, before, after, tank);
    }
    // No tank is filled through, or under, a line that is not on.
    for (const { id, tank } of laid) {
      const fill = `fill:${tank}`;
      if (this.steps.has(fill)) this.add(fill, { pre: [at(`clip.${id}`, "on")] });
    }
  }

  run(): Derived {
    const { before, after, job } = this;
    const changed = differs(job, before, after);
    const { mine, was, gone, moved } = changed;
    const shifts = new Set([...gone, ...moved].map(({ id }) => id));
    if (before) {
      const out = before.runs.filter(({ id }) => {
        const next = after.runs.find((run) => run.id === id);
        return !next || !changed.isSameRun(next);
      });
      this.runsOut(before, out, shifts);
      for (const joint of before.joints) {
        const next = after.joints.find(({ id }) => id === joint.id);
        if (next && changed.isSameJoint(next)) continue;
        this.undo(before, joint.from, 0);
        // Screwed together, both ports come open at once.
        this.fact(`port.${portKey(joint.to)}`, "joined");
        this.add(`undo:${portKey(joint.from)}`, { post: [at(`port.${portKey(joint.to)}`, "open")] });
      }
      for (const part of [...gone, ...moved.map(({ id }) => was.get(id) as Part)]) this.partOut(before, part);
    }
    const added = mine.filter(({ id }) => !was.has(id));
    const movedIds = new Set(moved.map(({ id }) => id));
    // What hangs on boards first: whether a board goes up says where its hoses are joined.
    for (const part of [...added, ...moved]) this.partIn(part, movedIds.has(part.id));
    for (const consumer of job.consumers) this.heaterIn(consumer);
    this.tapeSpares(gone, added);
    for (const part of mine) {
      const old = was.get(part.id);
      if (
        !old ||
        movedIds.has(part.id) ||
        !isFiltering(part) ||
        !isFiltering(old) ||
        part.element?.id === old.element?.id
      )
        continue;
      this.fact(`element.${part.id}`, "old");
      const drained = this.drainBowl(before as Plan, old);
      this.step("element", part.id, {
        of: [part.id],
        place: this.placeOf(part.id),
        pre: [drained],
        post: [at(`element.${part.id}`, "on")],
      });
    }
    for (const run of after.runs) if (!changed.isSameRun(run)) this.runIn(run);
    for (const { id } of mine)
      if (was.has(id) && this.steps.has(`drainBowl:${id}`))
        this.step("closeDrain", id, {
          of: [id],
          place: this.placeOf(id),
          pre: [at(`bowl.${id}`, "drained")],
          post: [at(`bowl.${id}`, "shut")],
        });
    for (const joint of after.joints) {
      if (changed.isSameJoint(joint)) continue;
      const bench = this.boardOf(joint.from, joint.to);
      const other = this.ready(joint.to);
      this.join(joint.to.part, joint.from, [...other, ...(bench ? [] : this.onBoard(joint.to.part))], bench);
      this.add(`join:${portKey(joint.from)}`, { post: [at(`port.${portKey(joint.to)}`, "tight")] });
    }
    this.tankLines();
    // Of a tank that is drained for one opening none is cut before.
    for (const { id, verb, of } of this.steps.values())
      if (verb === "tankFitting" && this.steps.has(`drainTank:${of[0]}`))
        this.add(id, { pre: [at(`fuel.${of[0]}`, "drained")] });
    capOpen(this, job, after);
    openWindows(this, job, before, after);
    capOpen(this, job, after);
    if (this.steps.size > 0) prove(this, job, before, after);
    openCovers(this, before, after);
    return { steps: safeFirst([...this.steps.values()]), found: this.found, wanted: this.wanted };
  }
}

/** What makes a place safe stands before all else, where nothing holds it. */
const safeVerbs: readonly Verb[] = ["batteryOff", "extinguisher", "ventilate", "eyes", "support"];
const safeFirst = (steps: readonly WorkStep[]): WorkStep[] => {
  const isSafe = ({ verb }: WorkStep) => safeVerbs.includes(verb);
  return [...steps.filter(isSafe), ...steps.filter((step) => !isSafe(step))];
};

/** The work from a plan to another; from nothing where there is none before it. */
export const derive = (job: Job, before: Plan | null, after: Plan): Derived =>
  carryOff(swapPans(new Deriving(job, before, after).run(), job.panM3));
