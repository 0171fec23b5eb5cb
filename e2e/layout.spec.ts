import { writeFileSync } from "node:fs";
import { proposeManifold } from "~/core/manifold/propose";
import { newEngine, newJob, newTank } from "~/core/plan/blank";
import { writeJobFile } from "~/schemas/file";
import { choose, fill, openDemo, press, storedJob, unfold } from "./helpers";
import { expect, expectAccessible, type Page, test } from "./test";

/** Names on the drawing that lie over one another or over a hose. */
async function overlaps(page: Page): Promise<string[]> {
  await expect(page.locator("svg[data-drawing]")).toBeVisible();
  return page.locator("svg[data-drawing]").evaluate((svg) => {
    const texts = [...svg.querySelectorAll("text")]
      .filter((text) => text.textContent && text.getBoundingClientRect().width > 0)
      .map((text) => ({
        text: text.textContent ?? "",
        group: text.closest("[role=button]"),
        box: text.getBoundingClientRect(),
      }));
    const crossing = (a: DOMRect, b: DOMRect) =>
      Math.min(a.right, b.right) - Math.max(a.left, b.left) > 2 &&
      Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 3;
    const found: string[] = [];
    texts.forEach((one, i) => {
      for (const other of texts.slice(i + 1))
        if (one.group !== other.group && crossing(one.box, other.box))
          found.push(`${one.text} | ${other.text}`);
    });
    for (const hose of svg.querySelectorAll<SVGPathElement>("[aria-label^='Hose from'] > path:first-child")) {
      const matrix = hose.getScreenCTM() as DOMMatrix;
      const name = hose.parentElement?.getAttribute("aria-label") ?? "";
      const under = new Set<string>();
      for (let at = 0; at < hose.getTotalLength(); at += 3) {
        const { x, y } = hose.getPointAtLength(at).matrixTransform(matrix);
        for (const { text, box } of texts)
          if (x > box.left + 2 && x < box.right - 2 && y > box.top + 3 && y < box.bottom - 3) under.add(text);
      }
      for (const text of under) found.push(`${text} | ${name}`);
    }
    return found;
  });
}

for (const id of ["marram", "unit12", "van"] as const) {
  test(`${id}: no name lies over another on the drawing`, async ({ page }) => {
    await openDemo(page, id);
    expect(await overlaps(page)).toEqual([]);
  });
}

test("a plan of forty parts is drawn without names over one another", async ({ page }) => {
  const job = newJob("forty", "Forty parts");
  const at = (xM: number, yM: number, zM: number) => ({ xM, yM, zM });
  for (const [i, name] of ["Port", "Day tank", "Starboard"].entries())
    job.tanks.push(newTank(`t${i}`, name, at(2.2, 0.8 - i, 0.4)));
  job.consumers.push(
    newEngine("e1", "Port engine", at(0, 0.5, 0.5)),
    newEngine("e2", "Starboard engine", at(0, -0.5, 0.5)),
    newEngine("e3", "Generator", at(-1, 0, 0.5), "generator"),
    newEngine("e4", "Heater", at(-1, -0.8, 0.5), "heater"),
    newEngine("e5", "Winch engine", at(-1, 0.9, 0.5)),
    newEngine("e6", "Harbour set", at(-1.5, 0.4, 0.5), "generator"),
  );
  for (const { id } of job.tanks) job.plans[0]!.conditions.aboardM3[id] = 0.12;
  const tankIds = job.tanks.map(({ id }) => id);
  const { plan, tanks } = proposeManifold(
    job,
    {
      feeds: [
        { consumerId: "e1", tankIds },
        { consumerId: "e2", tankIds },
        { consumerId: "e3", tankIds: ["t1"] },
        { consumerId: "e4", tankIds: ["t1"] },
        { consumerId: "e5", tankIds: ["t0", "t2"] },
        { consumerId: "e6", tankIds: ["t1"] },
      ],
      transfers: [{ fromId: "t0", toId: "t1" }],
      polishIds: ["t1"],
    },
    "m",
  );
  const { basedOn: _, ...alone } = plan;
  const whole = { ...job, tanks, plans: [alone], currentPlanId: "m" };
  const count = plan.parts.length + tanks.length + job.consumers.length;
  expect(count).toBeGreaterThanOrEqual(40);
  const file = test.info().outputPath("forty.keel.json");
  writeFileSync(file, writeJobFile({ job: whole, book: [], snapshots: {} }));
  await page.goto("/");
  await page.getByRole("button", { name: "Open a file…" }).click();
  await page.getByLabel("A .keel.json or .keel.zip file").setInputFiles(file);
  await expect(page.getByRole("link", { name: /Forty parts/ })).toBeVisible();
  await page.goto("/job/forty/layout");
  expect(await overlaps(page)).toEqual([]);
});

