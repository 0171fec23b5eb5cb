/** The Keel on a narrow screen: one row a station, with its bar. */

import styled from "styled-components";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import { type UnitChoice } from "~/core/units/format";
import { tradeIn } from "~/core/units/trade";

const List = styled.ol`
  list-style: none; margin: 0; padding: 0;
  button { display: grid; grid-template-columns: minmax(0, 1fr) 96px 64px; align-items: center; gap: 8px; width: 100%; min-height: 44px; padding: 4px 12px; border: 0; border-bottom: 1px solid var(--hairline); background: none; text-align: left; cursor: pointer; }
  button[aria-pressed="true"] { background: color-mix(in srgb, var(--act) 12%, transparent); font-weight: 650; }
  small { text-align: right; font-size: 13px; }
`;

interface Props {
  verdict: LineUpVerdict;
  units: UnitChoice;
  selectedId: string | null;
  onSelect: (id: string) => void;
}

export function KeelUpright({ verdict, units, selectedId, onSelect }: Props) {
  const { way } = verdict;
  if (!way) return null;
  const most = Math.max(1, ...way.stations.map(({ afterPa }) => Math.abs(afterPa)));
  return (
    <List>
      {way.stations.map((station, i) => {
        const share = Math.min(1, Math.abs(station.afterPa) / most);
        const colour =
          station.side === "return"
            ? "var(--back)"
            : station.afterPa < 0
              ? "var(--vacuum)"
              : "var(--pressure)";
        return (
          <li key={`${station.id}${i}`}>
            <button
              type="button"
              aria-pressed={station.id === selectedId}
              onClick={() => onSelect(station.id)}
            >
              <span>{station.name}</span>
              <svg width="96" height="10" aria-hidden>
                <line x1="48" x2="48" y1="0" y2="10" stroke="var(--ink)" />
                <rect
                  x={station.afterPa < 0 ? 48 - 46 * share : 48}
                  y="2"
                  width={46 * share}
                  height="6"
                  fill={colour}
                />
              </svg>
              <small>{tradeIn(units).gauge(station.afterPa)}</small>
            </button>
          </li>
        );
      })}
    </List>
  );
}
