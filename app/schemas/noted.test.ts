/** What a browser noted for itself comes back as it was, and what is none of its kind is made anew. */
import { describe, expect, test } from "@jest/globals";
import { columnMappingSchema, type Glance, glanceSchema, noted } from "./noted";

const glance: Glance = {
  mark: "a:3",
  worst: { grade: "stop", title: "Run on starboard returns to Port wing" },
  counts: { stop: 1, mend: 7, watch: 3 },
  due: [{ uid: "marram-x@iron-keel", on: "2026-12-15", text: "Marram: element", detail: "by its readings" }],
  awaited: 0,
  sketch: {
    width: 168,
    height: 40,
    hoses: [[1, 2, 30, 2]],
    bodies: [{ is: "tank", x: 0, y: 0, width: 20, height: 30 }],
  },
  changed: "added: Separator",
};

describe("a note", () => {
  test("comes back as it was kept", () => {
    expect(noted(glanceSchema, JSON.stringify(glance))).toEqual(glance);
    const mapping = { time: "When", of: { Vacuum: "vac" } };
    expect(noted(columnMappingSchema, JSON.stringify(mapping))).toEqual(mapping);
  });

  test.each([
    ["nothing", null],
    ["half a line", '{"mark":"a'],
    ["another kind", '{"time":"When"}'],
    ["an older page's, with a field more", JSON.stringify({ ...glance, drawing: "x" })],
    ["a grade that there is not", JSON.stringify({ ...glance, worst: { grade: "bad", title: "" } })],
  ])("that is %s is none", (_what, text) => {
    expect(noted(glanceSchema, text)).toBeNull();
  });
});
