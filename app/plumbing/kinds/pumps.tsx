/** Pumps: a lift pump's arrow, a transfer pump's two, a priming pump's way round, an in-tank pump's strainer, a dosing pump's piston. */

import type { PartOf } from "~/core/kinds/index";
import { tradeIn } from "~/core/units/trade";
import { body, type Drawing, isOn, isToLeft, Lead, Under } from "./drawing";

type PumpKind = "liftPump" | "transferPump" | "primingPump" | "inTankPump" | "dosingPump";

export function PumpGlyph({
  cx,
  isOn: isRunning,
  toLeft,
  kind = "liftPump",
  isSmall = false,
}: {
  cx: number;
  isOn: boolean;
  toLeft: boolean;
  kind?: PumpKind;
  isSmall?: boolean;
}) {
  const ink = isRunning ? "var(--ink)" : "var(--idle)";
  if (isSmall) {
    return (
      <g transform={`translate(${cx + 24} 14)`}>
        <circle r={11} {...body} strokeWidth={1.5} />
        <path d={toLeft ? "M5 -6L-6 0L5 6z" : "M-5 -6L6 0L-5 6z"} fill={ink} />
      </g>
    );
  }
  const arrow = (y: number) =>
    toLeft ? `M${cx + 13} ${y}h-26m7 -7l-7 7l7 7` : `M${cx - 13} ${y}h26m-7 -7l7 7l-7 7`;
  return (
    <g>
      {kind === "primingPump" && (
        <path d={`M${cx - 30} 22V-4H${cx + 30}V22`} fill="none" stroke="var(--idle)" strokeWidth={1.6} />
      )}
      <rect x={cx - 30} y={2} width={60} height={40} rx={kind === "dosingPump" ? 18 : 7} {...body} />
      {kind === "transferPump" ? (
        <path
          d={isRunning ? `${arrow(14)}${arrow(29)}` : `${arrow(10)}${arrow(21)}`}
          fill="none"
          stroke={ink}
          strokeWidth={2.2}
        />
      ) : (
        // One that is off makes room for the word.
        <path d={arrow(isRunning ? 22 : 14)} fill="none" stroke={ink} strokeWidth={2.6} />
      )}
      {kind === "inTankPump" && (
        <path
          d={`M${cx - 26} 36h52M${cx - 22} 32v8m8 -8v8m8 -8v8m8 -8v8m8 -8v8m8 -8v8`}
          stroke="var(--ink)"
          strokeWidth={1.1}
        />
      )}
      {kind === "dosingPump" && (
        <path d={`M${cx - 20} 9v26m4 -26v26`} stroke="var(--ink)" strokeWidth={1.5} fill="none" />
      )}
      {!isRunning && (
        <text x={cx} y={38} fontSize={13} textAnchor="middle" fill="var(--soft)">
          off
        </text>
      )}
    </g>
  );
}

/** A dosing pump that holds fuel back gives less than none. */
const pumpDrawing =
  <K extends PumpKind>(kind: K): Drawing<PartOf<K>> =>
  (of) => {
    const { passing, units, box } = of;
    const risePa = passing ? passing.afterPa - passing.beforePa : 0;
    return (
      <g>
        <Lead of={of} y={22} half={30} />
        <PumpGlyph cx={box.width / 2} isOn={isOn(of)} toLeft={isToLeft(of)} kind={kind} />
        <Under of={of} figure={passing ? `${risePa > 0 ? "+" : ""}${tradeIn(units).gauge(risePa)}` : ""} />
      </g>
    );
  };

export const liftPump = pumpDrawing("liftPump");
export const transferPump = pumpDrawing("transferPump");
export const primingPump = pumpDrawing("primingPump");
export const inTankPump = pumpDrawing("inTankPump");
export const dosingPump = pumpDrawing("dosingPump");
