/** Words with control characters, wherever they come from, write nothing of their own into a file: each by another's parser. */
import { describe, expect, test } from "@jest/globals";
import DxfParser from "dxf-parser";
import ICAL from "ical.js";
import Papa from "papaparse";
import type { Template } from "~/core/boards/template";
import { toCsv } from "~/core/export/csv";
import { templateDxf, templateSvg } from "~/fields/template";
import { calendarText } from "./calendar";

const wild = "Wing\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nSUMMARY:false\u0000\u2028";

test("a calendar has its own events and no more, whatever their words", () => {
  const day = { uid: "a", on: "2026-05-03", summary: wild, description: `${wild}\nsecond line` };
  const text = calendarText(wild, [day], new Date(0));
  const events = new ICAL.Component(ICAL.parse(text)).getAllSubcomponents("vevent");
  expect(events).toHaveLength(1);
  expect(String(events[0]?.getFirstPropertyValue("summary"))).toContain("Wing");
  // A line break within a description is written as the standard asks (RFC 5545, 3.3.11).
  expect(text.split("\r\n").filter((line) => /^(BEGIN|END):VEVENT$/.test(line))).toHaveLength(2);
});

describe("a template", () => {
  const entity = `Hatch\n0\nCIRCLE\n8\nHOLES\n10\n50.0\n20\n50.0\n40\n30.0\u0000`;
  const template: Template = {
    name: entity,
    widthM: 0.3,
    heightM: 0.2,
    shapes: [
      { layer: "TEXT", kind: "text", at: [0.1, 0.1], heightM: 0.005, text: entity },
      { layer: "HOLES", kind: "circle", at: [0.05, 0.05], diameterM: 0.01 },
    ],
  } as unknown as Template;

  test("as DXF has the circles of its plan and none that a name writes", () => {
    const { entities } = new DxfParser().parseSync(templateDxf(template))!;
    expect(entities.filter(({ type }) => type === "CIRCLE")).toHaveLength(1);
    expect(entities.filter(({ type }) => type === "TEXT")).toHaveLength(1);
  });

  test("as SVG holds no character that XML 1.0 (2.2) does not allow", () => {
    // biome-ignore lint/suspicious/noControlCharactersInRegex: they are what is looked for.
    expect(templateSvg(template)).not.toMatch(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/);
  });
});

test.each([
  "=1+1",
  "＝1+1",
  "＋1",
  "－1",
  "＠x",
  " =1+1",
  "\t=1",
  "\u00a0=1",
  "\u200b=1",
  "-1+2",
  "@x",
  "+1",
])("a cell %j is text to a spreadsheet, and the rest of it is kept", (cell) => {
  const [row] = Papa.parse<{ a: string }>(toCsv([{ a: cell, b: 2 }]), { header: true }).data;
  expect(row?.a).toBe(`'${cell}`);
});

test("figures and plain words stay as they are", () => {
  expect(toCsv([{ a: -1.5, b: "Tank 1", c: "a=b" }])).toBe("a,b,c\r\n-1.5,Tank 1,a=b\r\n");
});