test("every kind of part can be added, chosen and read, and taken back by undo", async ({ page }) => {
  test.slow();
  const faults: string[] = [];
  page.on("pageerror", (error) => faults.push(String(error)));
  await page.goto("/");
  await page.getByRole("button", { name: "New job" }).click();
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await expect(page).toHaveURL(/layout/);
  await page.getByRole("button", { name: "Add a part" }).click();
  const kinds = await page.getByRole("option").allTextContents();
  await page.keyboard.press("Escape");
  expect(kinds.length).toBeGreaterThanOrEqual(28);
  for (const kind of kinds) {
    await page.keyboard.press("Escape");
    await choose(page, "mouse", "Add a part", new RegExp(`^${kind.replace(/[()]/g, ".")}$`));
    await expect(page.getByRole("region", { name: /^Chosen (part|tank)/ })).toBeVisible();
  }
  const drawn = page.locator("svg[data-drawing] [role=button]:not([data-state])");
  // Some are several parts with hoses between them.
  await expect.poll(() => drawn.count(), { timeout: 20_000 }).toBeGreaterThanOrEqual(kinds.length);
  for (let i = 0; i < kinds.length; i++) await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("Nothing is laid out yet.")).toBeVisible();
  expect(faults).toEqual([]);
});

for (const hand of ["mouse", "keyboard"] as const) {
  test(`a manifold is judged in every position, one is proposed and stands beside the plan, by ${hand}`, async ({
    page,
  }) => {
    await openDemo(page, "marram");
    await press(page, hand, page.getByRole("button", { name: "Manifold…" }));
    const dialog = page.getByRole("dialog");
    await expect(dialog).toContainText("2048 positions: 90 feed and return as they should");
    await expect(dialog).toContainText(
      "Supply manifold, port shut with Return manifold, port open: Engine returns into another tank",
    );
    await expect(dialog).toContainText("One handle for both");
    if (hand === "mouse") await expectAccessible(page, "[role=dialog]");
    if (hand === "mouse") {
      await dialog.getByRole("tab", { name: "Propose one" }).click();
      await dialog.getByRole("button", { name: "Day tank as day tank" }).click();
      await expect(dialog.getByRole("button", { name: "Port wing to Day tank" })).toHaveAttribute(
        "aria-pressed",
        "true",
      );
    } else {
      await dialog.getByRole("tab", { name: /Every position/ }).focus();
      await page.keyboard.press("ArrowRight");
      await press(page, hand, dialog.getByRole("button", { name: "Port wing to Day tank" }));
    }
    await press(page, hand, dialog.getByRole("button", { name: "Put it beside the plan" }));
    await expect(dialog).toHaveCount(0);
    await expect(page.getByText(/stands beside the other plans/)).toBeVisible();
    await expect(page.getByRole("status").filter({ hasText: "fed 210 L/h" })).toBeVisible();
    await press(page, hand, page.getByRole("button", { name: "Manifold…" }));
    await expect(page.getByRole("dialog")).toContainText("positions");
    await page.keyboard.press("Escape");
    const stored = JSON.parse(await storedJob(page, "marram")) as { plans: { name: string }[] };
    expect(stored.plans.map(({ name }) => name)).toEqual([
      "A, duplex, manifolds",
      "As found, one separator",
      "Manifold 2",
    ]);
  });
}

