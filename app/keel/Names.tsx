/** Names under the Keel, by which parts are chosen, and the branches that leave the way. */
import { memo } from "react";
import styled, { css } from "styled-components";
import type { Stub } from "~/core/hydraulics/route";
import type { KeelScale } from "./scale";

const FOLDS_PX = 50;
export const NAME_CHAR_PX = 5.5;

/** A name stands under its station, but never over the folds or the edge. */
function nameAt(name: string, x: number, width: number): number {
  const half = (name.length * NAME_CHAR_PX) / 2;
  return Math.min(width - half - 6, Math.max(FOLDS_PX + half, x));
}

const NameButton = styled.button<{ $chosen: boolean }>`
  position: absolute; transform: translateX(-50%); bottom: 2px; border: 0; background: none; cursor: pointer;
  font-stretch: 80%; font-size: 13px; padding: 2px 4px; min-height: 24px; white-space: nowrap;
  ${({ $chosen }) => $chosen && css`font-weight: 700; text-decoration: underline; text-underline-offset: 3px;`}
  &[data-hidden="true"] { width: 24px; overflow: hidden; color: transparent; }
  &[data-hidden="true"]:focus-visible, &[data-hidden="true"]:hover { color: var(--ink); width: auto; background: var(--raised); z-index: 3; }
`;
const StubButton = styled.button`
  position: absolute; transform: translate(-50%, -50%); width: 24px; height: 24px; border: 0; padding: 0; background: none; cursor: pointer;
  &::after { content: ""; position: absolute; left: 7px; top: 2px; width: 2px; height: 14px; background: var(--idle); transform: rotate(30deg); }
  &:hover::after, &:focus-visible::after, &[aria-pressed="true"]::after { background: var(--act); width: 4px; }
`;
interface NamesProps {
  selectedId: string | null;
  onSelect: (id: string) => void;
  nameOf: (id: string) => string;
  /** All that the names depend on: while it holds they are not drawn again. */
  signature: string;
  stations: KeelScale["stations"];
  shown: ReadonlySet<number>;
  stubs: readonly Stub[];
  stubY: number;
  width: number;
}

/** Names of the stations and the branches between: they stay where they are while the pressure moves. */
export const Names = memo(
  function Names({ stations, shown, stubs, stubY, width, selectedId, onSelect, nameOf }: NamesProps) {
    return (
      <>
        {stubs.map(({ stationId, runId, farId }, i) => {
          const at = stations.find(({ station }) => station.id === stationId);
          const before = stubs.slice(0, i).filter((stub) => stub.stationId === stationId).length;
          return at ? (
            <StubButton
              key={runId}
              type="button"
              title={`branch: ${nameOf(farId)}`}
              aria-label={`Branch at ${at.station.name} to ${nameOf(farId)}`}
              aria-pressed={selectedId === runId}
              style={{ left: at.x + 4 + before * 10, top: stubY }}
              onClick={() => onSelect(runId)}
            />
          ) : null;
        })}
        {stations.map(({ station, x }, i) => (
          <NameButton
            key={`${station.id}${station.side}${station.linkId ?? ""}`}
            type="button"
            style={{ left: nameAt(station.name, x, width) }}
            $chosen={station.id === selectedId}
            data-hidden={!shown.has(i)}
            onClick={() => onSelect(station.id)}
          >
            {station.name}
          </NameButton>
        ))}
      </>
    );
  },
  (before, now) => before.signature === now.signature,
);

/** Less than this between mean and stroke is not drawn, Pa. */
