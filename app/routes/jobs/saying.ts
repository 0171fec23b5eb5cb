import { storageFault } from "~/messages/storage";
import { say } from "~/ui/toast";

/** Lets work on files run, and says so when the store fails. */
export const sayingFaults = (work: Promise<unknown>): void =>
  void work.catch((error: unknown) => say({ text: storageFault(error), lasts: true }));
