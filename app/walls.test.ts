/** Probes that the walls must stop, however the import is written, and doors that must stay open. */
import { describe, expect, test } from "@jest/globals";
import parser from "@typescript-eslint/parser";
import { Linter } from "eslint";
import walls from "../lint/walls.cjs";

function lint(file: string, code: string): string[] {
  const linter = new Linter({ cwd: process.cwd() });
  const config = {
    files: ["**/*.ts", "**/*.tsx"],
    languageOptions: { parser },
    plugins: { house: { rules: { walls: walls.rule } } },
    rules: { "house/walls": "error" as const },
  };
  return linter.verify(code, [config] as never, `${process.cwd()}/${file}`).map(({ message }) => message);
}

describe("walls that stand", () => {
  test.each([
    ["core by a relative path", "app/core/plan/x.ts", 'import { a } from "../../store/jobs";'],
    ["core by the alias", "app/core/plan/x.ts", 'import { a } from "~/routes/job/places";'],
    ["core to a package", "app/core/plan/x.ts", 'import { z } from "zod";'],
    ["core to Node", "app/core/plan/x.ts", 'import { readFileSync } from "node:fs";'],
    ["core to React, as a type", "app/core/plan/x.ts", 'import type { ReactNode } from "react";'],
    ["core's plan to tanks", "app/core/plan/x.ts", 'import { a } from "../tanks/tank";'],
    [
      "core's network to hydraulics",
      "app/core/network/x.ts",
      'import type { A } from "../hydraulics/solve";',
    ],
    ["ui to core's plan", "app/ui/x.tsx", 'import type { Job } from "~/core/plan/types";'],
    ["ui to messages", "app/ui/x.tsx", 'import { a } from "../messages/faults";'],
    ["keel to routes", "app/keel/x.tsx", 'import { a } from "~/routes/job/places";'],
    ["plumbing to the store", "app/plumbing/x.tsx", 'import { a } from "~/store/jobs";'],
    ["state to ui, passed on", "app/state/x.ts", 'export { say } from "~/ui/toast";'],
    ["store to state", "app/store/x.ts", 'export * from "../state/page";'],
    ["messages to routes, later", "app/messages/x.ts", 'const a = () => import("~/routes/job/places");'],
    ["workers to the store, as a type", "app/workers/x.ts", 'let a: import("~/store/jobs").LoadedJob;'],
    ["a room that nobody has heard of", "app/core/attic/x.ts", 'import { a } from "../plan/types";'],
  ])("%s is stopped", (_what, file, code) => {
    expect(lint(file, code)).toHaveLength(1);
  });

  test.each([
    ["a room to itself", "app/core/plan/x.ts", 'import { a } from "./types";'],
    [
      "routes to everything",
      "app/routes/x.tsx",
      'import { a } from "~/core/plan/types"; import b from "~/ui/toast";',
    ],
    ["ui to units", "app/ui/x.tsx", 'import { a } from "~/core/units/format";'],
    ["core to the undo patches", "app/core/edit/x.ts", 'import { produce } from "immer";'],
    ["tests to whatever they test", "app/core/plan/x.test.ts", 'import { a } from "~/schemas/file";'],
  ])("%s is open", (_what, file, code) => {
    expect(lint(file, code)).toEqual([]);
  });
});
