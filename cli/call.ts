/** A call of the command line answered: JSON in on a file or standard input, JSON out; faults with their place. */
import { type ParseArgsConfig, parseArgs } from "node:util";
import { laws } from "~/schemas/calc";
import type { Call } from "./inputs";
import { BAD_USE, Stop } from "./stop";
import { type VerbOf, verbs } from "./verbs";

const flagText = ([flag, value]: [string, string | null]) =>
  `[--${flag}${value === null ? "" : ` ${value}`}]`;
const callText = (name: string, { word, flags }: VerbOf) =>
  [`keel ${name}`, word, "FILE", ...Object.entries(flags).map(flagText)].filter(Boolean).join(" ");
const helpOf = (name: string, verb: VerbOf) => `${callText(name, verb)}\n  ${verb.help}`;

const usage = [
  "usage: keel VERB FILE [flags]; FILE may be - for standard input; keel VERB --help",
  ...Object.entries(verbs).map(([name, { help }]) => `  ${name.padEnd(10)} ${help}`),
  `laws of calc: ${Object.keys(laws).join(", ")}`,
].join("\n");

/** A value may begin with a minus: it is bound to its flag, so that it is not taken for one. */
const bound = (args: readonly string[]): string[] =>
  args.reduce<string[]>((all, arg) => {
    const last = all.at(-1);
    if (/^-\d/.test(arg) && last?.startsWith("--") && !last.includes("="))
      all[all.length - 1] = `${last}=${arg}`;
    else all.push(arg);
    return all;
  }, []);

const onlyFlag = (text: string) => /'(-[^'\s]*)/.exec(text)?.[1] ?? "";

/** What a verb is called with. Throws {@link Stop} at a flag that it does not have, a value that is missing, a word too many. */
function callOf(
  name: string,
  verb: VerbOf,
  args: readonly string[],
  input: () => string,
  left?: string,
): Call | "help" {
  const options: NonNullable<ParseArgsConfig["options"]> = { help: { type: "boolean" } };
  for (const [flag, value] of Object.entries(verb.flags))
    options[flag] = { type: value === null ? "boolean" : "string" };
  let parsed: ReturnType<typeof parseArgs>;
  try {
    parsed = parseArgs({ args: bound(args), options, allowPositionals: true, strict: true });
  } catch (error) {
    const { code, message } = error as Error & { code?: string };
    const flag = onlyFlag(message);
    const why =
      code === "ERR_PARSE_ARGS_UNKNOWN_OPTION"
        ? `${name} has no flag ${flag}`
        : `${flag || name}: ${message}`;
    throw new Stop([why, `usage: ${callText(name, verb)}`], BAD_USE);
  }
  if (parsed.values.help) return "help";
  const words = [...parsed.positionals];
  const word = verb.word === undefined ? undefined : words.shift();
  const file = left === undefined ? (words.shift() ?? "-") : "-";
  if (words.length > 0)
    throw new Stop(
      [`${name}: one file too many: ${words.join(" ")}`, `usage: ${callText(name, verb)}`],
      BAD_USE,
    );
  return { flags: parsed.values as Call["flags"], file, word, input, ...(left !== undefined && { left }) };
}

async function textOf(args: readonly string[], input: () => string, left?: string): Promise<string> {
  const [name = "", ...all] = args;
  if (name === "--help" || name === "help") return `${usage}\n`;
  const verb = Object.hasOwn(verbs, name) ? verbs[name] : undefined;
  if (!verb) throw new Stop(name === "" ? [usage] : [`no verb '${name}'`, usage], BAD_USE);
  const then = name === "edit" ? all.indexOf("--then") : -1;
  const call = callOf(name, verb, then < 0 ? all : all.slice(0, then), input, left);
  if (call === "help") return `${helpOf(name, verb)}\n`;
  const value = await verb.run(call);
  const text = typeof value === "string" ? value : `${JSON.stringify(value, null, 2)}\n`;
  return then < 0 ? text : textOf(all.slice(then + 1), input, text);
}

/** What a call ends with: its status, and what goes to standard output and to standard error. */
export interface Said {
  status: number;
  out: string;
  err: string;
}

/** Answers a call. `input` is asked once for what stands on standard input, where the call reads it. */
export async function answered(args: readonly string[], input: () => string): Promise<Said> {
  try {
    return { status: 0, out: await textOf(args, input), err: "" };
  } catch (error) {
    if (!(error instanceof Stop)) throw error;
    return { status: error.status, out: "", err: `${error.lines.join("\n")}\n` };
  }
}
