/** Why the command line ended without an answer: what is said, and the status it ends with. */

import { faultText } from "~/messages/faults";
import { type FileFault } from "~/schemas/file";

/** A fault in what was read, a call that is none, a file that cannot be read. */
export const BAD_INPUT = 1;
export const BAD_USE = 2;
export const NO_FILE = 3;

export class Stop extends Error {
  constructor(
    readonly lines: string[],
    readonly status: number,
  ) {
    super(lines.join("\n"));
  }
}

export const refuse = (file: string, faults: FileFault[]) =>
  new Stop(
    faults.map((fault) => `${file}: ${fault.path || "file"}: ${faultText(fault)}`),
    BAD_INPUT,
  );
