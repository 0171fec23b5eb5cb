/** Listens to the stand-in of gauges and senders: Signal K deltas over a socket of the server that the page came from. */
import type { Job, LineUp } from "~/core/plan/types";

export interface Listening {
  /** A line of JSON for each delta. */
  onDelta(text: string): void;
  /** A reason where it ended otherwise than it should. */
  onEnd(reason: string | null): void;
}

export const STREAM_PATH = "/signalk/v1/stream";

/** Why it was refused, where a message is a refusal; one that is cut is left to who reads deltas. */
export function reasonIn(text: string): string | null {
  try {
    const { fault } = Object(JSON.parse(text)) as { fault?: unknown };
    return typeof fault === "string" ? fault : null;
  } catch {
    return null;
  }
}

/** @returns what ends it */
export function listen(
  job: Job,
  lineUp: LineUp,
  { seed, minutes, fault }: { seed: number; minutes: number; fault: string | null },
  { onDelta, onEnd }: Listening,
): () => void {
  const address = new URL(STREAM_PATH, window.location.href);
  address.protocol = address.protocol === "https:" ? "wss:" : "ws:";
  const socket = new WebSocket(address);
  let isOver = false;
  const end = (reason: string | null) => {
    if (isOver) return;
    isOver = true;
    socket.close();
    onEnd(reason);
  };
  const ask = async () => {
    const { writeJobFile } = await import("~/schemas/file");
    const file = writeJobFile({ job, book: [], snapshots: {} });
    socket.send(
      JSON.stringify({ file, lineUp: lineUp.id, seed, minutes, ...(fault === null ? {} : { fault }) }),
    );
  };
  socket.onopen = () => void ask().catch(() => end("the job could not be sent"));
  socket.onmessage = ({ data }) => {
    const text = String(data);
    const reason = reasonIn(text);
    if (reason === null) onDelta(text);
    else end(reason);
  };
  socket.onerror = () => end("the server gives no stream");
  socket.onclose = () => end(null);
  return () => end(null);
}
