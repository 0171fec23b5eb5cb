import { answered, type Said } from "./call";

/** The command line as a test calls it: answered in the test's own process. */
export const keel = (args: readonly string[], input = ""): Promise<Said> => answered(args, () => input);
