/**
 * The stand-in for gauges and senders on a wire: what a job's own solution says, with noise, drift, lag and a chosen fault,
 * as Signal K deltas. It is asked with the job itself; nothing of it is kept.
 */
import { Diagnoser } from "~/core/care/diagnose";
import { type Delta, deltasOf, drawnFault, SimulatedSystem } from "~/core/care/simulate";
import { buildNetwork } from "~/core/network/network";
import { currentPlan } from "~/core/plan/ports";
import { readJobFile } from "~/schemas/file";
import { z } from "~/schemas/zod";

const asked = z.strictObject({
  /** A job file, as it is saved. */
  file: z.string().max(20_000_000),
  lineUp: z.string().max(14),
  fault: z.string().max(80).optional(),
  size: z.number().positive().max(1e9).optional(),
  seed: z
    .int()
    .min(0)
    .max(2 ** 31),
  minutes: z.number().positive().max(120),
});

/** In place of a fault: one by its prior and the seed, now and then none. */
const DRAWN = "drawn";

export type StandIn = { ok: true; deltas: Delta[] } | { ok: false; reason: string };

/** What is said first to whoever listens; of the version of the format that its schema is published in. */
export const hello = { name: "iron-keel", version: "1.5.1", roles: ["master", "main"] };

const STREAM_PATH = "/signalk/v1/stream";

/** Whether a socket may be opened: at its own address, and not by a page of another host, which has no business here. */
export function mayListen(url = "", origin?: string, host?: string): boolean {
  const at = (text: string, base?: string) => (URL.canParse(text, base) ? new URL(text, base) : null);
  if (at(url, "http://localhost")?.pathname !== STREAM_PATH) return false;
  return origin === undefined || at(origin)?.host === host;
}

/** @param message what the page asked for, as it came; deltas have the times of the model, from nought on */
export function standIn(message: string): StandIn {
  const fail = (reason: string): StandIn => ({ ok: false, reason });
  let value: unknown;
  try {
    value = JSON.parse(message);
  } catch {
    return fail("what was asked is no JSON");
  }
  const parsed = asked.safeParse(value);
  if (!parsed.success) return fail(`not understood: ${parsed.error.issues[0]?.path.join(".") ?? ""}`);
  const { file, lineUp: id, fault: faultId, size, seed, minutes } = parsed.data;
  const read = readJobFile(file);
  if (!read.ok) return fail(`the job could not be read: ${read.faults[0]?.path ?? ""}`);
  const plan = currentPlan(read.job);
  const lineUp = plan.lineUps.find((one) => one.id === id);
  if (!lineUp) return fail(`no line-up ${id}`);
  const diagnoser = new Diagnoser(buildNetwork(read.job), lineUp, plan.conditions, {});
  if (!diagnoser.isReady) return fail("nothing is fed in this line-up");
  const isDrawn = faultId === DRAWN;
  const fault = diagnoser.faults.find((one) => one.id === faultId);
  if (faultId !== undefined && !isDrawn && !fault) return fail(`no fault ${faultId}`);
  const own = fault ? { fault, size: size ?? (fault.sizes.at(-1) as number) } : null;
  const chosen = isDrawn ? drawnFault(diagnoser, seed) : own;
  return { ok: true, deltas: deltasOf(new SimulatedSystem(diagnoser, chosen, seed), minutes) };
}
