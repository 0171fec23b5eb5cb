/** Filters: a separator's bowl with its water, a finer filter's can, pleats that darken as they load. */
import type { Filtering } from "~/core/kinds/families";
import type { PartOf } from "~/core/kinds/index";
import { body, type Drawing, type Drawn, isOn, isToLeft, Lead, PortLeads, solvedOf, Under } from "./drawing";
import { PumpGlyph } from "./pumps";

function FilterGlyph({
  cx,
  loading,
  hasElement,
  isSecondary,
}: {
  cx: number;
  loading: number;
  hasElement: boolean;
  isSecondary: boolean;
}) {
  const pleats = Math.min(0.75, 0.12 * loading);
  return (
    <g>
      <rect x={cx - 28} y={6} width={56} height={18} {...body} />
      {isSecondary ? (
        <g>
          <path d={`M${cx - 22} 24h44v40a5 5 0 0 1 -5 5h-34a5 5 0 0 1 -5 -5z`} {...body} />
          {[-13, -6.5, 0, 6.5, 13].map((dx) => (
            <line
              key={dx}
              x1={cx + dx}
              x2={cx + dx}
              y1={32}
              y2={62}
              stroke="var(--ink)"
              opacity={0.35 + pleats * 0.6}
            />
          ))}
        </g>
      ) : (
        <g>
          <path d={`M${cx - 22} 24h44v38a14 14 0 0 1 -14 14h-16a14 14 0 0 1 -14 -14z`} {...body} />
          <path d={`M${cx - 19} 50h38v11a12 12 0 0 1 -12 12h-14a12 12 0 0 1 -12 -12z`} fill="var(--atRest)" />
          <path
            d={`M${cx - 18} 64q4.5 -3 9 0t9 0t9 0t9 0a11 11 0 0 1 -11 9h-14a11 11 0 0 1 -11 -9z`}
            fill="var(--water)"
          />
          {[30, 35, 40, 45].map((y) => (
            <line
              key={y}
              x1={cx - 13}
              x2={cx + 13}
              y1={y}
              y2={y}
              stroke="var(--ink)"
              opacity={0.3 + pleats * 0.6}
              strokeWidth={1.4}
            />
          ))}
          <path
            d={`M${cx - 22} 24h44v38a14 14 0 0 1 -14 14h-16a14 14 0 0 1 -14 -14z`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.8}
          />
        </g>
      )}
      {!hasElement && (
        <path d={`M${cx - 18} 28l36 34M${cx + 18} 28l-36 34`} stroke="var(--danger)" strokeWidth={2} />
      )}
    </g>
  );
}

const loadingOf = (of: Drawn<Filtering>): number => {
  const { element } = of.part;
  return element ? (solvedOf(of)?.settings.conditions.loading[element.id] ?? 1) : 1;
};
const figure = ({ part, passing }: Drawn<Filtering>) =>
  `${part.micron}\u00a0µm, ${passing ? "in\u00a0use" : "stand-by"}`;

export const filter: Drawing<PartOf<"filter">> = (of) => (
  <g>
    {of.part.isTwin ? <PortLeads of={of} /> : <Lead of={of} y={16} half={28} />}
    <FilterGlyph
      cx={of.box.width / 2}
      loading={loadingOf(of)}
      hasElement={of.part.element !== null}
      isSecondary={of.part.medium === "secondary"}
    />
    <Under of={of} figure={figure(of)} />
  </g>
);

export const pumpFilterUnit: Drawing<PartOf<"pumpFilterUnit">> = (of) => (
  <g>
    <FilterGlyph
      cx={of.box.width / 2}
      loading={loadingOf(of)}
      hasElement={of.part.element !== null}
      isSecondary={false}
    />
    <PumpGlyph cx={of.box.width / 2} isOn={isOn(of)} toLeft={isToLeft(of)} isSmall />
    <PortLeads of={of} />
    <Under of={of} figure={figure(of)} />
  </g>
);
