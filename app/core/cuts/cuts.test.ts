/** Cuts against full enumeration: every way of putting every piece into every stock. */
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { cutListFrom } from "./cutList";
import { cutsFrom } from "./cuts";
import { pack } from "./pack";

const mm = (min: number, max: number) => fc.integer({ min, max }).map((one) => one / 1000);

/** Every list of `pieces` numbers from `least` to `most`. */
function all(pieces: number, least: number, most: number): number[][] {
  let lists: number[][] = [[]];
  for (let i = 0; i < pieces; i++)
    lists = lists.flatMap((list) => Array.from({ length: most - least + 1 }, (_, k) => [...list, least + k]));
  return lists;
}

const grid = (m: number) => Math.round(m * 1e4);

describe("cuts from stock", () => {
  test("equal to full enumeration: least opened, fewest, longest remnant", () => {
    fc.assert(
      fc.property(
        fc.array(mm(400, 3000), { minLength: 1, maxLength: 3 }),
        fc.array(mm(100, 1400), { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 0, max: 4 }),
        (stockM, lengthsM, kerfMm) => {
          const kerf = grid(kerfMm / 1000);
          let best: [opened: number, stocks: number, remnant: number] | null = null;
          for (const at of all(lengthsM.length, 0, stockM.length - 1)) {
            const used = stockM.map(() => 0);
            at.forEach((b, i) => {
              used[b] = (used[b] as number) + grid(lengthsM[i] as number) + kerf;
            });
            if (used.some((one, b) => one > grid(stockM[b] as number) + kerf)) continue;
            const open = used.map((one) => one > 0);
            const opened = stockM.reduce((sum, one, b) => sum + (open[b] ? grid(one) : 0), 0);
            const remnant = Math.max(
              ...used.map((one, b) => (open[b] ? Math.max(0, grid(stockM[b] as number) - one) : 0)),
            );
            const label: [number, number, number] = [opened, open.filter(Boolean).length, -remnant];
            if (!best || label.join() !== best.join()) {
              const i = best ? label.findIndex((one, k) => one !== best?.[k]) : 0;
              if (!best || (label[i] as number) < (best[i] as number)) best = label;
            }
          }
          const found = cutsFrom(stockM, lengthsM, kerfMm / 1000);
          if (!best) {
            expect(found.outcome).not.toBe("cut");
            return;
          }
          expect(found).toMatchObject({ outcome: "cut", proved: true, gapM: 0, stocks: best[1] });
          expect(grid(found.stockUsedM)).toBe(best[0]);
          expect(grid(found.longestRemnantM)).toBe(-best[2]);
          expect(found.pieces.flat().sort()).toEqual([...lengthsM].sort());
        },
      ),
      { numRuns: 150 },
    );
  });

  test("of more stocks than are looked at, what is not found is given up, not denied", () => {
    const stock = Array.from({ length: 30 }, () => 1);
    expect(
      cutsFrom(
        stock,
        Array.from({ length: 25 }, () => 0.9),
        0.002,
      ).outcome,
    ).toBe("gaveUp");
    expect(
      cutsFrom(
        stock,
        Array.from({ length: 10 }, () => 0.9),
        0.002,
      ),
    ).toMatchObject({ outcome: "cut", stocks: 10 });
  });

  test("sixty pieces of eighteen stocks: all cut, none twice, none beyond its stock", () => {
    let seed = 11;
    const random = () => {
      seed = (seed * 1103515245 + 12345) % 2147483648;
      return seed / 2147483648;
    };
    const lengths = Array.from({ length: 60 }, () => Math.round(200 + random() * 1300) / 1000);
    const stock = Array.from({ length: 18 }, () => Math.round(2000 + random() * 4000) / 1000);
    const found = cutsFrom(stock, lengths, 0.002);
    expect(found.outcome).toBe("cut");
    expect(found.pieces.flat().sort()).toEqual([...lengths].sort());
    found.pieces.forEach((pieces, b) => {
      const used = pieces.reduce((sum, one) => sum + one + 0.002, 0);
      expect(used).toBeLessThanOrEqual((stock[b] as number) + 0.002 + 1e-9);
    });
    // Within a hundredth of the least that any set of stocks could be.
    const need = lengths.reduce((sum, one) => sum + one, 0);
    expect(found.stockUsedM).toBeLessThan(need * 1.01);
  });
});

describe("a shop's cut list", () => {
  test("equal to full enumeration: coil, offcuts spent, stocks touched, remnant", () => {
    fc.assert(
      fc.property(
        fc.array(mm(400, 2000), { minLength: 0, maxLength: 3 }),
        fc.array(mm(150, 1500), { minLength: 1, maxLength: 5 }),
        mm(100, 600),
        (offcutsM, lengthsM, keepM) => {
          const kerf = 20;
          let best: number[] | null = null;
          for (const at of all(lengthsM.length, -1, offcutsM.length - 1)) {
            const used = offcutsM.map(() => 0);
            let coil = 0;
            at.forEach((b, i) => {
              const size = grid(lengthsM[i] as number) + kerf;
              if (b < 0) coil += size;
              else used[b] = (used[b] as number) + size;
            });
            if (used.some((one, b) => one > grid(offcutsM[b] as number) + kerf)) continue;
            let [spent, touched, longest] = [0, coil > 0 ? 1 : 0, 0];
            used.forEach((one, b) => {
              if (one === 0) return;
              const [whole, rest] = [
                grid(offcutsM[b] as number),
                Math.max(0, grid(offcutsM[b] as number) - one),
              ];
              touched++;
              spent += rest > 0 && rest >= grid(keepM) ? whole - rest : whole;
              longest = Math.max(longest, rest);
            });
            const label = [coil, spent, touched, -longest];
            const i = best ? label.findIndex((one, k) => one !== best?.[k]) : 0;
            if (!best || (i >= 0 && (label[i] as number) < (best[i] as number))) best = label;
          }
          const found = cutListFrom(offcutsM, [30], lengthsM, 0.002, keepM);
          expect(found).toMatchObject({ outcome: "cut", proved: true });
          expect([
            grid(found.coilTakenM),
            grid(found.offcutsSpentM),
            found.touched,
            0 - grid(found.longestRemnantM),
          ]).toEqual(best?.map((one) => one + 0));
        },
      ),
      { numRuns: 150 },
    );
  });
});

test("packing: what goes in is found, what does not is proved, what is not settled is said", () => {
  expect(pack([5, 4, 3], [7, 5])).toEqual({ bins: expect.any(Array) });
  expect(pack([4, 4, 4], [6, 6])).toBeNull();
  expect(pack([3, 3], [6], 0)).toBe("gaveUp");
});
