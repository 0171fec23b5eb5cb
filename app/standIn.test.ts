/** The stand-in is asked with a job and answers with deltas; what it does not understand it says, and never throws. */
import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { mayListen, standIn } from "./standIn.server";

const file = readFileSync("demo/unit-12.keel.json", "utf8");
const ask = (more: object = {}) =>
  standIn(JSON.stringify({ file, lineUp: "run", seed: 3, minutes: 1, ...more }));

describe("the stand-in", () => {
  test("the same seed says the same, another seed another", () => {
    const [one, two, other] = [ask(), ask(), ask({ seed: 4 })];
    expect(one.ok).toBe(true);
    expect(one).toEqual(two);
    expect(one).not.toEqual(other);
    expect(one.ok && one.deltas.length).toBe(12);
  });

  test("a fault shows in what it says: a loaded separator draws a harder vacuum", () => {
    const vacuum = (answer: ReturnType<typeof ask>) =>
      answer.ok
        ? answer.deltas.at(-1)!.updates[0]!.values.find(({ path }) => path === "fuelSystem.vac.pressure")!
            .value
        : Number.NaN;
    expect(vacuum(ask({ fault: "filterLoaded:sep", size: 8 }))).toBeLessThan(vacuum(ask()) - 2000);
  });

  test("a fault is drawn by the seed where it is asked so, now and then none", () => {
    const drawn = Array.from({ length: 12 }, (_, seed) => ask({ fault: "drawn", seed }));
    expect(drawn.every(({ ok }) => ok)).toBe(true);
    expect(ask({ fault: "drawn", seed: 2 })).toEqual(ask({ fault: "drawn", seed: 2 }));
  });

  test.each([
    ["no JSON", "{", /no JSON/],
    ["nothing asked", "{}", /not understood/],
    ["another file", JSON.stringify({ file: "{}", lineUp: "run", seed: 1, minutes: 1 }), /could not be read/],
    ["no line-up", JSON.stringify({ file, lineUp: "gone", seed: 1, minutes: 1 }), /no line-up gone/],
    ["no fault", JSON.stringify({ file, lineUp: "run", seed: 1, minutes: 1, fault: "x" }), /no fault x/],
    ["too long", JSON.stringify({ file, lineUp: "run", seed: 1, minutes: 1e9 }), /not understood: minutes/],
  ])("%s is told", (_what, message, reason) => {
    const answer = standIn(message);
    expect(answer.ok ? "" : answer.reason).toMatch(reason);
  });
});

describe("who may listen", () => {
  const path = "/signalk/v1/stream";

  test.each([
    ["a page of this host", path, "http://localhost:3000", "localhost:3000", true],
    ["what is no page", path, undefined, "localhost:3000", true],
    ["with a query", `${path}?subscribe=all`, undefined, "localhost:3000", true],
    ["a page of another host", path, "http://elsewhere.test", "localhost:3000", false],
    ["another port", path, "http://localhost:81", "localhost:3000", false],
    // A sandboxed page and a file say so (HTML standard, opaque origins).
    ["an opaque origin", path, "null", "localhost:3000", false],
    ["another path", "/elsewhere", undefined, "localhost:3000", false],
    ["no address", "//", undefined, "localhost:3000", false],
  ])("%s", (_what, url, origin, host, may) => {
    expect(mayListen(url, origin, host)).toBe(may);
  });
});
