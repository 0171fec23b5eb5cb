import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { expose } from "comlink";
import { askWorker } from "./client";

/** Stands in for the browser's worker: another end of a message channel, which can die, hang or answer. */
class FakeWorker extends EventTarget {
  static readonly made: FakeWorker[] = [];
  static answers: (() => unknown)[] = [];
  isEnded = false;
  private readonly port: MessagePort;
  private readonly far: MessagePort;

  constructor() {
    super();
    const { port1, port2 } = new MessageChannel();
    this.port = port1;
    this.far = port2;
    port1.onmessage = ({ data }) => this.dispatchEvent(new MessageEvent("message", { data }));
    expose({ sweep: () => (this.isEnded ? never() : FakeWorker.answers.shift()?.()) }, port2);
    FakeWorker.made.push(this);
  }

  postMessage(message: unknown, transfer: Transferable[] = []): void {
    if (!this.isEnded) this.port.postMessage(message, transfer);
  }

  die(): void {
    this.dispatchEvent(new Event("error"));
  }

  terminate(): void {
    this.isEnded = true;
    this.port.close();
    this.far.close();
  }
}

const never = () => new Promise(() => undefined);
const ok = (value: number) => () => ({ ok: true, value });
const noProgress = () => undefined;
const sweep = (signal = new AbortController().signal) =>
  askWorker<number>(
    "sweep",
    (remote) => remote.sweep({} as never, {} as never, undefined as never) as never,
    signal,
    noProgress,
  );
const turn = () => new Promise((done) => setTimeout(done, 20));
const last = () => FakeWorker.made.at(-1) as FakeWorker;

beforeEach(() => {
  FakeWorker.made.length = 0;
  FakeWorker.answers = [];
  (globalThis as unknown as { Worker: unknown }).Worker = FakeWorker;
});
afterEach(async () => {
  // Each test begins without a worker: the one left is stopped.
  jest.useRealTimers();
  FakeWorker.answers = [never];
  const stop = new AbortController();
  const asked = sweep(stop.signal);
  stop.abort();
  await asked;
});

describe("a worker seen from the page", () => {
  test("answers, and serves the next question too", async () => {
    FakeWorker.answers = [ok(1), ok(2)];
    expect(await sweep()).toEqual({ ok: true, value: 1 });
    expect(await sweep()).toEqual({ ok: true, value: 2 });
    expect(FakeWorker.made).toHaveLength(1);
  });

  test("that dies is ended, and a new one is asked once more", async () => {
    FakeWorker.answers = [never, ok(3)];
    const asked = sweep();
    await turn();
    const first = last();
    first.die();
    expect(await asked).toEqual({ ok: true, value: 3 });
    expect(first.isEnded).toBe(true);
    expect(FakeWorker.made).toHaveLength(2);
  });

  test("that dies twice is told, and the next question gets a new one", async () => {
    FakeWorker.answers = [never, never, ok(4)];
    const asked = sweep();
    await turn();
    last().die();
    await turn();
    last().die();
    expect(await asked).toEqual({ ok: false, reason: "the worker died" });
    expect(await sweep()).toEqual({ ok: true, value: 4 });
  });

  test("that hangs is given up after its time, and the same work is not run a second time", async () => {
    jest.useFakeTimers({ doNotFake: ["nextTick", "queueMicrotask"] });
    FakeWorker.answers = [never, never];
    const asked = sweep();
    await jest.advanceTimersByTimeAsync(15000);
    expect(await asked).toEqual({ ok: false, reason: "the worker took too long" });
    expect(FakeWorker.made.map(({ isEnded }) => isEnded)).toEqual([true]);
  });

  test("that is stopped is ended at once: what is asked in the same breath is not lost with it", async () => {
    FakeWorker.answers = [never, ok(5)];
    const stop = new AbortController();
    const asked = sweep(stop.signal);
    await turn();
    const first = last();
    stop.abort();
    const next = sweep();
    expect(first.isEnded).toBe(true);
    expect(await asked).toEqual({ ok: false, reason: "stopped" });
    expect(await next).toEqual({ ok: true, value: 5 });
  });

  test("that has answered is not ended by a stop that comes later", async () => {
    FakeWorker.answers = [ok(6), ok(7)];
    const stop = new AbortController();
    await sweep(stop.signal);
    stop.abort();
    expect(last().isEnded).toBe(false);
    expect(await sweep(stop.signal)).toEqual({ ok: false, reason: "stopped" });
    expect(await sweep()).toEqual({ ok: true, value: 7 });
    expect(FakeWorker.made).toHaveLength(1);
  });
});