test("a plan is forked, changed, held against the first, and what differs is told on both drawings", async ({
  page,
}) => {
  await openDemo(page, "unit12");
  await page.getByRole("button", { name: "Plans…" }).click();
  await page.getByRole("button", { name: /^Copy / }).click();
  await page.keyboard.press("Escape");
  const table = page.getByRole("region", { name: "Plans side by side" });
  await expect(table).toContainText("0 differ");
  await page
    .getByRole("button", { name: /^Separator/ })
    .first()
    .click();
  await unfold(page, /Its figures/);
  await fill(page.getByLabel("Rated flow").first(), "750 L/h");
  await expect(table).toContainText("1 differ");
  await expect(page.getByRole("img", { name: "otherwise in the other plan" })).toHaveCount(2);
  await expect(table.getByRole("row").nth(1).getByRole("img", { name: "better" }).first()).toBeVisible();
  await table.getByRole("button", { name: "Work on it" }).click();
  const stored = JSON.parse(await storedJob(page, "unit12")) as { currentPlanId: string };
  expect(stored.currentPlanId).toBe("planA");
});

test("a line is traced in the vehicle by keys: a point is moved up, a hump is told, and what it passes is judged", async ({
  page,
}) => {
  await openDemo(page, "unit12");
  await page.getByRole("button", { name: "In the vehicle" }).click();
  const line = page.getByRole("button", { name: "Return cooler to Frame tank", exact: true }).first();
  await line.focus();
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Trace its way" }).click();
  await page.getByRole("button", { name: /^Point 1 from the left/ }).focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press("Shift+ArrowUp");
  await expect(page.getByText(/hump of \d+ mm/)).toBeVisible();
  await expect(page.getByText("air stays")).toBeVisible();
  await unfold(page, /Its hose, bends/);
  const apart = page.getByRole("textbox", { name: /^Apart, 100 mm at least/ });
  await fill(apart, "120 mm");
  await expect(page.getByRole("button", { name: /exhaust down-pipe/ })).toHaveCount(0);
  await expectAccessible(page, "#place");
});

for (const hand of ["mouse", "keyboard"] as const)
  test(`the vehicle is sized, seen from four sides and turned, by ${hand}`, async ({ page }) => {
    await openDemo(page, "unit12");
    await press(page, hand, page.getByRole("button", { name: "In the vehicle" }));
    for (const name of ["From the left", "From behind", "From above"])
      await expect(page.getByRole("group", { name: new RegExp(`^${name}`) })).toBeVisible();
    // What stands there is chosen: pressed, or come to by arrows, each view one stop of the Tab key.
    const above = page.getByRole("group", { name: /^From above/ });
    const tank = above.getByRole("button", { name: "Frame tank", exact: true });
    // Beside the hose that ends on it.
    if (hand === "mouse") {
      const { width } = (await tank.boundingBox())!;
      await tank.click({ position: { x: width - 5, y: 5 } });
    } else {
      expect(await above.locator('[tabindex="0"]').count()).toBe(1);
      await above.locator('[tabindex="0"]').focus();
      await page.keyboard.press("ArrowRight");
      await expect(above.locator(":focus")).toHaveCount(1);
      await page.keyboard.press("ArrowLeft");
      await tank.focus();
      await page.keyboard.press("Enter");
    }
    await expect(tank).toHaveAttribute("aria-pressed", "true");
    await page.keyboard.press("Escape");
    await press(page, hand, page.getByRole("button", { name: "Sizes…, 6 assumed" }));
    await fill(page.getByRole("textbox", { name: "Length" }), "7.4 m");
    await page.keyboard.press("Escape");
    await expect(page.getByRole("button", { name: "Sizes…, 5 assumed" })).toBeVisible();
    await press(page, hand, page.getByRole("button", { name: "Turned" }));
    const turned = page.getByRole("application", { name: /in three dimensions/ });
    await expect(turned).toBeVisible();
    const before = await turned.screenshot();
    if (hand === "keyboard") {
      await turned.focus();
      for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowLeft");
    } else {
      const box = (await turned.boundingBox())!;
      await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
      await page.mouse.down();
      await page.mouse.move(box.x + box.width / 2 + 80, box.y + box.height / 2, { steps: 4 });
      await page.mouse.up();
    }
    await expect.poll(async () => (await turned.screenshot()).equals(before)).toBe(false);
    await expectAccessible(page, "#place");
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(page.getByRole("button", { name: "Sizes…, 6 assumed" })).toBeVisible();
  });

