/** The frame in which a place shows the plan as it is plumbed. */
import type { ReactNode } from "react";
import styled from "styled-components";
import type { Placed } from "~/core/drawing/placed";

const Frame = styled.div`
  margin: 0 16px 10px; border: 1px solid var(--hairline); background: var(--raised); overflow-x: auto;
  svg { display: block; width: 100%; height: auto; }
  @media (max-width: 600px), print { display: none; }
`;
const SHOWN_WIDTH = 800;

export function PlanDrawing({
  placed,
  label,
  children,
}: {
  placed: Placed;
  label: string;
  children: (scale: number) => ReactNode;
}) {
  return (
    <Frame>
      <svg viewBox={`0 0 ${placed.width} ${placed.height}`} role="group" aria-label={label}>
        {children(Math.min(1, SHOWN_WIDTH / placed.width))}
      </svg>
    </Frame>
  );
}
