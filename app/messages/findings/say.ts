/** What the sentences of findings are made with. */
import type { FindingOf, RuleId, ValuesOf } from "~/core/findings/index";
import type { UnitChoice } from "~/core/units/format";
import { type Trade, tradeIn } from "~/core/units/trade";

/** Title, detail, why it matters, how it is mended. */
export type Words = readonly [title: string, detail: string, why: string, mend: string];

/** Figures as the job's trade writes them, and names of parts by their ids. */
export interface Say extends Trade {
  name(id: string): string;
}

export const sayIn = (units: UnitChoice, name: (id: string) => string): Say => ({
  ...tradeIn(units),
  name,
});

export type Sentence<K extends RuleId> = (
  values: ValuesOf<K>,
  say: Say,
  finding: Pick<FindingOf<K>, "ids" | "grade" | "school">,
) => Words;
export type Sentences<K extends RuleId> = { readonly [R in K]: Sentence<R> };

export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

export const hours = (h: number) => {
  const whole = Math.floor(h);
  const minutes = Math.round((h - whole) * 60);
  return whole > 0 ? `${whole} h ${minutes} min` : `${minutes} min`;
};