for (const hand of ["mouse", "keyboard"] as const)
  test(`a vent with a sag is led anew by its points, and a drain is begun at its tank, by ${hand}`, async ({
    page,
  }) => {
    await openDemo(page, "marram");
    await press(
      page,
      hand,
      page.getByRole("button", { name: /Starboard wing, vent line: a sag holds/ }).first(),
    );
    await expect(page.getByRole("heading", { name: "Starboard wing, vent", exact: true })).toBeVisible();
    await expect(page.getByText("sag of 60 mm")).toBeVisible();
    const point = page.getByRole("button", { name: /^Point 2 from port side/ });
    await point.focus();
    for (let i = 0; i < 8; i++) await page.keyboard.press("ArrowUp");
    await expect(page.getByText("no hump, no sag")).toBeVisible();
    await expect(page.getByText("vent line: a sag holds")).toHaveCount(0);
    await press(page, hand, page.getByRole("button", { name: "In the vehicle" }));
    await page.goto("/job/marram/survey");
    await press(page, hand, page.getByRole("tab", { name: "Vent" }));
    await press(page, hand, page.getByRole("button", { name: "Trace its drain" }));
    await expect(page.getByRole("heading", { name: "Port wing, drain", exact: true })).toBeVisible();
    await press(page, hand, page.getByRole("button", { name: "Take the line off" }));
    await expect(page.getByRole("heading", { name: "Port wing", exact: true })).toBeVisible();
  });

for (const hand of ["drag", "taps", "keys"] as const) {
  test(`free ports are joined on the drawing by ${hand}: what fits is lit, and the new hose is chosen`, async ({
    page,
  }) => {
    await page.goto("/");
    await page.getByRole("button", { name: "New job" }).click();
    await page.getByRole("button", { name: "Start", exact: true }).click();
    await page.getByRole("button", { name: "Add tank" }).click();
    await page.getByRole("button", { name: "Add engine" }).click();
    const from = page.getByRole("button", { name: /^Join from Tank.*, supply/ });
    await expect(from).toBeVisible();
    const to = page.getByRole("button", { name: /^Join (from|to) Engine.*, feed/ });
    if (hand === "drag") {
      const [a, b] = [await from.boundingBox(), await to.boundingBox()];
      await page.mouse.move(a!.x + a!.width / 2, a!.y + a!.height / 2);
      await page.mouse.down();
      await page.mouse.move(b!.x + b!.width / 2 - 30, b!.y + b!.height / 2, { steps: 6 });
      await page.mouse.move(b!.x + b!.width / 2 + 4, b!.y + b!.height / 2 + 4, { steps: 3 });
      await expect(to).toHaveAttribute("data-state", "over");
      await page.mouse.up();
    } else if (hand === "taps") {
      await from.click();
      await expect(page.getByText(/choose where it goes/)).toBeVisible();
      await expect(to).toHaveAttribute("data-state", "fits");
      await to.click();
    } else {
      // What was added last takes the focus; only then does the hand go elsewhere.
      await expect(page.locator("[data-drawing]").getByRole("button", { name: /^Engine/ })).toBeFocused();
      await from.focus();
      await page.keyboard.press("Enter");
      await page.keyboard.press("ArrowRight");
      await expect(to).toHaveAttribute("data-state", "over");
      // Left and begun again: nothing is joined.
      await page.keyboard.press("Escape");
      await expect(page.getByText(/choose where it goes/)).toHaveCount(0);
      // The focus is on the part again: from there a key takes its free port.
      await expect(page.getByRole("button", { name: /^Tank / })).toBeFocused();
      await page.keyboard.press("j");
      await expect(page.getByText(/choose where it goes/)).toBeVisible();
      await page.keyboard.press("ArrowRight");
      await page.keyboard.press("Enter");
    }
    const hose = page.getByRole("button", { name: /^Hose from / });
    await expect(hose).toHaveAttribute("aria-pressed", "true");
    if (hand === "keys") await expect(hose).toBeFocused();
    await expect(page.getByRole("button", { name: /^Join from Tank.*, supply/ })).toHaveCount(0);
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(from).toBeVisible();
    await expectAccessible(page, "#place");
  });
}

