/**
 * A solved line-up as an EPANET 2.2 input file, with the same ids, so that anyone can compare the two.
 *
 * Parts with a curve of their own (filters, cracking check valves) become general-purpose valves with sampled
 * head-loss curves; losses of fittings are frozen at the solution, since that format knows no loss over Re.
 * Source: EPANET 2.2 User Manual, appendix C (US EPA 2020; from memory).
 */

import { boreOfLink } from "../hydraulics/derive";
import type { SolvedLineUp } from "../hydraulics/solve";
import type { NetworkLink } from "../network/network";
import type { Curve } from "../solver/newton";
import { Way } from "../solver/newton";
import { areaM2 } from "../units/bore";
import { GRAVITY_M_S2, LITRE_M3 } from "../units/factors";

const LPM_M3_S = LITRE_M3 / 60;
/** The engine's VISCOSITY is relative to 1.1e-5 ft2/s. */
const REFERENCE_VISCOSITY_M2_S = 1.1e-5 * 0.3048 ** 2;
const CURVE_SAMPLES = 40;
/** A pipe must have a length there; ours without one (ports flush with the tank) get a millimetre. */
const LEAST_LENGTH_M = 1e-3;
/** Roughness must be positive there: this stands for smooth. */
const LEAST_ROUGHNESS_M = 1e-9;
const MM = 1000;

interface Sections {
  reservoirs: string[];
  junctions: string[];
  pipes: string[];
  pumps: string[];
  valves: string[];
  curves: string[];
  status: string[];
}

const row = (...cells: (string | number)[]) =>
  cells.map((c) => (typeof c === "number" ? Number(c.toPrecision(12)) : c)).join("\t");

class Writer {
  readonly sections: Sections = {
    reservoirs: [],
    junctions: [],
    pipes: [],
    pumps: [],
    valves: [],
    curves: [],
    status: [],
  };
  private readonly columnPa: number;

  constructor(private readonly solved: SolvedLineUp) {
    this.columnPa = solved.settings.fuel.densityKgM3 * GRAVITY_M_S2;
    const { adjusted, links } = solved.network;
    this.metered = new Set(
      adjusted.flatMap(({ kind, index }) =>
        kind === "hold" && links[index]?.kind === "dosing" && (solved.flow[index] as number) > 0
          ? [index]
          : [],
      ),
    );
  }

  private metres(pa: number): number {
    return pa / this.columnPa;
  }

  node(index: number): string {
    return this.solved.network.nodes[index]?.id ?? "";
  }

  /** Fitting losses at the solved flow as one K on the velocity head. Where nothing flows the part over Re is left out. */
  private frozenK(i: number): number {
    const { shape } = this.solved.network;
    const { fuel } = this.solved.settings;
    const q = Math.abs(this.solved.flow[i] ?? 0);
    const area = Math.sqrt(1 / (2 * this.perVelocityHead(i)));
    const reynolds = ((shape.reBore[i] as number) * q) / fuel.kinematicM2S;
    const overRe = (shape.perViscosity[i] as number) * 2 * this.bore(i) * area;
    const constant = (shape.perDensity[i] as number) / this.perVelocityHead(i);
    return constant + (reynolds > 0 ? overRe / reynolds : 0);
  }

  private bore(i: number): number {
    return boreOfLink(this.solved.network.links[i] as NetworkLink);
  }

  private perVelocityHead(i: number): number {
    return 1 / (2 * areaM2(this.bore(i)) ** 2);
  }

  private pipe(
    i: number,
    from: string,
    to: string,
    lengthM: number,
    roughnessM: number,
    status: "Open" | "Closed" | "CV",
    id?: string,
  ) {
    const link = this.solved.network.links[i] as NetworkLink;
    this.sections.pipes.push(
      row(
        id ?? link.id,
        from,
        to,
        Math.max(LEAST_LENGTH_M, lengthM),
        this.bore(i) * MM,
        Math.max(LEAST_ROUGHNESS_M, roughnessM) * MM,
        this.frozenK(i),
        status,
      ),
    );
  }

  private sampled(i: number, from: string, to: string, id: string, drop: (q: number) => number) {
    const reach = Math.max(3 * Math.abs(this.solved.flow[i] ?? 0), 1e-5);
    const curve = `C${this.sections.curves.length}_${i}`;
    for (let k = 0; k <= CURVE_SAMPLES; k++) {
      const q = (reach * k) / CURVE_SAMPLES;
      this.sections.curves.push(row(curve, q / LPM_M3_S, this.metres(drop(q))));
    }
    this.sections.valves.push(row(id, from, to, this.bore(i) * MM, "GPV", curve, 0));
  }

