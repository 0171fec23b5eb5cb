/** Deltas of the stand-in, and what the server says first, against the schema that the Signal K project publishes (1.5.1). */

import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { describe, expect, test } from "@jest/globals";
import { hello, standIn } from "./standIn.server";

const published = createRequire(`${process.cwd()}/package.json`)("@signalk/signalk-schema") as {
  validateDelta(delta: unknown): { valid: boolean; errors: unknown[] };
  getTv4(): { validateMultiple(of: unknown, schema: unknown): { valid: boolean; errors: unknown[] } };
};
const ask = (name: string, lineUp: string, more: object = {}) => {
  const file = readFileSync(`demo/${name}.keel.json`, "utf8");
  const answer = standIn(JSON.stringify({ file, lineUp, seed: 3, minutes: 2, ...more }));
  if (!answer.ok) throw new Error(answer.reason);
  return answer.deltas;
};

describe("deltas", () => {
  test.each([
    ["marram", "runPort"],
    ["unit-12", "both"],
    ["reading-van", "warm"],
  ])("of %s are what the schema asks for", (name, lineUp) => {
    const deltas = ask(name, lineUp);
    expect(deltas.length).toBeGreaterThan(5);
    for (const delta of deltas) {
      const { valid, errors } = published.validateDelta(delta);
      expect([valid, errors]).toEqual([true, errors]);
      expect(valid).toBe(true);
    }
  });

  test("the judge has teeth: a delta without its updates, or with a path that is a number, is refused", () => {
    const [delta] = ask("marram", "runPort");
    const { updates: _, ...bare } = delta!;
    expect(published.validateDelta(bare).valid).toBe(false);
    const wrong = structuredClone(delta!) as unknown as { updates: { values: { path: unknown }[] }[] };
    wrong.updates[0]!.values[0]!.path = 3;
    expect(published.validateDelta(wrong).valid).toBe(false);
  });
});

test("the greeting is one that its schema knows, and one without roles is not", () => {
  const schema = JSON.parse(
    readFileSync("node_modules/@signalk/signalk-schema/schemas/hello.json", "utf8"),
  ) as object;
  const judge = published.getTv4();
  expect(judge.validateMultiple(hello, schema).errors).toEqual([]);
  const { roles: _, ...bare } = hello;
  expect(judge.validateMultiple(bare, schema).valid).toBe(false);
});