test("the drawing is one stop of the Tab key, walked by arrows; a part is let into a hose and deleted by keys alone", async ({
  page,
}) => {
  await openDemo(page, "van");
  const focused = () =>
    page.evaluate(() => ({
      label: document.activeElement?.getAttribute("aria-label") ?? "",
      isDrawn: document.activeElement?.closest("[data-drawing]") !== null,
    }));
  await expect(page.locator("svg[data-drawing]")).toBeVisible();
  for (let tabs = 0; tabs < 40 && !(await focused()).isDrawn; tabs++) await page.keyboard.press("Tab");
  expect((await focused()).label).toBe("Tank Heater tank");
  await page.keyboard.press("Tab");
  expect((await focused()).isDrawn).toBe(false);
  await page.keyboard.press("Shift+Tab");
  expect((await focused()).label).toBe("Tank Heater tank");
  await page.keyboard.press("ArrowRight");
  expect((await focused()).label).toMatch(/^Hose from Heater tank to Tank valve, .*, under /);
  await page.keyboard.press("i");
  await expect(page.getByRole("dialog")).toContainText("Let into");
  await page.keyboard.type("non-return");
  await expect(page.getByRole("option")).toHaveCount(1);
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /^Check valve/ }).first()).toBeFocused();
  // To its figures and back.
  await page.keyboard.press("F6");
  await expect(page.getByRole("group", { name: "What is chosen" })).toBeFocused();
  await page.keyboard.press("F6");
  await expect(page.getByRole("button", { name: /^Check valve/ }).first()).toBeFocused();
  await page.keyboard.press("Delete");
  await expect(page.getByRole("button", { name: /^Check valve/ })).toHaveCount(0);
  await expect.poll(async () => (await focused()).isDrawn).toBe(true);
});

test("a nub let go over a hose lets in a tee, over empty ground it opens the list of parts at its port", async ({
  page,
}) => {
  await openDemo(page, "van");
  await page.getByRole("button", { name: "Add tank" }).click();
  const nub = page.getByRole("button", { name: /^Join from Tank 3, supply/ });
  await expect(nub).toBeVisible();
  const drag = async (x: number, y: number) => {
    const from = (await nub.boundingBox())!;
    await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
    await page.mouse.down();
    await page.mouse.move(x - 20, y - 10, { steps: 6 });
    await page.mouse.move(x, y, { steps: 4 });
    await page.mouse.up();
  };
  const canvas = (await page.getByRole("region", { name: "Plumbing" }).boundingBox())!;
  await drag(canvas.x + canvas.width * 0.6, canvas.y + canvas.height - 60);
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("Add at Tank 3, supply");
  await expectAccessible(page, "[role=dialog]");
  await page.keyboard.press("Escape");
  await expect(dialog).toHaveCount(0);
  const hose = page.getByRole("button", { name: /^Hose from Line filter to Dosing pump/ });
  const box = (await hose.locator("path").nth(1).boundingBox())!;
  await drag(box.x + box.width / 2, box.y + box.height / 2);
  await expect(page.getByRole("button", { name: /^Hose from Tank 3 to Tee/ })).toHaveAttribute(
    "aria-pressed",
    "true",
  );
  // A straight hose has no height to be seen by: it is counted.
  await expect(page.getByRole("button", { name: /^Hose from Tee to Dosing pump/ })).toHaveCount(1);
  // One step of undo for the whole of it.
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await expect(hose).toHaveCount(1);
});

