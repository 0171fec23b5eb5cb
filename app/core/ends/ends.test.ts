/** Ends against the trade's own list of look-alikes, and chains against exhaustive search. */
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Adapter } from "./adapters";
import { genericAdapters } from "./adapters";
import { chainBetween } from "./chain";
import { type End, endFault, endKey, joining, lookAlikes, screwsInto, sizeOf } from "./ends";
import { type Family, type FamilyId, families, familyIds } from "./families";

const end = (family: FamilyId, size: string, form: string): End => ({ family, size, form });
const every: End[] = familyIds.flatMap((family) => {
  const { male, female, sizes } = families[family] as Family;
  return [...male, ...female].flatMap((form) => sizes.map(([size]) => end(family, size, form)));
});
const anyEnd = fc.constantFrom(...every);

describe("threads against the standards' tables", () => {
  // Handbook values, from memory: ISO 261, ASME B1.1, ISO 228-1, ASME B1.20.1.
  test.each([
    ["iso9974", "M14x1.5", 14, 1.5],
    ["jic37", "-6", 14.2875, 25.4 / 18],
    ["bspp", "1/2", 20.955, 25.4 / 14],
    ["npt", "1/2", 21.336, 25.4 / 14],
    ["orfs", "-8", 20.6375, 25.4 / 16],
    ["sae45", "3/8", 15.875, 25.4 / 18],
    ["cone24", "10L", 16, 1.5],
    ["spinOn", "1-14", 25.4, 25.4 / 14],
  ] as const)("%s %s", (family, size, majorMm, pitchMm) => {
    const found = sizeOf({ family, size });
    expect(found?.majorMm).toBeCloseTo(majorMm, 2);
    expect(found?.pitchMm).toBeCloseTo(pitchMm, 2);
  });

  test("ends are what their families know", () => {
    for (const one of every) expect(endFault(one)).toBeNull();
    expect(endFault(end("npt", "5/8", "m"))).toBe("size");
    expect(endFault(end("npt", "1/2", "fs"))).toBe("form");
    expect(endFault({ ...end("npt", "1/2", "m"), family: "wood" as FamilyId })).toBe("family");
  });
});

