/** What a server's message says: a refusal in its words, or nothing that this reader judges. */
import { expect, test } from "@jest/globals";
import { reasonIn } from "./wire";

test.each([
  [JSON.stringify({ fault: 'no line-up "x"\nhere' }), 'no line-up "x"\nhere'],
  ['{"fault":"cut o', null],
  ['{"fault":3}', null],
  ['{"updates":[]}', null],
  ["null", null],
])("%s", (text, reason) => {
  expect(reasonIn(text)).toBe(reason);
});
