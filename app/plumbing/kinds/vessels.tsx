/** A jet's nozzle, throat and diffuser; a pot that swirls; a valve that lets a tank breathe. */
import type { ReactNode } from "react";
import type { PartOf } from "~/core/kinds/index";
import { body, type Drawing, type Drawn, isToLeft, PortLeads, thin, Under } from "./drawing";

/** One with ports on both sides, drawn at `glyph` over its name. */
const vessel =
  <K extends "jetPump" | "swirlPot">(glyph: (cx: number, of: Drawn) => ReactNode): Drawing<PartOf<K>> =>
  (of) => (
    <g>
      <PortLeads of={of} />
      {glyph(of.box.width / 2, of)}
      <Under of={of} />
    </g>
  );

export const jetPump = vessel<"jetPump">((cx, of) => (
  <g transform={`translate(${cx} 22)${isToLeft(of) ? " scale(-1 1)" : ""}`}>
    <path d="M-24 -16H-6L4 -6H10L24 -14V14L10 6H4L-6 16H-24z" {...body} />
    <path d="M-24 -6L-6 -2V2L-24 6" {...thin} />
    <path d="M-4 0H18m-5 -4l5 4l-5 4" {...thin} />
  </g>
));

export const swirlPot = vessel<"swirlPot">((cx) => (
  <g transform={`translate(${cx} 38)`}>
    <path d="M-20 -34h40v56a14 14 0 0 1 -14 14h-12a14 14 0 0 1 -14 -14z" {...body} />
    <path d="M-18 -14h36v36a12 12 0 0 1 -12 12h-12a12 12 0 0 1 -12 -12z" fill="var(--atRest)" />
    <path d="M13 -4a13 7 0 1 0 -13 7a9 5 0 1 0 -9 -5a5 3 0 1 1 5 3" {...thin} />
    <circle cx={-4} cy={-20} r={2.2} fill="var(--raised)" stroke="var(--ink)" />
    <circle cx={6} cy={-25} r={2.2} fill="var(--raised)" stroke="var(--ink)" />
  </g>
));

export const breatherValve: Drawing<PartOf<"breatherValve">> = (of) => {
  const cx = of.box.width / 2;
  return (
    <g>
      <path d={`M0 16H${cx}`} stroke="var(--idle)" strokeWidth={1.6} />
      <g transform={`translate(${cx} 16)`}>
        <path d="M-9 12V-4a9 9 0 0 1 18 0V12z" {...body} strokeWidth={1.5} />
        <path d="M-5 -4h10M-5 0h10M-5 4h10M-3 -18q3 3 0 6M3 -18q3 3 0 6" {...thin} strokeWidth={1.1} />
      </g>
      <Under of={of} />
    </g>
  );
};
