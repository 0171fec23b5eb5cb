import { expect, test } from "@jest/globals";
import { fileFault, storageFault } from "./storage";

test("storage that fails is told by its kind", () => {
  expect(storageFault(new DOMException("", "QuotaExceededError"))).toContain("full");
  expect(
    storageFault(Object.assign(new Error(), { name: "AbortError", inner: { name: "QuotaExceededError" } })),
  ).toContain("full");
  expect(storageFault(new DOMException("", "InvalidStateError"))).toContain("closed");
  expect(storageFault(new Error("x"))).toContain("not kept");
});

test("a disk that is full, and a browser without a store, are told from a store that was closed", () => {
  const abort = Object.assign(new Error("aborted"), { name: "AbortError" });
  expect(storageFault(abort)).toMatch(/disk is full.*If no file comes/);
  const missing = Object.assign(new Error("IndexedDB API missing"), { name: "MissingAPIError" });
  expect(storageFault(missing)).toMatch(/private window/);
  expect(storageFault(Object.assign(new Error(), { name: "OpenFailedError", inner: missing }))).toMatch(
    /private window/,
  );
  expect(fileFault(new Error("the worker died"))).toMatch(/could not be read.*Nothing of it was taken/);
});
