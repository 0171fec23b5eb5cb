/** What burns fuel: an engine's cylinders, a heater's tube with its fan. */
import type { ConsumerOutcome } from "~/core/hydraulics/solve";
import { burnsAll } from "~/core/kinds/consumer";
import type { Engine, PartOf } from "~/core/kinds/index";
import { type UnitChoice } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";
import { body, type Drawing, type Drawn, halo, solvedOf, thin } from "./drawing";

interface GlyphBox {
  width: number;
  height: number;
}

/** A burner's tube with its fan. */
function HeaterGlyph({ width, height }: GlyphBox) {
  return (
    <g>
      <rect width={width} height={height} rx={18} {...body} />
      <circle cx={26} cy={28} r={14} {...thin} />
      <path
        d="M26 28c2 -8 8 -10 10 -6M26 28c8 2 10 8 6 10M26 28c-2 8 -8 10 -10 6M26 28c-8 -2 -10 -8 -6 -10"
        {...thin}
      />
      <path
        d="M56 38c-4 -8 6 -10 2 -20c10 6 14 14 8 20M84 38c-4 -8 6 -10 2 -20c10 6 14 14 8 20"
        {...thin}
        stroke="var(--idle)"
      />
    </g>
  );
}

function EngineGlyph({ width, height }: GlyphBox) {
  return (
    <g>
      <rect width={width} height={height} rx={2} {...body} />
      {[0, 1, 2, 3].map((i) => (
        <rect
          key={i}
          x={14 + i * 27}
          y={12}
          width={22}
          height={30}
          rx={2}
          fill="none"
          stroke="var(--idle)"
          strokeWidth={1.3}
        />
      ))}
    </g>
  );
}

const consumerLine = (outcome: ConsumerOutcome | undefined, units: UnitChoice): string => {
  switch (outcome?.outcome) {
    case undefined:
    case "stopped":
      return "stopped";
    case "fed":
      return `feed ${tradeIn(units).flow(outcome.feedM3S)}`;
    case "starved":
      return "starved";
    case "air":
      return "draws air";
    case "noPath":
      return "no way";
  }
};

function ConsumerNode({ of }: { of: Drawn<Engine> }) {
  const { part, box, units, text } = of;
  const cx = box.width / 2;
  const outcome = solvedOf(of)?.consumers.get(part.id);
  const Glyph = part.kind === "heater" ? HeaterGlyph : EngineGlyph;
  const isLong = part.name.length * 7.2 * text > box.width;
  return (
    <g>
      <Glyph width={box.width} height={box.height} />
      <g textAnchor="middle">
        <text
          x={cx}
          y={62}
          fontSize={(isLong ? 12 : 14) * text}
          fontWeight={650}
          fill="var(--ink)"
          style={halo}
        >
          {part.name}
        </text>
        <text x={cx} y={62 + 18 * text} fontSize={12 * text} fill="var(--soft)">
          {consumerLine(outcome, units)}
        </text>
        {outcome?.outcome === "fed" && !burnsAll(part) && (
          <text x={cx} y={62 + 33 * text} fontSize={12 * text} fill="var(--soft)">
            burn {tradeIn(units).flow(outcome.burnM3S)}
          </text>
        )}
      </g>
    </g>
  );
}

const consumer =
  <K extends Engine["kind"]>(): Drawing<PartOf<K>> =>
  (of) => <ConsumerNode of={of as Drawn<Engine>} />;

export const engine = consumer<"engine">();
export const generator = consumer<"generator">();
export const heater = consumer<"heater">();