test("a part is chosen by its name from the palette, its ports are called otherwise, and the drawing is laid out anew", async ({
  page,
}) => {
  await openDemo(page, "marram");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("separator 1");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Separator 1", exact: true })).toBeVisible();
  await unfold(page, /What its ports are called/);
  const out = page.getByRole("textbox", { name: "Port: out" });
  await fill(out, "in");
  await expect(page.getByText("Another port of it is called so.")).toBeVisible();
  await fill(out, "to the tee");
  await expect(page.getByText(/^to the tee: Separator tee out/)).toBeVisible();
  const cell = () =>
    page.locator('[data-drawing] [data-id="lift"]').evaluate((one) => {
      const { x, y } = one.getBoundingClientRect();
      return `${Math.round(x)} ${Math.round(y)}`;
    });
  const first = await cell();
  const lift = page.locator('[data-drawing] [data-id="lift"]');
  await lift.focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press("Alt+ArrowDown");
  await expect.poll(cell).not.toBe(first);
  await page.waitForTimeout(500);
  const before = await cell();
  await page.getByRole("button", { name: "Tidy…" }).click();
  // Round what a hand put there may be nothing to gain; with that moved too there is.
  await expect(page.getByRole("dialog")).toContainText(/fewer|Nothing to gain/);
  await expect(page.getByRole("dialog")).toContainText("but 1 part put by hand");
  await page.getByText("Move what was put by hand too").click();
  await expect(page.getByRole("dialog")).toContainText(/fewer.*Parts move;/);
  await page.getByRole("dialog").getByRole("button", { name: "Lay it out anew" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(cell).toBe(before);
});

test("the first Tab skips to the drawing, and from there arrows go along the flow", async ({ page }) => {
  await openDemo(page, "marram");
  await expect(page.locator('[data-drawing] [data-id="lift"]')).toBeVisible();
  await page.keyboard.press("Tab");
  await expect(page.getByRole("button", { name: "Skip to the drawing" })).toBeFocused();
  await page.keyboard.press("Enter");
  const at = () => page.evaluate(() => document.activeElement?.getAttribute("data-id") ?? null);
  const first = await at();
  expect(first).not.toBeNull();
  await page.keyboard.press("ArrowRight");
  expect(await at()).not.toBe(first);
});

test("by keys alone: a job begun, a tank called otherwise, given a stripping tube, joined from the list of what can be added", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByRole("link", { name: /^Marram 10/ }).waitFor();
  await page.keyboard.press("a");
  await expect(page.getByRole("textbox", { name: "Name" })).toBeFocused();
  await page.keyboard.press("Control+a");
  await page.keyboard.type("By keys");
  await page.keyboard.press("Enter");
  await page.getByText("Nothing is laid out yet.").waitFor();
  await page.keyboard.press("g");
  const drawn = (name: RegExp) => page.locator("[data-drawing]").getByRole("button", { name }).first();
  await expect(drawn(/^Engine/)).toBeFocused();
  await page.keyboard.press("t");
  await expect(drawn(/^Tank Tank 1/)).toBeFocused();
  await page.keyboard.press("F2");
  await page.keyboard.type("Day tank");
  await page.keyboard.press("Enter");
  await expect(drawn(/^Tank Day tank/)).toBeFocused();
  await page.keyboard.press("a");
  await expect(page.getByRole("dialog")).toContainText("Add at Day tank, supply");
  await expect(page.getByRole("option").first()).toHaveText(/Engine, feed/);
  await page.keyboard.type("engine, feed");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /^Hose from Day tank to Engine/ })).toHaveCount(1);
  // It has no more to give: the engine is at hand, with its return.
  await expect(drawn(/^Engine/)).toBeFocused();
  await page.keyboard.press("Control+k");
  await page.keyboard.type("day tank");
  await page.keyboard.press("Enter");
  await expect(drawn(/^Tank Day tank/)).toBeFocused();
  await page.keyboard.press("a");
  await page.keyboard.type("stripping");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /^Join from Day tank, stripping tube/ })).toHaveCount(1);
  // With Shift the list goes on at what was just added; shut, the last of it has the focus.
  await expect(drawn(/^Tank Day tank/)).toBeFocused();
  await page.keyboard.press("a");
  await expect(page.getByRole("dialog")).toContainText("Add at Day tank, stripping tube");
  await page.keyboard.type("two-way");
  await page.keyboard.press("Shift+Enter");
  await expect(page.getByRole("dialog")).toContainText("Add at Valve, other side");
  await expect(page.getByRole("searchbox")).toBeFocused();
  await expect(page.getByRole("searchbox")).toHaveValue("");
  await page.keyboard.type("strainer");
  await page.keyboard.press("Shift+Enter");
  await expect(page.getByRole("dialog")).toContainText("Add at Strainer, out");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect(drawn(/^Strainer/)).toBeFocused();
  await expect(page.getByRole("button", { name: /^Hose from Valve to Strainer/ })).toHaveCount(1);
});

