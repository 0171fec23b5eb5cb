/** A law as scripts call it: what it takes, and what it makes of it. */
import type { z } from "./zod";

/** A fault of the input that its shape alone does not show. */
export class CalcFault extends Error {
  constructor(
    readonly path: string,
    readonly code: string,
    readonly values?: Record<string, string | number>,
  ) {
    super(`${path}: ${code}`);
  }
}

export interface Law {
  input: z.ZodType;
  run(input: never): Record<string, unknown>;
}

export function law<S extends z.ZodType>(input: S, run: (input: z.infer<S>) => Record<string, unknown>): Law {
  return { input, run: run as Law["run"] };
}
