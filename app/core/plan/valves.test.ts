/** Handles: which ways a setting opens, which lie one movement away, and which never shut. */
import { describe, expect, test } from "@jest/globals";
import type { PartOf } from "../kinds/index";
import type { SelectorPosition } from "../kinds/selector";
import { newLineUp, newPart } from "./blank";
import type { ValveSetting } from "./types";
import {
  firstSetting,
  isOpen,
  neighbourSettings,
  neverShut,
  positionsOf,
  settingOf,
  waysThrough,
} from "./valves";

const at = { xM: 0, yM: 0, zM: 0 };
const twoWay = newPart("twoWay", "v", at) as PartOf<"twoWay">;
const bank: PartOf<"bank"> = {
  ...(newPart("bank", "m", at) as PartOf<"bank">),
  branches: ["port", "stbd", "day"].map((id) => ({ id, name: id })),
};
const selector = (...positions: SelectorPosition[]): PartOf<"selector"> => ({
  ...(newPart("selector", "s", at) as PartOf<"selector">),
  ways: 2,
  positions,
});
const position = (id: string, ...joins: string[][]): SelectorPosition => ({ id, name: id, joins });
const to = (id: string): ValveSetting => ({ kind: "position", position: id });
const open = (...ids: string[]): ValveSetting => ({ kind: "branches", open: ids });

describe("a two-way valve", () => {
  test("opens its one way, and an unset one is taken as shut", () => {
    expect(isOpen(twoWay, ["a", "b"], to("open"))).toBe(true);
    expect(isOpen(twoWay, ["a", "b"], to("shut"))).toBe(false);
    for (const none of [undefined, { kind: "unset" } as const, to("half"), open("a")])
      expect(isOpen(twoWay, ["a", "b"], none)).toBe(false);
  });
  test("has each of its positions one movement from the other", () => {
    expect(neighbourSettings(twoWay, to("open"))).toEqual([to("shut")]);
    expect(neighbourSettings(twoWay, to("shut"))).toEqual([to("open")]);
    expect(neighbourSettings(twoWay, { kind: "unset" })).toEqual([]);
    expect(neighbourSettings(twoWay, to("half"))).toEqual([]);
  });
  test("is one way of the network, and shuts", () => {
    expect(waysThrough(twoWay).map(({ ports }) => ports)).toEqual([["a", "b"]]);
    expect(neverShut(twoWay, "a")).toEqual([]);
  });
});

describe("a manifold", () => {
  test("opens the branches that are named, each to the common rail alone", () => {
    const setting = open("port", "day");
    expect(isOpen(bank, ["c", "port"], setting)).toBe(true);
    expect(isOpen(bank, ["c", "stbd"], setting)).toBe(false);
    expect(isOpen(bank, ["c", "day"], setting)).toBe(true);
    expect(isOpen(bank, ["c", "port"], to("port"))).toBe(false);
  });
  test("has a handle a branch: each turned alone is a neighbour, and turned back it is as it was", () => {
    const now = open("port");
    const next = neighbourSettings(bank, now);
    expect(next).toEqual([open(), open("port", "stbd"), open("port", "day")]);
    for (const one of next)
      expect(
        neighbourSettings(bank, one).some(
          (back) => back.kind === "branches" && [...back.open].sort().join() === "port",
        ),
      ).toBe(true);
    expect(neighbourSettings(bank, to("port"))).toEqual([]);
    expect(neverShut(bank, "c")).toEqual([]);
  });
  test("begins with every branch shut, and stands in the network once a branch", () => {
    expect(firstSetting(bank)).toEqual(open());
    expect(waysThrough(bank).map(({ ports }) => ports[1])).toEqual(["port", "stbd", "day"]);
  });
});

describe("a selector", () => {
  const threeWay = selector(
    position("one", ["c", "w1"]),
    position("both", ["c", "w1", "w2"]),
    position("two", ["c", "w2"]),
  );
  test("joins the groups of its position, any two of a group", () => {
    expect(isOpen(threeWay, ["c", "w1"], to("one"))).toBe(true);
    expect(isOpen(threeWay, ["c", "w2"], to("one"))).toBe(false);
    expect(isOpen(threeWay, ["w1", "w2"], to("both"))).toBe(true);
  });
  test("goes from one end to the other only through the middle", () => {
    expect(neighbourSettings(threeWay, to("one"))).toEqual([to("both")]);
    expect(neighbourSettings(threeWay, to("both"))).toEqual([to("one"), to("two")]);
    expect(neighbourSettings(threeWay, to("two"))).toEqual([to("both")]);
  });
  test("without an off never shuts what every position joins", () => {
    const stubborn = selector(position("one", ["c", "w1"]), position("both", ["c", "w1", "w2"]));
    expect(neverShut(stubborn, "c")).toEqual(["w1"]);
    expect(neverShut(stubborn, "w1")).toEqual(["c"]);
    expect(neverShut(stubborn, "w2")).toEqual([]);
    expect(neverShut(threeWay, "c")).toEqual([]);
    expect(neverShut(selector(...threeWay.positions, position("off")), "c")).toEqual([]);
  });
  test("begins at its first position; one without any is unset", () => {
    expect(firstSetting(threeWay)).toEqual(to("one"));
    expect(firstSetting(selector())).toEqual({ kind: "unset" });
    expect(positionsOf(threeWay).map(({ id }) => id)).toEqual(["one", "both", "two"]);
  });
});

test("a valve that a line-up does not name is unset in it", () => {
  const lineUp = newLineUp("l", "L");
  expect(settingOf(lineUp, twoWay)).toEqual({ kind: "unset" });
  lineUp.valves.v = to("open");
  expect(settingOf(lineUp, twoWay)).toEqual(to("open"));
});
