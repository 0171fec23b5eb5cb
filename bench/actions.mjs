/**
 * What a first plan costs the hand: the real interface is driven from 'New job' to a line-up that is proved without a Stop,
 * and each click, choice and typed figure is counted.
 */
import { withBrowser } from "./browser.mjs";

/** A hand that counts: a choice in a list is two, a name typed is one. */
class Hand {
  actions = 0;
  constructor(page) {
    this.page = page;
  }
  async click(target) {
    await target.click();
    this.actions++;
  }
  button = (name, exact = true) => this.page.getByRole("button", { name, exact });
  async press(name) {
    await this.click(this.button(name).first());
  }
  async choose(label, option) {
    await this.press(label);
    await this.click(this.page.getByRole("option", { name: option, exact: true }));
  }
  async type(label, text) {
    const field = this.page.getByRole("textbox", { name: label, exact: true }).first();
    await field.fill(text);
    await field.press("Enter");
    this.actions++;
  }
  async named(name) {
    // A person sees whose name it is first.
    await this.page.waitForTimeout(700);
    await this.type("Name", name);
  }
  /** Chooses what is drawn. */
  async pick(name) {
    await this.click(this.page.locator("[data-drawing]").getByRole("button", { name }).first());
  }
  /** Adds something where the hand points: at what is chosen, or at what was just added. */
  async part(kind, name) {
    await this.press("Add a part");
    await this.click(this.page.getByRole("option", { name: kind, exact: true }));
    await this.page.waitForTimeout(500);
    if (name) await this.named(name);
  }
  /** Two taps on the drawing. */
  async join(from, to) {
    await this.click(this.page.getByRole("button", { name: `Join from ${from}`, exact: true }));
    await this.click(this.page.getByRole("button", { name: `Join to ${to}`, exact: true }));
    await this.page.waitForTimeout(500);
  }
  /** A line-up for what is asked; what is proposed first takes no choice. */
  async lineUp(tank) {
    await this.press("Line-ups…");
    if (tank) await this.choose(/^(.* )?From/, tank);
    await this.click(this.page.getByRole("button", { name: /^New line-up: / }));
    await this.page.waitForTimeout(600);
  }
}

async function begun(page, address, name) {
  const hand = new Hand(page);
  await page.goto(address);
  await hand.press("New job");
  await hand.named(name);
  await hand.press("Start");
  await page.getByText("Nothing is laid out yet.").waitFor();
  return hand;
}
const tank = async (hand, name) => {
  await hand.press("Add tank");
  await hand.named(name);
};

/** By what was counted before the drawing was joined by hand, where it was. */
const builds = {
  "two-tank cruiser: two selectors, two pumps, two filters, vacuum gauge (80, 119 with line-ups)": async (
    page,
    address,
  ) => {
    const hand = await begun(page, address, "Cruiser");
    await hand.press("Add engine");
    await tank(hand, "Starboard tank");
    await tank(hand, "Port tank");
    for (const kind of [
      "Selector valve",
      "Filter or separator",
      "Vacuum gauge",
      "Lift pump",
      "Lift pump",
      "Filter or separator",
    ])
      await hand.part(kind);
    await hand.join("Separator 2, out", "Engine, feed");
    await hand.join("Starboard tank, supply", "Selector, way 2");
    await hand.pick(/^Engine/);
    await hand.part("Selector valve", "Return");
    await hand.join("Return, way 1", "Port tank, return");
    await hand.join("Return, way 2", "Starboard tank, return");
    await hand.lineUp();
    await hand.lineUp();
    return hand;
  },
  "gravity auxiliary: stripping tube, priming pump with bypass (168)": async (page, address) => {
    const hand = await begun(page, address, "Auxiliary");
    await hand.press("Add engine");
    await hand.part("Filter or separator");
    await tank(hand, "Header tank");
    await hand.choose(/Add an outlet or return/, "Stripping tube, to the lowest point");
    await hand.part("Two-way valve");
    await hand.part("Priming pump with bypass");
    await hand.join("Priming pump, out", "Separator, in");
    await hand.join("Engine, return", "Header tank, return");
    await hand.lineUp();
    return hand;
  },
  "petrol outboard: bulb, twin-port separator (40 for a portable tank)": async (page, address) => {
    const hand = await begun(page, address, "Outboard");
    await hand.press("Add engine");
    await hand.click(page.getByRole("button", { name: /Its figures/ }));
    await hand.click(page.getByText("No return: it burns all it is fed"));
    await tank(hand, "Portable tank");
    await hand.part("Primer bulb");
    await hand.part("Filter or separator");
    await hand.join("Separator, out", "Engine, feed");
    await hand.lineUp();
    return hand;
  },
  "sump truck: pump unit (58)": async (page, address) => {
    const hand = await begun(page, address, "Truck");
    await hand.press("Add engine");
    await tank(hand, "Frame tank");
    await hand.choose(/Add an outlet or return/, "Sump with its outlet");
    await hand.part("Two-way valve");
    await hand.part("Pump and filter unit");
    await hand.part("Filter or separator");
    await hand.join("Separator, out", "Engine, feed");
    await hand.join("Engine, return", "Frame tank, return");
    await hand.lineUp();
    return hand;
  },
  "van heater on its own tank": async (page, address) => {
    const hand = await begun(page, address, "Van");
    await tank(hand, "Heater tank");
    await hand.part("Dosing pump");
    await hand.part("Heater");
    await hand.lineUp();
    return hand;
  },
  "van heater on the vehicle's tank": async (page, address) => {
    const hand = await begun(page, address, "Van");
    await tank(hand, "Vehicle tank");
    await hand.choose(/Add an outlet or return/, "Standpipe, above a reserve");
    await hand.pick(/^Tank Vehicle/);
    await hand.part("Dosing pump");
    await hand.part("Heater");
    await hand.lineUp();
    return hand;
  },
};

await withBrowser(14, async (browser, address) => {
  for (const [name, build] of Object.entries(builds)) {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    page.setDefaultTimeout(8000);
    try {
      const hand = await build(page, address);
      await page.waitForTimeout(3000);
      const stops = await page
        .getByRole("button", { name: /^Findings: / })
        .getAttribute("aria-label")
        .catch(() => "no findings");
      const said = await page.locator("#place").getByRole("status").allTextContents();
      console.log(`${name}: ${hand.actions} actions. ${said.filter(Boolean).join(" ")}. ${stops}`);
    } catch (error) {
      console.log(`${name}: not built. ${String(error).split("\n").slice(0, 3).join(" ")}`);
      if (process.env.SHOT) await page.screenshot({ path: process.env.SHOT });
    }
    await page.close();
  }
});
