/** The list in the order that was asked for, and of it what was sought. */
import type { Glance } from "~/schemas/noted";
import type { JobSummary } from "~/store/list";

export const orders = [
  { id: "changed", name: "last changed first" },
  { id: "due", name: "next due first" },
  { id: "worst", name: "worst first" },
  { id: "name", name: "by name" },
] as const;
export type Order = (typeof orders)[number]["id"];

/** What has nothing due stands last. */
const LAST = "9999";
const nextDue = (glance: Glance | undefined): string => glance?.due[0]?.on ?? LAST;
const rank = { stop: 0, mend: 1, watch: 2 } as const;
const badness = (glance: Glance | undefined): number => (glance?.worst ? rank[glance.worst.grade] : 3);

/** @param sought words that must all be found: in the name, the note, the kind, the worst finding or what is due */
export function inOrder(
  jobs: readonly JobSummary[],
  glances: ReadonlyMap<string, Glance>,
  order: Order,
  sought: string,
): JobSummary[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const found = jobs.filter(({ id, name, note, kind }) => {
    const glance = glances.get(id);
    const text = [name, note, kind, glance?.worst?.title, ...(glance?.due.map((one) => one.text) ?? [])];
    const all = text.join(" ").toLowerCase();
    return words.every((word) => all.includes(word));
  });
  const of = ({ id }: JobSummary) => glances.get(id);
  const byName = (a: JobSummary, b: JobSummary) => a.name.localeCompare(b.name);
  switch (order) {
    case "changed":
      return found.sort((a, b) => b.updatedAt.localeCompare(a.updatedAt));
    case "due":
      return found.sort((a, b) => nextDue(of(a)).localeCompare(nextDue(of(b))) || byName(a, b));
    case "worst":
      return found.sort((a, b) => badness(of(a)) - badness(of(b)) || byName(a, b));
    case "name":
      return found.sort(byName);
  }
}
