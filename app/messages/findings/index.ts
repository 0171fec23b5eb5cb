/** Findings as sentences: what is wrong, the number behind it, why it matters, what to do, and on what basis. */
import type { Finding, FindingOf, RuleId } from "~/core/findings/index";
import type { FindingBasis } from "~/core/findings/rule";
import type { SchoolMatter } from "~/core/plan/types";
import type { UnitChoice } from "~/core/units/format";
import { schoolTexts } from "../schools";
import { electric } from "./electric";
import { filters } from "./filters";
import { flow } from "./flow";
import { heaters } from "./heaters";
import { hoses } from "./hoses";
import { looks } from "./looks";
import { type Sentence, type Sentences, sayIn } from "./say";
import { tanks } from "./tanks";

export interface FindingText {
  title: string;
  detail: string;
  why: string;
  mend: string;
  basis: string;
}

/** One sentence a rule: a rule without one does not compile. */
const sentences: Sentences<RuleId> = {
  ...tanks,
  ...flow,
  ...filters,
  ...hoses,
  ...looks,
  ...heaters,
  ...electric,
};

const schools: Record<string, string> = {
  abycH33: "ABYC H-33 school",
  iso10088: "ISO 10088 school",
  awayFromPickup: "school: return away from the pickup",
};

/** `matter:choice` of a divided practice, or one of the standards' own names. */
function schoolText(school: string): string {
  const [matter, choice] = school.split(":") as [SchoolMatter, string];
  return choice === undefined
    ? (schools[school] ?? school)
    : `school: ${schoolTexts[matter].choices[choice] ?? choice}`;
}

const bases: Record<FindingBasis, string> = {
  standard: "published standard",
  maker: "maker's figure",
  common: "common practice",
};

export function findingText(finding: Finding, units: UnitChoice, name: (id: string) => string): FindingText {
  const { rule, values, school } = finding as FindingOf<RuleId>;
  const sentence = sentences[rule] as Sentence<RuleId>;
  const [title, detail, why, mend] = sentence(values, sayIn(units, name), finding);
  const basis = [bases[finding.basis], school && schoolText(school)].filter(Boolean).join(", ");
  return { title, detail, why, mend, basis };
}

/** Where a finding holds, for its first line: nothing where it holds in every line-up or its title says it. */
export function holdsInText(title: string, holdsIn: readonly string[], all: number): string {
  if (holdsIn.length === 0 || holdsIn.length === all) return "";
  const [first = ""] = holdsIn;
  if (holdsIn.length > 2) return `in ${holdsIn.length} of ${all} line-ups`;
  return title.includes(first) ? "" : `in ${holdsIn.join(" and ")}`;
}