test.describe("on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  test("an open port stands in the outline: touched, it is joined or gets a part", async ({ page }) => {
    await page.goto("/");
    await page.getByRole("button", { name: "New job" }).tap();
    await page.getByRole("button", { name: "Start", exact: true }).tap();
    await page.getByRole("button", { name: "Add engine" }).tap();
    await page.getByRole("button", { name: "Add tank" }).tap();
    await page.getByRole("button", { name: "Open: Tank 1, supply" }).tap();
    await page.getByRole("option", { name: /Two-way valve/ }).tap();
    await page.getByRole("button", { name: /^Open: .*alve, other side/ }).tap();
    await expect(page.getByRole("dialog")).toContainText(/Add at .*alve, other side/);
    await page.getByRole("option", { name: /^Engine, feed/ }).tap();
    await expect(page.getByRole("button", { name: "Open: Engine, feed" })).toHaveCount(0);
    await expect(page.getByRole("button", { name: "Open: Engine, return" })).toBeVisible();
    await expectAccessible(page, "#place");
  });
});

test.describe("by two fingers on a tablet", () => {
  test.use({ viewport: { width: 1024, height: 768 }, hasTouch: true });
  test("the drawing grows under them, and what was between them stays there", async ({ page }) => {
    await openDemo(page, "marram");
    const lift = page.locator('[data-drawing] [data-id="lift"]');
    const before = (await lift.boundingBox())!;
    const at = { x: before.x + before.width / 2, y: before.y + before.height / 2 };
    const shown = page.getByRole("button", { name: "Fit the drawing" });
    const percent = async () => Number.parseInt((await shown.textContent()) ?? "", 10);
    const from = await percent();
    const devtools = await page.context().newCDPSession(page);
    const touch = (type: "touchStart" | "touchMove" | "touchEnd", apart: number) =>
      devtools.send("Input.dispatchTouchEvent", {
        type,
        touchPoints:
          type === "touchEnd"
            ? []
            : [
                { x: at.x - apart, y: at.y, id: 1 },
                { x: at.x + apart, y: at.y, id: 2 },
              ],
      });
    await touch("touchStart", 40);
    for (const apart of [44, 52, 64, 80]) await touch("touchMove", apart);
    await touch("touchEnd", 0);
    await expect.poll(percent).toBe(2 * from);
    const after = (await lift.boundingBox())!;
    expect(after.x + after.width / 2).toBeCloseTo(at.x, -1);
    expect(after.y + after.height / 2).toBeCloseTo(at.y, -1);
    // Names keep their size on the screen, so that a part grows less than its drawing.
    expect(after.width).toBeGreaterThan(before.width * 1.2);
    await shown.tap();
    await expect.poll(percent).toBe(from);
  });
});
