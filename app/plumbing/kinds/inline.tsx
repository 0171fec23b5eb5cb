/** What sits in a line, drawn about the middle of it (0, 0), flow to the right. */
import type { ReactNode } from "react";
import type { PartKind, PartOf } from "~/core/kinds/index";
import { body, type Drawing, isToLeft, Lead, thin, Under } from "./drawing";

const inline =
  <K extends PartKind>(shape: ReactNode): Drawing<PartOf<K>> =>
  (of) => (
    <g>
      <Lead of={of} y={16} half={0} />
      <g transform={`translate(${of.box.width / 2} 16)${isToLeft(of) ? " scale(-1 1)" : ""}`}>{shape}</g>
      <Under of={of} />
    </g>
  );

export const antiSiphon = inline<"antiSiphon">(
  <g>
    <rect x={-18} y={-12} width={36} height={24} rx={3} {...body} strokeWidth={1.5} />
    <path d="M-12 -7v14M-12 0l4 -4l4 8l4 -8l4 8l4 -8l4 4M12 -8v16" {...thin} />
  </g>,
);

export const bulb = inline<"bulb">(
  <g>
    <path d="M-22 0C-18 -13 18 -13 22 0C18 13 -18 13 -22 0z" {...body} />
    <path d="M-10 -8v16M-3 -9.5v19M4 -9.5v19M11 -8v16" {...thin} strokeWidth={1.1} />
  </g>,
);

export const relief = inline<"relief">(
  <g>
    <path d="M-14 -9L0 0L-14 9zM14 -9L0 0L14 9z" {...body} strokeWidth={1.5} />
    <path d="M0 0V-6l4 -2l-8 -2l8 -2l-8 -2l4 -2" {...thin} />
  </g>,
);

export const regulator = inline<"regulator">(
  <g>
    <rect x={-16} y={-6} width={32} height={16} rx={2} {...body} strokeWidth={1.5} />
    <path d="M-13 -6C-13 -19 13 -19 13 -6z" {...body} strokeWidth={1.5} />
    <path d="M0 -16v-3M-4 -19h8" {...thin} />
  </g>,
);

export const cooler = inline<"cooler">(
  <g>
    <rect x={-23} y={-13} width={46} height={26} rx={2} {...body} strokeWidth={1.5} />
    <path d="M-23 0h6l4 -8l6 16l6 -16l6 16l6 -16l4 8h8" {...thin} />
  </g>,
);

export const flowMeter = inline<"flowMeter">(
  <g>
    <circle r={14} {...body} strokeWidth={1.5} />
    <path d="M0 0C4 -4 6 -9 2 -11M0 0C5 2 10 3 11 -2M0 0C0 6 -3 11 -7 9M0 0C-6 1 -10 -2 -10 -6" {...thin} />
  </g>,
);

export const fuelHeater = inline<"fuelHeater">(
  <g>
    <rect x={-23} y={-12} width={46} height={24} rx={2} {...body} strokeWidth={1.5} />
    <path d="M-14 7c0 -5 5 -5 5 -10M-3 7c0 -5 5 -5 5 -10M8 7c0 -5 5 -5 5 -10" {...thin} />
  </g>,
);

export const bleedScrew = inline<"bleedScrew">(
  <g>
    <rect x={-9} y={-6} width={18} height={12} rx={2} {...body} strokeWidth={1.5} />
    <path d="M-3 -6v-5h6v5M-6 -15h12v4h-12z" {...body} strokeWidth={1.4} />
  </g>,
);

export const thermometer = inline<"thermometer">(
  <g>
    <path d="M0 14a6 6 0 0 1 -3 -11v-17a3 3 0 0 1 6 0v17a6 6 0 0 1 -3 11z" {...body} strokeWidth={1.5} />
    <path d="M0 9v-14" stroke="var(--ink)" strokeWidth={2.4} />
    <path d="M5 -11h4M5 -6h4M5 -1h4" {...thin} />
  </g>,
);

export const samplingTap = inline<"samplingTap">(
  <g>
    <rect x={-9} y={-6} width={18} height={12} rx={2} {...body} strokeWidth={1.5} />
    <path d="M0 6v7M-6 13h12" {...thin} />
    <path d="M0 17c-3 4 -3 6 0 6s3 -2 0 -6z" fill="var(--ink)" />
  </g>,
);

export const waterSensor = inline<"waterSensor">(
  <g>
    <path d="M-11 -8h22v12a8 8 0 0 1 -8 8h-6a8 8 0 0 1 -8 -8z" {...body} strokeWidth={1.5} />
    <path d="M-9 5q3 -2.5 6 0t6 0t6 0a7 7 0 0 1 -6 5h-6a7 7 0 0 1 -6 -5z" fill="var(--water)" />
    <path d="M-3 -8v11M3 -8v11" {...thin} />
  </g>,
);

export const bulkhead = inline<"bulkhead">(
  <g>
    <path d="M-3 -20h6v40h-6z" fill="var(--hairline)" stroke="var(--ink)" strokeWidth={1.2} />
    <rect x={-12} y={-7} width={9} height={14} {...body} strokeWidth={1.5} />
    <rect x={3} y={-7} width={9} height={14} {...body} strokeWidth={1.5} />
  </g>,
);

export const strainer = inline<"strainer">(
  <g>
    <path d="M-15 -8H15V4L6 14H-6L-15 4z" {...body} strokeWidth={1.5} />
    <path d="M-11 -4L4 10M-5 -4L9 10M1 -4L12 6M-12 2L-4 10" {...thin} strokeWidth={1} />
  </g>,
);

export const block = inline<"block">(
  <g>
    <rect x={-20} y={-10} width={40} height={20} rx={1} {...body} strokeWidth={1.5} />
    <path d="M-20 0H20" {...thin} strokeDasharray="4 3" />
    <path d="M-13 -10v-4M0 -10v-4M13 -10v-4" {...thin} />
  </g>,
);

function CheckGlyph({ cx, toLeft }: { cx: number; toLeft: boolean }) {
  return (
    <g transform={toLeft ? `translate(${2 * cx} 0) scale(-1 1)` : undefined}>
      <rect x={cx - 18} y={4} width={36} height={24} rx={3} {...body} strokeWidth={1.5} />
      <path
        d={`M${cx - 10} 9l14 7l-14 7zM${cx + 6} 8v16`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.8}
      />
    </g>
  );
}

export const check: Drawing<PartOf<"check">> = (of) => (
  <g>
    <Lead of={of} y={16} half={18} />
    <CheckGlyph cx={of.box.width / 2} toLeft={isToLeft(of)} />
    <Under of={of} />
  </g>
);
