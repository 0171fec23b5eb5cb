import { readFileSync } from "node:fs";
import { choose, fill, type Hand, openMarram, press, saveFile, setSlider, storedJob } from "./helpers";
import { expect, type Page, test } from "./test";

const hands: Hand[] = ["mouse", "keyboard"];

/** Chooses a part on the drawing by its name. */
async function pick(page: Page, hand: Hand, name: string | RegExp): Promise<void> {
  const node = page.getByRole("region", { name: "Plumbing" }).getByRole("button", { name }).first();
  await expect(async () => {
    // A change lays the drawing out anew: what is chosen while it moves may be another part.
    await expect(page.locator("svg[data-drawing]")).toBeVisible();
    if ((await node.getAttribute("aria-pressed", { timeout: 2000 })) === "true") return;
    if (hand === "mouse") await node.click({ force: true, timeout: 2000 });
    else {
      await node.focus();
      await page.keyboard.press("Enter");
    }
    await expect(node).toHaveAttribute("aria-pressed", "true", { timeout: 1500 });
  }).toPass({ timeout: 30_000 });
}

async function join(
  page: Page,
  hand: Hand,
  part: string | RegExp,
  port: string,
  to: string | RegExp,
): Promise<void> {
  await pick(page, hand, part);
  await choose(page, hand, new RegExp(`${port}: open, join to`), to);
}

