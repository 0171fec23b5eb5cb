/** The pictures in docs/screenshots, made from the demo data: `npm run build && npm run shots`. */
import { mkdirSync } from "node:fs";
import { openMarram, withBrowser } from "../bench/browser.mjs";

mkdirSync("docs/screenshots", { recursive: true });
const places = ["survey", "layout", "prove", "fit", "parts", "install", "bleed", "care"];

async function shoot(
  browser,
  address,
  { name, job = "marram", title = "Marram", place, scheme = "light", width = 1280, height = 800, before },
) {
  const context = await browser.newContext({
    viewport: { width, height },
    colorScheme: scheme,
    reducedMotion: "reduce",
  });
  const page = await context.newPage();
  await openMarram(page, address);
  if (place) {
    await page.goto(`${address}/job/${job}/${place}`);
    await page.getByRole("heading", { level: 1, name: title, exact: true }).waitFor();
    await page.waitForTimeout(1500);
  }
  await before?.(page);
  await page.waitForTimeout(300);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  await context.close();
}

const loadFilter = async (page) => {
  await page.getByRole("slider", { name: "Filter clogging" }).focus();
  for (let i = 0; i < 65; i++) await page.keyboard.press("ArrowRight");
  await page.locator("#keel").getByRole("button", { name: "Separator 1", exact: true }).click();
};
const chooseJoint = (page) =>
  page
    .getByRole("list", { name: "Joints" })
    .getByRole("button", { name: /Engine, feed/ })
    .click();
/** A bleed half way: one separator filled, the pump's outlet open, the key pressed. */
const bleedSome = async (page) => {
  await page.getByText(/^Ends with/).waitFor();
  await page.getByRole("button", { name: "Practise" }).click();
  const jug = page.locator("#place").getByRole("button", { name: "Separator 1", exact: true });
  for (let i = 0; i < 8; i++) await jug.click();
  await page.getByRole("button", { name: "Lift pump, outlet joint: shut" }).click();
  for (let i = 0; i < 2; i++) await page.getByRole("button", { name: "+¼ turn" }).click();
  const press = page.getByRole("button", { name: "Press: Lift pump" });
  await press.click();
  await press.waitFor();
  await press.click();
  await page.waitForTimeout(1500);
};
const chooseSeparator = (page) =>
  page.locator("#keel").getByRole("button", { name: "Separator 1", exact: true }).click();

await withBrowser(20, async (browser, address) => {
  const told = async (page) => {
    for (let i = 0; i < 3; i++)
      await page
        .getByText(/Next due/)
        .nth(i)
        .waitFor();
  };
  await shoot(browser, address, { name: "jobs", before: told });
  for (const place of places) {
    // The truck's joints are known: one of them screws together and does not seal.
    if (place === "parts") {
      const job = { job: "unit12", title: "Unit 12" };
      await shoot(browser, address, { name: place, place, ...job, before: chooseJoint });
      continue;
    }
    const before = { prove: loadFilter, layout: chooseSeparator, bleed: bleedSome }[place];
    await shoot(browser, address, { name: place, place, before });
  }
  const tab = (name) => (page) => page.getByRole("tab", { name, exact: true }).click();
  const tilted = async (page) => {
    await page.getByRole("slider", { name: "Roll" }).focus();
    for (let i = 0; i < 20; i++) await page.keyboard.press("ArrowRight");
    await tab("Pickup")(page);
    await page.locator("#place").evaluate((place) => place.scrollTo(0, 0));
  };
  const plate = async (page) => {
    await page
      .getByRole("button", { name: /^Day tank/ })
      .first()
      .click();
    await tab("Opening")(page);
  };
  await shoot(browser, address, { name: "survey-pickup", place: "survey", before: tilted });
  await shoot(browser, address, { name: "survey-opening", place: "survey", scheme: "dark", before: plate });
  await shoot(browser, address, { name: "survey-samples", place: "survey", before: tab("Samples") });
  await shoot(browser, address, { name: "survey-narrow", place: "survey", width: 390, height: 844 });
  await shoot(browser, address, {
    name: "layout-night",
    place: "layout",
    scheme: "dark",
    before: chooseSeparator,
  });
  const against = async (page) => {
    await page.getByRole("button", { name: "Plans…" }).click();
    await page.getByRole("button", { name: /Hold against/ }).click();
    await page.getByRole("option", { name: /Vehicle/ }).click();
    await page.keyboard.press("Escape");
    await page.waitForTimeout(1200);
  };
  const traced = async (page) => {
    await page.getByRole("button", { name: "In the vehicle" }).click();
    await page.getByRole("button", { name: "Return cooler to Frame tank", exact: true }).first().focus();
    await page.keyboard.press("Enter");
    await page.getByRole("button", { name: "Trace its way" }).click();
    await page
      .getByRole("button", { name: /^Point 1 from/ })
      .first()
      .focus();
    for (let i = 0; i < 2; i++) await page.keyboard.press("Shift+ArrowUp");
    // The figures beside it follow a moment later.
    await page.waitForTimeout(1500);
  };
  const van = { job: "van", title: "The reading van" };
  const truck = { job: "unit12", title: "Unit 12" };
  await shoot(browser, address, { name: "layout-plans", ...van, place: "layout", before: against });
  await shoot(browser, address, { name: "layout-vehicle", ...truck, place: "layout", before: traced });
  await shoot(browser, address, {
    name: "prove-time",
    ...truck,
    place: "prove?part=time",
    before: (page) => page.waitForTimeout(1500),
  });
  await shoot(browser, address, { name: "layout-narrow", place: "layout", width: 390, height: 844 });
  await shoot(browser, address, {
    name: "prove-tablet",
    place: "prove",
    width: 768,
    height: 1024,
    before: loadFilter,
  });
});