describe("what seals", () => {
  test("the order of two ends does not matter, and nothing seals with its like", () => {
    fc.assert(
      fc.property(anyEnd, anyEnd, (a, b) => {
        expect(joining(a, b)).toEqual(joining(b, a));
        expect(joining(a, a).fit).toBe("no");
      }),
      { numRuns: 2000 },
    );
  });

  test.each([
    ["NPT in its own", end("npt", "1/2", "m"), end("npt", "1/2", "f"), "seals", null],
    ["NPTF in NPT, with sealant", end("nptf", "1/4", "m"), end("npt", "1/4", "f"), "seals", null],
    ["R in Rp", end("bspt", "1/2", "m"), end("bspt", "1/2", "fp"), "seals", null],
    ["R in a G port", end("bspt", "1/2", "m"), end("bspp", "1/2", "f"), "screwsOnly", "taperInParallel"],
    ["G in Rc", end("bspp", "1/2", "m"), end("bspt", "1/2", "f"), "screwsOnly", "parallelInTaper"],
    [
      "37 on 45 degrees at 1/2",
      end("jic37", "-8", "m"),
      end("sae45", "1/2", "fs"),
      "screwsOnly",
      "seatAngle",
    ],
    [
      "37 on 45 degrees at 3/8: other threads",
      end("jic37", "-6", "m"),
      end("sae45", "3/8", "fs"),
      "no",
      "otherKind",
    ],
    [
      "37 on 45 degrees at 3/4: 12 against 14",
      end("jic37", "-12", "m"),
      end("sae45", "3/4", "fs"),
      "no",
      "otherKind",
    ],
    ["a flare in a boss", end("jic37", "-6", "m"), end("orb", "-6", "f"), "screwsOnly", "seatKind"],
    [
      "a face seal on a flare nut",
      end("orfs", "-4", "m"),
      end("jic37", "-6", "fs"),
      "screwsOnly",
      "seatKind",
    ],
    ["M14x1.5 for 9/16-18", end("iso9974", "M14x1.5", "m"), end("orb", "-6", "f"), "screwsOnly", "pitch"],
    ["M16x1.5 for 5/8-18", end("iso6149", "M16x1.5", "m"), end("sae45", "3/8", "fs"), "screwsOnly", "pitch"],
    ["M27x2 for 1 1/16-12", end("iso6149", "M27x2", "m"), end("orb", "-12", "f"), "screwsOnly", "pitch"],
    [
      "ring on a flat face",
      end("iso6149", "M14x1.5", "m"),
      end("iso9974", "M14x1.5", "f"),
      "screwsOnly",
      "seatKind",
    ],
    [
      "24 degrees, light for heavy",
      end("cone24", "10L", "m"),
      end("cone24", "8S", "n"),
      "screwsOnly",
      "size",
    ],
    ["NPT and BSP at 1/2", end("npt", "1/2", "m"), end("bspp", "1/2", "f"), "screwsOnly", "threadForm"],
    ["NPT and BSP at 3/4", end("npt", "3/4", "m"), end("bspt", "3/4", "f"), "screwsOnly", "threadForm"],
    ["quick connects 0.4 mm apart", end("qc", "9.49", "m"), end("qc", "9.89", "f"), "no", "size"],
    ["a 12 mm barb in a 12.7 mm hose", end("barb", "12", "m"), end("hose", "12.7", "f"), "no", "hoseSlack"],
    ["a 12.7 mm barb in a 10 mm hose", end("barb", "12.7", "m"), end("hose", "10", "f"), "no", "hoseTight"],
    ["a push-on barb in plain hose", end("pushOn", "-6", "m"), end("hose", "9.53", "f"), "no", "otherKind"],
    ["a push-on barb in its hose", end("pushOn", "-6", "m"), end("hose", "9.53", "p"), "seals", null],
  ] as const)("%s", (_, a, b, fit, why) => {
    expect(joining(a, b)).toMatchObject({ fit, why });
  });

  test("look-alikes are screwed, never sealed, and both ways", () => {
    const found = lookAlikes(end("jic37", "-8", "m"));
    expect(found.map(({ end: one }) => endKey(one))).toEqual(
      expect.arrayContaining(["sae45 1/2 fs", "orb -8 f", "spinOn 3/4-16 f"]),
    );
    for (const { end: one } of found) {
      expect(joining(one, end("jic37", "-8", "m")).fit).toBe("screwsOnly");
      expect(lookAlikes(one).map((other) => endKey(other.end))).toContain("jic37 -8 m");
    }
  });

  test("how it feels: other flanks tighten, another pitch starts and binds, another seat goes home", () => {
    expect(joining(end("npt", "1/2", "m"), end("bspp", "1/2", "f")).feel).toBe("tightens");
    expect(joining(end("npt", "1/4", "m"), end("bspp", "1/4", "f")).feel).toBe("starts");
    expect(joining(end("bspt", "1/2", "m"), end("bspp", "1/2", "f")).feel).toBe("tightens");
    expect(joining(end("jic37", "-8", "m"), end("sae45", "1/2", "fs")).feel).toBe("home");
    expect(joining(end("iso9974", "M14x1.5", "m"), end("orb", "-6", "f")).feel).toBe("starts");
    expect(screwsInto(end("jic37", "-12", "m"), end("jic37", "-6", "fs"))).toBe(false);
  });
});

