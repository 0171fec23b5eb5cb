import { choose, fill, openDemo, setSlider, unfold } from "./helpers";
import { expect, expectAccessible, faultsOf, setScheme, test } from "./test";

const ways = ["worst", "time", "sizes", "pumps", "circuits", "leaks"];

for (const [id, scheme, width] of [
  ["unit12", "day", 1280],
  ["van", "night", 768],
] as const) {
  test(`${id}: every way of proving reads whole, without an accessibility fault, at ${width} wide by ${scheme}`, async ({
    page,
  }) => {
    test.slow();
    await page.setViewportSize({ width, height: 900 });
    const faults = faultsOf(page);
    for (const way of ways) {
      await openDemo(page, id, `prove?part=${way}`);
      await setScheme(page, scheme);
      await expect(page.getByRole("tabpanel")).not.toBeEmpty();
      await expect(page.getByText("Drawing…")).toHaveCount(0);
      await page.waitForTimeout(300);
      await expectAccessible(page, "#place");
    }
    expect(faults).toEqual([]);
  });
}

test("a duty is run over time, its event is found, the Keel follows the scrubbed moment, and a step is changed by keys", async ({
  page,
}) => {
  await openDemo(page, "unit12", "prove?part=time");
  const told = page.getByRole("status").filter({ hasText: "burned in" });
  await expect(told).toContainText("205 L burned in 6:45 h");
  await expect(told).toContainText("3:22: Frame tank: mouth comes clear");
  const keel = page.locator("#keel");
  await page.getByRole("button", { name: /^3:30 Run and transfer/ }).click();
  await expect(page.getByRole("button", { name: /Run and transfer/ }).first()).toBeVisible();
  await expect(page.getByText("Explored, not kept")).toBeVisible();
  await setSlider(page, "Moment shown on the Keel", "ArrowLeft", 10);
  await expect(keel).toHaveAttribute("data-state", "solved");
  await page.getByRole("button", { name: "Back to stored" }).click();
  // Half an hour less of the hard work: the sum falls, and undo brings it back.
  await page.getByRole("button", { name: /^Run, 2.5 h at 85 % load/ }).focus();
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("ArrowLeft");
  await expect(told).toContainText("burned in 6:15 h");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(told).toContainText("burned in 6:45 h");
  await fill(page.getByRole("textbox", { name: "Load" }), "0 %");
  await expect(told).not.toContainText("205 L");
});

test("a larger filter is put in from the sizes, and the margin moves by what was told", async ({ page }) => {
  await openDemo(page, "unit12", "prove?part=sizes");
  const row = page.getByRole("row", { name: /^Separator 340/ });
  await expect(row).toContainText("0.115 kPa");
  await expect(row).toContainText("4.9 kPa");
  await row.getByRole("button", { name: "Put in 500 L/h" }).click();
  await expect(page.getByRole("row", { name: /^Separator 500/ })).toContainText(/5\.0\d kPa/);
});

test("a leak that weeps overnight but not running is looked for where it stands under the tank's head", async ({
  page,
}) => {
  await openDemo(page, "unit12", "prove?part=leaks");
  await choose(page, "mouse", /Seen: running/, "air comes in");
  await choose(page, "mouse", /Seen: stopped overnight/, "fuel weeps");
  await expect(page.getByRole("row").nth(1)).toContainText("100 %");
  await expect(page.getByRole("row").nth(1)).toContainText(/vacuum .*pressure/);
});

test("a circuit's fuse is changed at the pump and the wiring list answers", async ({ page }) => {
  await openDemo(page, "unit12", "prove?part=circuits");
  const row = page.getByRole("row", { name: /^Frame pump/ });
  await expect(row).toContainText("needs a relay");
  await row.getByRole("button", { name: "Frame pump" }).click();
  await unfold(page, /Its figures/);
  await page.getByText("Its circuit").click();
  await page.getByText("Over a relay, with a fused supply of its own").click();
  await expect(row).toContainText("over a relay");
  await expect(page.getByRole("button", { name: /Frame pump draws 7.5 A/ })).toHaveCount(0);
});

test("a level slider stays under the hand when the mouth comes clear", async ({ page }) => {
  await openDemo(page, "unit12", "prove");
  const level = page.getByRole("slider", { name: "Frame tank level" });
  await level.focus();
  await page.keyboard.press("Home");
  await expect(page.getByRole("status", { name: "Verdict" })).not.toContainText("fed");
  await expect(level).toBeFocused();
  await page.keyboard.press("End");
  await expect(page.getByRole("status", { name: "Verdict" })).toContainText("fed");
});
