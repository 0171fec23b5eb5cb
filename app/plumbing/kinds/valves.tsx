/** Valves: lever handles that lie along the pipe when open, a selector's ways as they are joined, a bank's rail. */

import { BANK_HEAD_PX } from "~/core/drawing/bodies";
import { LINE_PX, wrapped } from "~/core/drawing/labels";
import type { PartOf } from "~/core/kinds/index";
import { isOpen, waysThrough } from "~/core/plan/valves";
import { settingText } from "~/messages/settingText";
import { body, type Drawing, type Drawn, halo, Lead, settingOf, Under } from "./drawing";

/** Lever along the pipe: open. Across it: shut. */
function Lever({ cx, cy, isOpen: open, r = 9 }: { cx: number; cy: number; isOpen: boolean; r?: number }) {
  return (
    <g>
      <circle cx={cx} cy={cy} r={r} {...body} strokeWidth={1.5} />
      <rect
        x={cx - r - 4}
        y={cy - 2.6}
        width={2 * r + 8}
        height={5.2}
        rx={2}
        fill="var(--ink)"
        transform={open ? undefined : `rotate(90 ${cx} ${cy})`}
      />
    </g>
  );
}

export const twoWay: Drawing<PartOf<"twoWay">> = (of) => (
  <g>
    <Lead of={of} y={14} half={9} />
    <Lever cx={of.box.width / 2} cy={14} isOpen={isOpen(of.part, ["a", "b"], settingOf(of))} />
    <Under of={of} />
  </g>
);

function SelectorNode({ of }: { of: Drawn<PartOf<"selector">> }) {
  const { part, placed, box } = of;
  const cx = box.width / 2;
  const setting = settingOf(of);
  return (
    <g>
      <circle cx={cx} cy={29} r={24} {...body} />
      {waysThrough(part)
        .filter(({ ports }) => isOpen(part, ports, setting))
        .map(({ id, ports }) => {
          const [a, b] = ports.map((port) => placed.ports.get(`${part.id}.${port}`));
          return a && b ? (
            <path
              key={id}
              d={`M${a.x - box.x} ${a.y - box.y}Q${cx} 29 ${b.x - box.x} ${b.y - box.y}`}
              stroke="var(--ink)"
              strokeWidth={5}
              fill="none"
            />
          ) : null;
        })}
      <circle cx={cx} cy={29} r={5} fill="var(--ink)" />
      <Under of={of} figure={settingText(part, setting)} />
    </g>
  );
}

export const selector: Drawing<PartOf<"selector">> = (of) => <SelectorNode of={of} />;

function BankNode({ of }: { of: Drawn<PartOf<"bank">> }) {
  const { part, placed, box, text } = of;
  const setting = settingOf(of);
  const railX = box.width / 2;
  const lead = (id: string) => {
    const port = placed.ports.get(`${part.id}.${id}`);
    if (!port) return null;
    const y = port.y - box.y;
    const isWest = port.side === "WEST";
    return { y, isWest, d: isWest ? `M0 ${y}H${railX - 11}` : `M${railX + 11} ${y}H${box.width}` };
  };
  const common = lead("c");
  return (
    <g>
      <rect x={railX - 11} y={BANK_HEAD_PX} width={22} height={box.height - BANK_HEAD_PX} {...body} />
      {wrapped(part.name).map((line, i, lines) => (
        <text
          key={i}
          x={railX}
          y={BANK_HEAD_PX - 6 - (lines.length - 1 - i) * LINE_PX * text}
          fontSize={12 * text}
          fontWeight={600}
          textAnchor="middle"
          fill="var(--ink)"
          style={halo}
        >
          {line}
        </text>
      ))}
      {part.branches.map(({ id }) => {
        const at = lead(id);
        if (!at) return null;
        const open = isOpen(part, ["c", id], setting);
        return (
          <g key={id}>
            <path d={at.d} stroke={open ? "var(--ink)" : "var(--idle)"} strokeWidth={open ? 3 : 1.6} />
            <Lever cx={at.isWest ? 8 : box.width - 8} cy={at.y} isOpen={open} r={7} />
          </g>
        );
      })}
      {common && <path d={common.d} stroke="var(--ink)" strokeWidth={2.4} />}
    </g>
  );
}

export const bank: Drawing<PartOf<"bank">> = (of) => <BankNode of={of} />;

export const tee: Drawing<PartOf<"tee">> = ({ passing }) => (
  <circle r={4.5} fill={passing ? "var(--ink)" : "var(--idle)"} />
);
