/** A run laid straight: where its clips go, and for a tube what is done to it in its order. */
import styled from "styled-components";
import { type ClipLine } from "~/core/parts/clips";
import type { CutCard } from "~/core/parts/cutCard";
import { clipWhyTexts, cutStepText } from "~/messages/fit";
import { useTrade } from "~/state/job";
import { Sheet } from "~/ui/place";

const Places = styled.ol`
  display: flex; flex-wrap: wrap; gap: 2px 16px; list-style: none; margin: 6px 0 0; padding: 0; font-size: 13px;
  b { font-weight: 650; }
`;
const WIDTH = 720;
const EDGE = 14;

export function RunCard({ line, lengthM, card }: { line: ClipLine; lengthM: number; card: CutCard | null }) {
  const { length } = useTrade();
  const x = (m: number) => EDGE + (m / lengthM) * (WIDTH - 2 * EDGE);
  return (
    <Sheet>
      <h3>
        {line.from} to {line.to}: {line.clips.length + line.besideBends} clips for {length(line.outsideM)}
      </h3>
      <svg
        viewBox={`0 0 ${WIDTH} 46`}
        style={{ width: "100%", maxWidth: WIDTH, display: "block" }}
        role="img"
        aria-label={`Clips along it: ${line.clips.map(({ atM }) => length(atM)).join(", ")}`}
      >
        <line x1={x(0)} x2={x(lengthM)} y1={22} y2={22} stroke="var(--ink)" strokeWidth={7} />
        {line.clips.map(({ atM, why }) => (
          <g key={atM} transform={`translate(${x(atM)} 22)`}>
            <path d="M-4 -9h8v18h-8z" fill="var(--raised)" stroke="var(--ink)" strokeWidth={1.8} />
            {why === "bend" && <path d="M-7 15q7 8 14 0" fill="none" stroke="var(--ink)" strokeWidth={1.6} />}
            {why === "moving" && (
              <path d="M-6 18l12 0m-4 -4l4 4l-4 4" fill="none" stroke="var(--danger)" strokeWidth={1.6} />
            )}
          </g>
        ))}
      </svg>
      <Places>
        {line.clips.map(({ atM, why }) => (
          <li key={atM}>
            <b>{length(atM)}</b> {clipWhyTexts[why]}
          </li>
        ))}
        {line.besideBends > 0 && (
          <li>and {line.besideBends} more, one on each side of each bend: it was not traced.</li>
        )}
      </Places>
      {card && (
        <>
          <h3 style={{ marginTop: 10 }}>Cut card</h3>
          {card.steps === null ? (
            <p>Cut to {length(card.cutM)}. Trace its route in Lay out and each bend gets its mark here.</p>
          ) : (
            <ol style={{ margin: 0, paddingLeft: 22 }}>
              {card.steps.map((step, i) => (
                <li key={`${step.kind}${i}`}>{cutStepText(step, length)}</li>
              ))}
            </ol>
          )}
          {card.short.map(({ straightM, needsM }) => (
            <p key={straightM} style={{ color: "var(--danger)" }}>
              A straight of {length(Math.max(0, straightM))} between bend and end: nut and bender need{" "}
              {length(needsM)}.
            </p>
          ))}
          <p style={{ color: "var(--soft)", fontSize: 13 }}>
            Make the tube first, tighten its mounts last. Flares by SAE J533 from memory; nut and grip common
            practice.
          </p>
        </>
      )}
    </Sheet>
  );
}