describe("chains", () => {
  /** The best chain by going through all, up to three adapters: the same vector, nothing clever. */
  function exhaustive(
    from: End,
    to: End,
    list: readonly Adapter[],
  ): [parts: number, leaks: number, cost: number] | null {
    let best: [number, number, number] | null = null;
    const less = (a: number[], b: number[]) => {
      const i = a.findIndex((one, k) => Math.abs(one - (b[k] as number)) > 1e-9);
      return i >= 0 && (a[i] as number) < (b[i] as number);
    };
    const go = (open: End, parts: number, leaks: number, cost: number) => {
      const last = joining(open, to);
      if (last.fit === "seals") {
        const label: [number, number, number] = [parts, leaks + last.leakPoints, cost];
        if (!best || less(label, best)) best = label;
      }
      if (parts === 3) return;
      for (const adapter of list)
        for (const [met, next] of [
          [0, 1],
          [1, 0],
        ] as const) {
          const joined = joining(open, adapter.ends[met] as End);
          if (joined.fit !== "seals") continue;
          go(
            adapter.ends[next] as End,
            parts + 1,
            leaks + joined.leakPoints + adapter.inner,
            cost + adapter.cost,
          );
        }
    };
    go(from, 0, 0, 0);
    return best;
  }

  test("equal to exhaustive search on small catalogues", () => {
    const pairs = genericAdapters().filter(({ ends }) => ends.length === 2);
    const some = fc.array(fc.constantFrom(...pairs), { minLength: 4, maxLength: 14 });
    let chained = 0;
    fc.assert(
      fc.property(some, fc.nat(), fc.nat(), (drawn, i, k) => {
        // Ends that the catalogue can meet: mates of two of its own.
        const list = [...new Map(drawn.map((one) => [one.id, one])).values()];
        const mates = (one: End) => every.filter((other) => joining(one, other).fit === "seals");
        const froms = mates(list[i % list.length]?.ends[0] as End);
        const tos = mates(list[k % list.length]?.ends[1] as End);
        const [from, to] = [froms[i % froms.length], tos[k % tos.length]];
        if (!from || !to) return;
        const wanted = exhaustive(from, to, list);
        const found = chainBetween({ from, to, catalogue: list });
        if (!wanted) {
          expect(found.outcome === "none" || found.count > 3).toBe(true);
          return;
        }
        chained++;
        expect([found.count, found.leakPoints]).toEqual(wanted.slice(0, 2));
      }),
      { numRuns: 500 },
    );
    expect(chained).toBeGreaterThan(20);
  });

  test("every joint of a chain seals, one after the other", () => {
    const byId = new Map(genericAdapters().map((one) => [one.id, one]));
    fc.assert(
      fc.property(anyEnd, anyEnd, (from, to) => {
        const chain = chainBetween({ from, to });
        if (chain.outcome === "none") return;
        let open: End[] = [from];
        for (const id of chain.parts) {
          const { ends } = byId.get(id) as Adapter;
          open = open.flatMap((one) =>
            [0, 1].flatMap((met) =>
              joining(one, ends[met] as End).fit === "seals" ? [ends[1 - met] as End] : [],
            ),
          );
        }
        expect(open.some((one) => joining(one, to).fit === "seals")).toBe(true);
        expect(chain.dress).toHaveLength(chain.count + 1);
      }),
      { numRuns: 60 },
    );
  });

  test("where no generic chain exists none is invented", () => {
    // Out of an inverted flare's body nothing leads that the trade makes.
    expect(chainBetween({ from: end("invFlare", "3/8", "f"), to: end("jic37", "-6", "fs") }).outcome).toBe(
      "none",
    );
    expect(chainBetween({ from: end("comp", "3/8", "n"), to: end("jic37", "-6", "fs") }).outcome).toBe(
      "none",
    );
  });

  test("from 20 % biodiesel on neither brass nor zinc stands in it", () => {
    const asked = { from: end("iso9974", "M14x1.5", "f"), to: end("jic37", "-6", "fs") };
    expect(chainBetween(asked).materials).not.toContain("stainless");
    expect(chainBetween({ ...asked, biodieselPercent: 20 }).materials).toEqual(["stainless"]);
  });

  test("the box counts down: what is there once is not used twice", () => {
    const one = {
      id: "n",
      ends: [end("npt", "1/2", "m"), end("npt", "1/2", "m")],
      materials: ["brass" as const],
      cost: 1,
      inner: 0,
    };
    const coupling = { ...one, id: "c", ends: [end("npt", "1/2", "f"), end("npt", "1/2", "f")] };
    const asked = { from: end("npt", "1/2", "f"), to: end("npt", "1/2", "f"), catalogue: [] };
    expect(chainBetween({ ...asked, box: [{ ...one, count: 1 }] })).toMatchObject({ count: 1, from: "box" });
    expect(chainBetween({ ...asked, box: [{ ...one, count: 0 }] }).outcome).toBe("none");
    const long = { from: end("npt", "1/2", "f"), to: end("npt", "1/2", "m"), catalogue: [] };
    expect(chainBetween({ ...long, box: [{ ...coupling, count: 1 }] }).outcome).toBe("chain");
  });
});
