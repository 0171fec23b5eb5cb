/** Clips, cut cards and labels in words. */
import type { ClipWhy } from "~/core/parts/clips";
import type { CutStep } from "~/core/parts/cutCard";
import { type MarkColour, markColours, type Run } from "~/core/plan/types";

export const clipWhyTexts: Record<ClipWhy, string> = {
  end: "near its end",
  bend: "beside a bend",
  moving: "before what moves",
  span: "on the way",
};

export function cutStepText(step: CutStep, length: (m: number) => string): string {
  switch (step.kind) {
    case "cut":
      return `Cut to ${length(step.lengthM)}, square.`;
    case "deburr":
      return "Deburr inside and out; blow it clean, eyes covered.";
    case "nut":
      return `Nut and sleeve on from the ${step.side === "from" ? "first" : "far"} end, thread towards that end.`;
    case "flare":
      return `Flare the ${step.side === "from" ? "first" : "far"} end.`;
    case "bend":
      return `Bend ${Math.round((step.turnRad * 180) / Math.PI)}° from a mark at ${length(step.atM)} from the first end.`;
  }
}

/** On the label of a hose's end: where it comes from and where it goes. */
export const labelText = ({ mark }: Run, from: string, to: string): string => mark || `${from} to ${to}`;

/** The ground of a coloured band, by its name: print-safe, and the name stands on it. */
export const bandPaint: Readonly<Record<MarkColour, string>> = {
  yellow: "#f2c500",
  orange: "#e57a00",
  red: "#c0182b",
  violet: "#6b2c8f",
  blue: "#1457b8",
  green: "#1c7a3c",
  brown: "#6b4423",
  black: "#111111",
};

export const bandColours: { id: MarkColour | "none"; name: string }[] = [
  { id: "none", name: "none" },
  ...markColours.map((id) => ({ id, name: id })),
];
