/** Edits as the interface makes them, from a file. */
import { carryOut } from "~/core/drawing/carryOut";
import { type Command, CommandRefused } from "~/core/edit/command";
import { isCommandName } from "~/core/edit/commands";
import { type JobFile, jobFaults } from "~/schemas/file";
import { z } from "~/schemas/zod";
import { type Call, fileOf, readFile, readJson } from "./inputs";
import { BAD_INPUT, refuse, Stop } from "./stop";

const commandsSchema = z.array(z.looseObject({ name: z.string().refine(isCommandName) })).max(10_000);

/** The job's file after edits in their order; the first that cannot be made, or leaves faults, ends it with nothing written. */
export function edited(call: Call): JobFile {
  const from = fileOf(call, "commands", "a file with a list of edits");
  const commands = commandsSchema.safeParse(readJson(call, from, from));
  if (!commands.success) {
    const [at = 0] = commands.error.issues[0]?.path ?? [];
    throw new Stop([`${from}: commands[${String(at)}]: there is no edit of that name`], BAD_INPUT);
  }
  const file = readFile(call);
  const job = commands.data.reduce((now, command, i) => {
    const at = `${from}: commands[${i}] (${command.name})`;
    try {
      return carryOut(now, command as unknown as Command).job;
    } catch (error) {
      if (error instanceof CommandRefused) throw new Stop([`${at}: ${error.code} ${error.id}`], BAD_INPUT);
      throw new Stop(
        [`${at}: is not of the form that this edit has (${(error as Error).message})`],
        BAD_INPUT,
      );
    }
  }, file.job);
  const faults = jobFaults(job);
  if (faults.length > 0) throw refuse(from, faults);
  return { ...file, job };
}
