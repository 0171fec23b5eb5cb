/** What the drawing of a kind of part says of itself, and what drawings share. */
import type { ReactNode } from "react";
import { bodyOf } from "~/core/drawing/bodies";
import { firstLinePx, LINE_PX, wrapped } from "~/core/drawing/labels";
import type { Placed } from "~/core/drawing/placed";
import type { Passing } from "~/core/hydraulics/derive";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import { isPowered } from "~/core/kinds/families";
import type { Part } from "~/core/kinds/index";
import type { ValveSetting } from "~/core/plan/types";
import type { UnitChoice } from "~/core/units/format";

/** What a part is drawn from. */
export interface Drawn<P extends Part = Part> {
  part: P;
  placed: Placed;
  box: { x: number; y: number; width: number; height: number };
  verdict: LineUpVerdict | null;
  /** What passes it, if anything does. */
  passing: Passing | undefined;
  units: UnitChoice;
  /** Size of the letters beside their part: they keep theirs on a smaller drawing. */
  text: number;
}

/** How a kind of part is drawn within its body; how large that is stands in the core. */
export type Drawing<P extends Part> = (of: Drawn<P>) => ReactNode;

export const body = { fill: "var(--raised)", stroke: "var(--ink)", strokeWidth: 1.8 } as const;
export const thin = { fill: "none", stroke: "var(--ink)", strokeWidth: 1.5 } as const;
export const halo = {
  paintOrder: "stroke",
  stroke: "var(--ground)",
  strokeWidth: 3,
  strokeLinejoin: "round",
  fontStretch: "78%",
} as const;

/** On a drawing so small that names outgrow their parts, figures under them are left to the inspector. */
const MOST_TEXT_WITH_FIGURES = 1.5;

export const settingOf = ({ part, verdict }: Drawn): ValveSetting | undefined =>
  verdict?.lineUp.valves[part.id];
export const solvedOf = ({ verdict }: Drawn) =>
  verdict?.result.outcome === "solved" ? verdict.result : null;
export const isOn = ({ part, verdict }: Drawn): boolean =>
  isPowered(part) && verdict?.lineUp.pumps[part.id] === "on";
/** Does its flow, or its arrow, go to the left here? */
export const isToLeft = ({ part, placed }: Drawn): boolean =>
  (placed.ports.get(`${part.id}.out`)?.side ?? "WEST") === "WEST";

export const passingColour = (passing: Passing | undefined): string =>
  !passing
    ? "var(--idle)"
    : passing.isReturn
      ? "var(--back)"
      : passing.beforePa < 0
        ? "var(--vacuum)"
        : "var(--pressure)";

/** Its name under it, and a figure under that. */
export function Under({ of, figure = "" }: { of: Drawn; figure?: string }) {
  const { part, text, box } = of;
  const name = wrapped(part.name, text);
  const figures = figure && text <= MOST_TEXT_WITH_FIGURES ? wrapped(figure, text) : [];
  const top = firstLinePx(bodyOf(part).nameY ?? 0, text);
  return (
    <g textAnchor="middle">
      {[...name, ...figures].map((line, i) => (
        <text
          key={i}
          x={box.width / 2}
          y={top + i * LINE_PX * text}
          fontSize={12 * text}
          fontWeight={i < name.length ? 600 : undefined}
          fill={i < name.length ? "var(--ink)" : "var(--soft)"}
          style={halo}
        >
          {line}
        </text>
      ))}
    </g>
  );
}

/** The line from side to side behind its body, in the colour of what passes. */
export function Lead({ of: { box, passing }, y, half }: { of: Drawn; y: number; half: number }) {
  const cx = box.width / 2;
  return (
    <path
      d={`M0 ${y}H${cx - half}M${cx + half} ${y}H${box.width}`}
      stroke={passingColour(passing)}
      strokeWidth={passing ? 4 : 1.6}
      fill="none"
    />
  );
}

/** Of parts with more than two ports: a lead from each to the middle. */
export function PortLeads({ of: { part, placed, box, passing } }: { of: Drawn }) {
  const cx = box.width / 2;
  const leads = [...placed.ports]
    .filter(([key]) => key.startsWith(`${part.id}.`))
    .map(([, port]) => {
      const y = port.y - box.y;
      return port.side === "WEST" ? `M0 ${y}H${cx - 20}` : `M${cx + 20} ${y}H${box.width}`;
    });
  return (
    <path
      d={leads.join("")}
      stroke={passing ? "var(--ink)" : "var(--idle)"}
      strokeWidth={passing ? 2.4 : 1.6}
      fill="none"
    />
  );
}