  /** A place inside a part, at the height of one of its ends. */
  private middle(id: string, node: number): string {
    const name = `${id}~`;
    this.sections.junctions.push(row(name, this.solved.settings.posture.nodeM[node] ?? 0, 0));
    return name;
  }

  /** A rise over flow as a pump with a sampled curve, from rest to where it gives none. */
  private rising(i: number, from: string, to: string, rise: (q: number) => number) {
    const { id } = this.solved.network.links[i] as NetworkLink;
    const reach = Math.max(2 * Math.abs(this.solved.flow[i] ?? 0), 1e-6);
    const curve = `R${i}`;
    for (let k = 0; k <= CURVE_SAMPLES; k++) {
      const q = (reach * k) / CURVE_SAMPLES;
      const metres = this.metres(rise(q));
      if (k > 3 && metres <= 0) break;
      this.sections.curves.push(row(curve, q / LPM_M3_S, metres));
    }
    this.sections.pumps.push(row(id, from, to, `HEAD ${curve}`));
  }

  link(i: number): void {
    const { links } = this.solved.network;
    const link = links[i] as NetworkLink;
    if (link.from === link.to) return;
    const { laws } = this.solved.settings;
    const way = laws.way[i] as Way;
    const from = this.node(link.from);
    const to = this.node(link.to);
    switch (link.kind) {
      case "run":
        return this.pipe(i, from, to, link.geometry.lengthM, link.run.roughnessM, "Open");
      case "valve":
      case "tee":
        return this.pipe(i, from, to, 0, 0, way === Way.shut ? "Closed" : "Open");
      case "tankPort": {
        const { mouth, outside } = link.port;
        const lengthM = Math.hypot(mouth.xM - outside.xM, mouth.yM - outside.yM, mouth.zM - outside.zM);
        const constant = laws.constant[i] as number;
        if (way !== Way.oneWay) return this.pipe(i, from, to, lengthM, 0, "Open");
        const mouthNode = `${link.id}~`;
        const head = this.metres(
          constant + (this.solved.settings.fixed[link.to - this.solved.network.topology.unknowns] as number),
        );
        this.sections.reservoirs.push(row(mouthNode, head));
        return this.pipe(i, from, mouthNode, lengthM, 0, "CV");
      }
      case "filter": {
        if (way === Way.shut) return this.pipe(i, from, to, 0, 0, "Closed");
        const [linear, square] = [laws.linear[i] as number, laws.square[i] as number];
        return this.sampled(i, from, to, link.id, (q) => (linear + square * q) * q);
      }
      case "check": {
        const { opensPa, perFlowPa } = link;
        if (opensPa === 0 && perFlowPa === 0) return this.pipe(i, from, to, 0, 0, "CV");
        const middle = this.middle(link.id, link.from);
        this.pipe(i, from, middle, 0, 0, "CV");
        return this.sampled(i, middle, to, `${link.id}~c`, (q) => opensPa + perFlowPa * q);
      }
      case "rated":
        return this.pipe(i, from, to, 0, 0, "Open");
      case "throttle": {
        const { setPa, droopPa, ratedFlowM3S } = link.part;
        const middle = this.middle(link.id, link.to);
        this.sections.valves.push(
          row(link.id, from, middle, this.bore(i) * MM, "PRV", this.metres(setPa), 0),
        );
        return this.sampled(i, middle, to, `${link.id}~c`, (q) => (droopPa / ratedFlowM3S) * q);
      }
      case "jet": {
        if (link.way === "nozzle") return this.pipe(i, from, to, 0, 0, "Open");
        const law = (q: number) =>
          (laws.constant[i] as number) + ((laws.linear[i] as number) + (laws.square[i] as number) * q) * q;
        if (law(0) >= 0) return this.sampled(i, from, to, link.id, law);
        return this.rising(i, from, to, (q) => -law(q));
      }
      case "dosing":
        // What it meters is drawn from the node before it and put in at the node after it: see junctions.
        if (this.metered.has(i)) return;
        // A pump that meters for a burner and draws nothing passes nothing.
        if (way === Way.shut || (laws.curve[i] as number) < 0) return this.pipe(i, from, to, 0, 0, "Closed");
        return this.rising(
          i,
          from,
          to,
          (q) =>
            -((laws.curves[laws.curve[i] as number] as Curve).drop[0] as number) *
            (1 - q / link.part.strokeM3 / link.part.mostHz),
        );

      case "pump": {
        if (way === Way.shut) return this.pipe(i, from, to, 0, 0, "Closed");
        const index = laws.curve[i] as number;
        if (index < 0) {
          const middle = this.middle(link.id, link.from);
          this.pipe(i, from, middle, 0, 0, "CV");
          const linear = laws.linear[i] as number;
          return this.sampled(i, middle, to, `${link.id}~c`, (q) => linear * q);
        }
        const curve = laws.curves[index];
        const id = `P${index}`;
        curve?.flow.forEach((q, k) => {
          this.sections.curves.push(row(id, q / LPM_M3_S, this.metres(-(curve.drop[k] as number))));
        });
        this.pumpTail(id, curve);
        this.sections.pumps.push(row(link.id, from, to, `HEAD ${id}`));
      }
    }
  }