for (const hand of hands) {
  test(`a newcomer builds a two-tank, two-selector boat from nothing, by ${hand}`, async ({ page }) => {
    test.setTimeout(120_000);
    await page.goto("/");
    await press(page, hand, page.getByRole("button", { name: "New job" }));
    await fill(page.getByLabel("Name"), "Skiff");
    await press(page, hand, page.getByRole("button", { name: "Start", exact: true }));
    await expect(page.getByRole("heading", { level: 1, name: "Skiff" })).toBeVisible();
    await expect(page.getByText("Nothing is laid out yet.")).toBeVisible();

    for (const [i, name] of ["Port tank", "Starboard tank"].entries()) {
      await press(page, hand, page.getByRole("button", { name: "Add tank" }));
      const panel = page.getByRole("region", { name: "Chosen tank" });
      await expect(panel.getByRole("heading", { name: `Tank ${i + 1}` })).toBeVisible();
      await fill(panel.getByLabel("Name"), name);
      await expect(panel.getByRole("heading", { name })).toBeVisible();
    }
    await press(page, hand, page.getByRole("button", { name: "Add engine" }));
    await expect(page.getByRole("region", { name: "Chosen part" })).toBeVisible();
    for (const name of ["Supply selector", "Return selector"]) {
      // Out of the field, then with nothing chosen: a part is loose until it is joined.
      await page.keyboard.press("Escape");
      await page.keyboard.press("Escape");
      await choose(page, hand, "Add a part", "Selector valve");
      const panel = page.getByRole("region", { name: "Chosen part" });
      await expect(panel.getByRole("heading", { level: 2, name: "Selector", exact: true })).toBeVisible();
      await fill(panel.getByLabel("Name"), name);
      await expect(panel.getByRole("heading", { name })).toBeVisible();
    }
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
    await choose(page, hand, "Add a part", "Lift pump");
    await expect(
      page.getByRole("region", { name: "Chosen part" }).getByRole("heading", { name: "Lift pump" }),
    ).toBeVisible();

    await join(page, hand, /Tank Port tank/, "supply", "Supply selector, way 1");
    await join(page, hand, /Tank Starboard tank/, "supply", "Supply selector, way 2");
    await join(page, hand, /Tank Port tank/, "return", "Return selector, way 1");
    await join(page, hand, /Tank Starboard tank/, "return", "Return selector, way 2");
    await join(page, hand, /^Supply selector/, "common", "Lift pump, in");
    await join(page, hand, /^Lift pump/, "out", "Engine, feed");
    await join(page, hand, /^Return selector/, "common", "Engine, return");

    await press(page, hand, page.getByRole("button", { name: "Line-ups…" }));
    await choose(page, hand, /From/, "Starboard tank");
    await press(page, hand, page.getByRole("button", { name: "New line-up: Run on Starboard tank" }));
    await expect(page.getByRole("dialog")).toHaveCount(0);

    for (const valve of [/^Supply selector/, /^Return selector/]) {
      await pick(page, hand, valve);
      // It asked for the tank, and set both handles for it.
      await expect(page.getByRole("button", { name: "way 2: Starboard tank", exact: true })).toHaveAttribute(
        "aria-pressed",
        "true",
      );
    }
    await expect(page.getByRole("status").filter({ hasText: "fed 80 L/h" })).toBeVisible();
    await press(page, hand, page.getByRole("link", { name: /Prove/ }));
    await expect(page.getByRole("status", { name: "Verdict" })).toContainText("within");
  });

  test(`a practitioner finds why 'Run on starboard' is a Stop, mends it, and sees it go, by ${hand}`, async ({
    page,
  }) => {
    await openMarram(page);
    const finding = page.getByRole("button", { name: /Run on starboard returns to Port wing/ });
    await press(page, hand, finding);
    await expect(page.getByText("Set the return to Starboard wing in this line-up")).toBeVisible();
    await expect(page.getByRole("button", { name: /Line-up$/ })).toContainText("Run on starboard");
    await pick(page, hand, /^Return manifold/);
    await press(page, hand, page.getByRole("button", { name: "port open" }));
    await press(page, hand, page.getByRole("button", { name: "starboard shut" }));
    await expect(finding).toHaveCount(0);
    await expect(page.getByRole("button", { name: /Findings: 0 Stop/ })).toBeVisible();
  });

  test(`the filter is loaded until the limit is crossed, and the part that costs most is read, by ${hand}`, async ({
    page,
  }) => {
    await openMarram(page, "prove");
    const verdict = page.getByRole("status", { name: "Verdict" });
    await expect(verdict).toContainText("within 20 kPa");
    if (hand === "mouse") {
      const box = await page
        .getByRole("slider", { name: "Filter clogging" })
        .locator("xpath=../../..")
        .boundingBox();
      if (!box) throw new Error("no slider");
      await page.mouse.click(box.x + box.width * 0.86, box.y + box.height * 0.5);
    } else await setSlider(page, "Filter clogging", "ArrowRight", 65);
    await expect(verdict).toContainText("over 20 kPa");
    await expect(verdict).toContainText(/Separator 1 costs most: \d\d %/);
    await expect(page.getByText("Explored, not kept")).toBeVisible();
    await press(page, hand, page.getByRole("button", { name: "Keep" }));
    await expect(page.getByText("Explored, not kept")).toHaveCount(0);
    await expect(page.getByRole("button", { name: /Lift pump: .* of vacuum, limit 20 kPa/ })).toBeVisible();
  });

  test(`a job is exported, deleted, imported, and everything is as it was, by ${hand}`, async ({ page }) => {
    await openMarram(page);
    const before = await storedJob(page, "marram");
    await page.goto("/");
    const path = await (await saveFile(page, hand, "Marram")).path();
    await press(page, hand, page.getByRole("button", { name: "Delete Marram" }));
    await expect(page.getByRole("link", { name: /^Marram 10\.5 m/ })).toHaveCount(0);
    await press(page, hand, page.getByRole("button", { name: "Open a file…" }));
    await page.getByLabel("A .keel.json or .keel.zip file").setInputFiles(path);
    await expect(page.getByRole("link", { name: /^Marram 10\.5 m/ })).toBeVisible();
    expect(await storedJob(page, "marram")).toBe(before);
    expect(JSON.parse(readFileSync(path, "utf8")).job).toEqual(JSON.parse(before));
  });

  test(`a reload in the middle of an edit loses nothing, and undo goes over it, by ${hand}`, async ({
    page,
  }) => {
    await openMarram(page);
    const before = await storedJob(page, "marram");
    await pick(page, hand, /^Port tank valve/);
    await press(page, hand, page.getByRole("button", { name: "shut", exact: true }));
    await expect(page.getByText("no way from a tank").first()).toBeVisible();
    await pick(page, hand, /^Lift pump/);
    await page.getByRole("region", { name: "Chosen part" }).getByLabel("Name").fill("Pump");
    await page.reload();
    await expect(page.getByText("no way from a tank").first()).toBeVisible();
    await press(page, hand, page.getByRole("button", { name: "Undo" }));
    if ((await storedJob(page, "marram")) !== before)
      await press(page, hand, page.getByRole("button", { name: "Undo" }));
    await expect(page.getByText("fed 210 L/h").first()).toBeVisible();
    expect(await storedJob(page, "marram")).toBe(before);
    await press(page, hand, page.getByRole("button", { name: "Redo" }));
    await expect(page.getByText("no way from a tank").first()).toBeVisible();
  });
}

