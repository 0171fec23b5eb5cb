import type { Rule } from "eslint";

/** Why an import is not allowed, or null. */
export function fault(source: string, file: string, root: string): string | null;
export const rule: Rule.RuleModule;
