/** Listens to the stand-in of gauges and senders: Signal K deltas over a socket of the server that the page came from. */
import type { Job, LineUp } from "~/core/plan/types";

export interface Listening {
  /** A line of JSON for each delta. */
  onDelta(text: string): void;
  /** A reason where it ended otherwise than it should. */
  onEnd(reason: string | null): void;
}

export const STREAM_PATH = "/signalk/v1/stream";

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
  socket.onopen = async () => {
    const { writeJobFile } = await import("~/schemas/file");
    const file = writeJobFile({ job, book: [], snapshots: {} });
    socket.send(
      JSON.stringify({ file, lineUp: lineUp.id, seed, minutes, ...(fault === null ? {} : { fault }) }),
    );
  };
  socket.onmessage = ({ data }) => {
    const text = String(data);
    const [, reason] = /^\{"fault":"(.*)"\}$/.exec(text) ?? [];
    if (reason !== undefined) end(reason);
    else onDelta(text);
  };
  socket.onerror = () => end("the server gives no stream");
  socket.onclose = () => end(null);
  return () => end(null);
}
