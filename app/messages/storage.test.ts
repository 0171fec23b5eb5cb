import { expect, test } from "@jest/globals";
import { storageFault } from "./storage";

test("storage that fails is told by its kind", () => {
  expect(storageFault(new DOMException("", "QuotaExceededError"))).toContain("full");
  expect(
    storageFault(Object.assign(new Error(), { name: "AbortError", inner: { name: "QuotaExceededError" } })),
  ).toContain("full");
  expect(storageFault(new DOMException("", "InvalidStateError"))).toContain("closed");
  expect(storageFault(new Error("x"))).toContain("not kept");
});