  /** Past free flow our curve goes on straight; that format needs the point, and four of them to read a curve as drawn. */
  private pumpTail(id: string, curve: { flow: Float64Array; drop: Float64Array } | undefined): void {
    if (!curve) return;
    const n = curve.flow.length;
    const [q1, q2] = [curve.flow[n - 2] as number, curve.flow[n - 1] as number];
    const slope = ((curve.drop[n - 1] as number) - (curve.drop[n - 2] as number)) / (q2 - q1);
    for (const times of [1.5, 4]) {
      const q = q2 * times;
      this.sections.curves.push(
        row(id, q / LPM_M3_S, this.metres(-((curve.drop[n - 1] as number) + slope * (q - q2)))),
      );
    }
  }

  /** Dosing pumps that meter to an open burner, by link. */
  private readonly metered: ReadonlySet<number>;

  junctions(): void {
    const { network, settings, flow } = this.solved;
    const drawn = settings.demand.slice();
    const burners = new Set<number>();
    for (const one of network.adjusted) {
      if (one.kind !== "hold" || !this.metered.has(one.index)) continue;
      const { from, to } = network.links[one.index] as NetworkLink;
      const q = flow[one.index] as number;
      drawn[from] = (drawn[from] as number) + q;
      drawn[to] = (drawn[to] as number) - q;
      burners.add(one.node);
    }
    network.nodes.forEach((node, i) => {
      if (i >= network.topology.unknowns) {
        this.sections.reservoirs.push(
          row(node.id, this.metres(settings.fixed[i - network.topology.unknowns] as number)),
        );
      } else {
        const zM = settings.posture.nodeM[i] as number;
        if (burners.has(i)) this.sections.reservoirs.push(row(node.id, zM));
        else this.sections.junctions.push(row(node.id, zM, (drawn[i] as number) / LPM_M3_S));
      }
    });
  }
}

/** The text of the file. Ids are those of the solution: nodes `part.port`, links run and part ids. */
export function exportInp(solved: SolvedLineUp): string {
  const writer = new Writer(solved);
  writer.junctions();
  solved.network.links.forEach((_, i) => writer.link(i));
  const { sections } = writer;
  const { settings, network } = solved;
  const { fuel, lineUp } = settings;
  const oneLine = (text: string) => text.replace(/[\r\n[\];]/g, " ");
  return [
    "[TITLE]",
    `${oneLine(network.job.name)}, line-up ${oneLine(lineUp.name)} (${lineUp.id})`,
    `; Fuel at ${fuel.tempC} degC, ${fuel.densityKgM3.toFixed(2)} kg/m3. Heads are metres of this fuel over the job datum; multiply by ${(fuel.densityKgM3 * GRAVITY_M_S2).toFixed(2)} for Pa.`,
    "; Filters and cracking check valves are general-purpose valves with head-loss curves sampled from the plan's laws.",
    "; Minor losses of fittings and ends are frozen at the solution of this line-up; between Re 2000 and 4000 this engine's",
    "; friction differs from the plan's (Churchill 1977). A name ending in ~ stands for a place inside a part.",
    "[RESERVOIRS]",
    ...sections.reservoirs,
    "[JUNCTIONS]",
    ...sections.junctions,
    "[PIPES]",
    ...sections.pipes,
    "[PUMPS]",
    ...sections.pumps,
    "[VALVES]",
    ...sections.valves,
    "[CURVES]",
    ...sections.curves,
    "[TIMES]",
    "DURATION 0",
    "[OPTIONS]",
    "UNITS LPM",
    "HEADLOSS D-W",
    "SPECIFIC GRAVITY 1",
    `VISCOSITY ${(fuel.kinematicM2S / REFERENCE_VISCOSITY_M2_S).toPrecision(10)}`,
    "TRIALS 500",
    "ACCURACY 1e-7",
    "[END]",
    "",
  ].join("\n");
}