test("a part is let into a hose, turned, replaced and taken out, and what moved shows before and after", async ({
  page,
}) => {
  await openMarram(page);
  await pick(page, "keyboard", /Hose from Vacuum gauge to Lift pump/);
  await choose(page, "mouse", /Let in a part/, "Check valve");
  await expect(page.getByRole("heading", { level: 2, name: "Check valve" })).toBeVisible();
  await expect(page.getByRole("status", { name: "Figures that moved" })).toContainText(/vacuum .* to/);
  await page.getByRole("button", { name: "Reverse its direction" }).click();
  await expect(page.getByRole("button", { name: /Check valve stands against the flow/ })).toBeVisible();
  await choose(page, "mouse", /Replace by/, "Vacuum gauge");
  await expect(page.getByRole("button", { name: /stands against the flow/ })).toHaveCount(0);
  await page.getByRole("button", { name: "Delete it from the plan" }).click();
  await expect(page.getByRole("status").filter({ hasText: "fed 210 L/h" })).toBeVisible();
});

test("a finding set aside keeps its reason, and a reading implies a loading", async ({ page }) => {
  await openMarram(page, "care");
  await page.getByRole("button", { name: /Day tank drains/ }).click();
  await page.getByRole("button", { name: "Set aside…" }).click();
  await fill(page.getByLabel("Reason"), "Valve on order");
  await page.getByRole("button", { name: "Set aside", exact: true }).click();
  await expect(page.getByText("Set aside: Valve on order")).toBeVisible();
  await fill(page.getByRole("textbox", { name: "Vacuum gauge, vacuum" }), "4 inHg");
  await page.getByRole("button", { name: "Enter in the log" }).click();
  await expect(page.getByRole("cell", { name: "13.5 kPa" })).toBeVisible();
  await expect(
    page.getByRole("cell", { name: /Separator 1 clogged: its medium takes/ }).first(),
  ).toBeVisible();
});

test("joints are ticked dry with their time, and the tick is there after a reload", async ({ page }) => {
  await openMarram(page, "install");
  await page.getByRole("tab", { name: "Leak test" }).click();
  await page.getByRole("button", { name: "Port wing, supply: dry" }).click();
  await expect(page.getByText(/: 1 of \d+ joints dry/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/: 1 of \d+ joints dry/)).toBeVisible();
});

test("a line-up is saved for EPANET, and limits and schools are the user's to change", async ({ page }) => {
  await openMarram(page);
  await page.getByRole("button", { name: "Line-ups…" }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save the network file (.inp)" }).click(),
  ]);
  expect(readFileSync(await download.path(), "utf8")).toContain("[RESERVOIRS]");
  await page.goto("/job/marram/survey?part=fuel");
  await fill(page.getByRole("textbox", { name: "Suction at which to change" }), "1 inHg");
  await expect(page.getByRole("button", { name: /Lift pump: .* of vacuum, limit 3.39 kPa/ })).toBeVisible();
  await choose(page, "mouse", /Shut-off at the tank by/, "ISO 10088");
  await page.getByRole("button", { name: /Day tank drains/ }).click();
  await expect(page.getByText("common practice, ISO 10088 school")).toBeVisible();
});
