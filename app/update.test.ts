import { afterEach, beforeEach, expect, jest, test } from "@jest/globals";

const said: { text: string; action?: { label: string } }[] = [];
jest.mock("~/ui/toast", () => ({ say: (one: { text: string }) => said.push(one) }));

const controlled = { serviceWorker: { controller: {}, addEventListener: () => undefined } };
beforeEach(() => {
  said.length = 0;
  Object.defineProperty(globalThis, "navigator", { value: controlled, configurable: true });
});
afterEach(() => {
  Reflect.deleteProperty(globalThis, "navigator");
});

async function watch(registration: Partial<ServiceWorkerRegistration>): Promise<void> {
  const { watchForUpdate } = await import("./update.client");
  watchForUpdate({ addEventListener: () => undefined, ...registration } as ServiceWorkerRegistration);
}

test("a version that waited since the last visit is offered again, at each visit", async () => {
  const waiting = { postMessage: () => undefined } as unknown as ServiceWorker;
  await watch({ waiting });
  await watch({ waiting });
  expect(said.map(({ action }) => action?.label)).toEqual(["Change over", "Change over"]);
});

test("where none waits nothing is said, nor on the first visit", async () => {
  await watch({ waiting: null });
  Object.defineProperty(globalThis, "navigator", {
    value: { serviceWorker: { controller: null } },
    configurable: true,
  });
  await watch({ waiting: {} as ServiceWorker });
  expect(said).toEqual([]);
});
