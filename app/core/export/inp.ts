/**
 * A solved line-up as an EPANET 2.2 input file, with the same ids, so that anyone can compare the two.
 *
 * Parts with a curve of their own (filters, cracking check valves) become general-purpose valves with sampled
 * head-loss curves; losses of fittings are frozen at the solution, since that format knows no loss over Re.
 * Source: EPANET 2.2 User Manual, appendix C (US EPA 2020; from memory).
 */

import type { SolvedLineUp } from "../hydraulics/solve";
import { linkKindOf } from "../network/links";
import type { NetworkFile, NetworkLink } from "../network/links/link";
import type { Curve, Way } from "../solver/newton";
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
    const link = this.solved.network.links[i] as NetworkLink;
    return linkKindOf(link).boreM(link);
  }

  private perVelocityHead(i: number): number {
    return 1 / (2 * areaM2(this.bore(i)) ** 2);
  }

  /** What one link may write; places inside a part have names that end in `~`. */
  private fileFor(i: number): NetworkFile {
    const { id } = this.solved.network.links[i] as NetworkLink;
    const { sections } = this;
    const reach = (times: number, least: number) =>
      Math.max(times * Math.abs(this.solved.flow[i] ?? 0), least);
    return {
      pipe: (from, to, lengthM, roughnessM, status) => {
        const cells = [Math.max(LEAST_LENGTH_M, lengthM), this.bore(i) * MM];
        const roughness = Math.max(LEAST_ROUGHNESS_M, roughnessM) * MM;
        sections.pipes.push(row(id, from, to, ...cells, roughness, this.frozenK(i), status));
      },
      sampled: (from, to, name, drop) => {
        const curve = `C${sections.curves.length}_${i}`;
        const most = reach(3, 1e-5);
        for (let k = 0; k <= CURVE_SAMPLES; k++) {
          const q = (most * k) / CURVE_SAMPLES;
          sections.curves.push(row(curve, q / LPM_M3_S, this.metres(drop(q))));
        }
        sections.valves.push(row(name, from, to, this.bore(i) * MM, "GPV", curve, 0));
      },
      /** As a pump with a sampled curve, from rest to where it gives none. */
      rising: (from, to, rise) => {
        const curve = `R${i}`;
        const most = reach(2, 1e-6);
        for (let k = 0; k <= CURVE_SAMPLES; k++) {
          const q = (most * k) / CURVE_SAMPLES;
          const metres = this.metres(rise(q));
          if (k > 3 && metres <= 0) break;
          sections.curves.push(row(curve, q / LPM_M3_S, metres));
        }
        sections.pumps.push(row(id, from, to, `HEAD ${curve}`));
      },
      pump: (from, to, curve) => {
        const name = `P${this.solved.settings.laws.curve[i]}`;
        curve.flow.forEach((q, k) => {
          sections.curves.push(row(name, q / LPM_M3_S, this.metres(-(curve.drop[k] as number))));
        });
        this.pumpTail(name, curve);
        sections.pumps.push(row(id, from, to, `HEAD ${name}`));
      },
      reducing: (from, to, heldPa) => {
        sections.valves.push(row(id, from, to, this.bore(i) * MM, "PRV", this.metres(heldPa), 0));
      },
      reservoir: (name, potentialPa) => {
        sections.reservoirs.push(row(name, this.metres(potentialPa)));
      },
      middle: (node) => {
        sections.junctions.push(row(`${id}~`, this.solved.settings.posture.nodeM[node] ?? 0, 0));
        return `${id}~`;
      },
    };
  }

  link(i: number): void {
    const { network, settings } = this.solved;
    const link = network.links[i] as NetworkLink;
    if (link.from === link.to) return;
    const { laws, fixed } = settings;
    const curve = laws.curve[i] as number;
    linkKindOf(link).export(
      link,
      {
        from: this.node(link.from),
        to: this.node(link.to),
        way: laws.way[i] as Way,
        constant: laws.constant[i] as number,
        linear: laws.linear[i] as number,
        square: laws.square[i] as number,
        curve: curve < 0 ? null : (laws.curves[curve] ?? null),
        isMetered: this.metered.has(i),
        tankPa: fixed[link.to - network.topology.unknowns] ?? 0,
      },
      this.fileFor(i),
    );
  }

  /** Past free flow our curve goes on straight; that format needs the point, and four of them to read a curve as drawn. */
  private pumpTail(id: string, curve: Curve): void {
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
