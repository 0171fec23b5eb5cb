import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { terms } from "./terms";

test("a word that can be opened says what the glossary says of it", () => {
  const rows = new Map(
    readFileSync("docs/glossary.md", "utf8")
      .split("\n")
      .map((line) => line.split("|").map((cell) => cell.trim()))
      .map(([, word = "", what = ""]) => [word, what]),
  );
  for (const [word, what] of Object.entries(terms)) expect([word, rows.get(word)]).toEqual([word, what]);
});
