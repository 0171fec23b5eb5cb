/** Words of the house that can be opened where they first stand. docs/glossary.md says the same of each. */
export const terms = {
  "change point": "the loading at which a filter element is changed",
  "dead fuel": "fuel that a pickup leaves behind",
  foam: "fuel with air in it, between solid fuel and air",
  hold: "a step that cannot be passed before another is done",
  ledger: "what was undone and is not yet redone: joints open, plugs out, valves shut, battery off",
  "line-up": "a named setting of every valve and pump, with its purpose",
  school: "a side taken where practice is divided; set by job, named by the finding",
  solid: "fuel that runs without air; a joint is shut when it has run solid for 3 s",
} as const;
export type TermId = keyof typeof terms;
