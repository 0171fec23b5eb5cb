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
  async start(name) {
    const field = this.page.getByRole("textbox", { name: "Name" });
    await field.waitFor();
    await field.fill(name);
    this.actions++;
    await this.press("Start");
  }
  /** An outlet or a return of the tank that is chosen. */
  async fitting(name) {
    await this.choose(/Add an outlet or return/, name);
  }
  /** Chooses what is drawn. */
  async pick(name) {
    await this.click(this.page.locator("[data-drawing]").getByRole("button", { name }).first());
  }
  /** Where joining leaves something else at hand. */
  async go(name) {
    await this.pick(name);
  }
  /** Adds something where the hand points: at what is chosen, or at what was just added. */
  async part(kind, name) {
    await this.press("Add a part");
    await this.click(this.page.getByRole("option", { name: kind, exact: true }));
    await this.page.waitForTimeout(500);
    if (name) await this.named(name);
  }
  /** Parts and joins one after the other, each where the one before left the hand. */
  async row(steps) {
    for (const step of steps) await (typeof step === "string" ? this.part(step) : this.join(...step));
  }
  /** Two taps on the drawing. */
  async join(from, to) {
    await this.click(this.page.getByRole("button", { name: `Join from ${from}`, exact: true }));
    await this.click(this.page.getByRole("button", { name: `Join to ${to}`, exact: true }));
    await this.page.waitForTimeout(500);
  }
  /** Another fuel than the diesel that a job begins with, and back to the drawing. */
  async fuel(grade) {
    await this.click(this.page.getByRole("link", { name: /Survey/ }));
    await this.click(this.page.getByRole("tab", { name: "Fuel and site" }));
    await this.choose(/Fuel$/, grade);
    await this.click(this.page.getByRole("link", { name: /Lay out/ }));
  }
  /** A line-up for what is asked; what is proposed first takes no choice. */
  async lineUp(tank) {
    await this.press("Line-ups…");
    if (tank) await this.choose(/^(.* )?From/, tank);
    await this.click(this.page.getByRole("button", { name: /^New line-up: / }));
    await this.page.waitForTimeout(600);
  }
}

/** By keys alone: Tab, arrows and the single keys of the place; every key is an action, a word typed is one. */
class Keys extends Hand {
  single = { "New job": "a", "Add a part": "a", "Line-ups…": "e", "Add tank": "t", "Add engine": "g" };
  async key(name) {
    await this.page.keyboard.press(name);
    this.actions++;
    await this.page.waitForTimeout(40);
  }
  async has(target) {
    if ((await target.count()) === 0) return false;
    return target
      .first()
      .evaluate(
        (one) =>
          one === document.activeElement ||
          (one.contains(document.activeElement) && document.activeElement.matches("input")),
      );
  }
  async reach(target, most = 60) {
    for (let i = 0; i < most; i++) {
      if (await this.has(target)) return;
      await this.key("Tab");
    }
    throw new Error(`no way by Tab to ${target}`);
  }
  /** A sheet or a list has the keys to itself; elsewhere a single key does what it says. */
  async press(name) {
    const key = this.single[name];
    const isAside = await this.page.getByRole("dialog").count();
    if (!key || isAside > 0) return super.press(name);
    if (await this.page.evaluate(() => document.activeElement?.matches("input, textarea")))
      await this.key("Escape");
    await this.key(key);
    await this.page.waitForTimeout(300);
  }
  async click(target) {
    await this.reach(target.first());
    await this.key("Enter");
  }
  async option(name, enter = "Enter") {
    await this.page.getByRole("option", { name }).first().waitFor();
    const search = this.page.getByRole("searchbox");
    if (await search.count()) {
      await search.waitFor();
      await this.page.keyboard.type(name);
      this.actions++;
      await this.page.waitForTimeout(200);
      await this.key(enter);
      return;
    }
    for (let i = 0; i < 40; i++) {
      if (await this.has(this.page.getByRole("option", { name, exact: true }))) break;
      await this.key("ArrowDown");
    }
    await this.key("Enter");
  }
  async choose(label, option) {
    await this.click(this.button(label));
    await this.option(option);
  }
  async type(label, text) {
    const field = this.page.getByRole("textbox", { name: label, exact: true }).first();
    if (
      !(await this.has(field)) &&
      (await this.page.evaluate(() => document.activeElement?.closest("[data-drawing]") !== null))
    )
      await this.key("F2");
    await this.reach(field);
    await this.page.keyboard.press("Control+a");
    await this.page.keyboard.type(text);
    this.actions++;
    await this.key("Enter");
    await this.page.waitForTimeout(150);
    const isTyping = await this.page.evaluate(() => document.activeElement?.matches("input"));
    if (isTyping && (await this.page.locator("#chosen").count())) await this.key("Escape");
  }
  /** From the palette. */
  async fuel(grade) {
    await this.key("Control+k");
    await this.option(`Fuel: ${grade}`);
    await this.page.waitForTimeout(400);
  }
  /** Enter in the name's field starts it. */
  async start(name) {
    await this.page.getByRole("textbox", { name: "Name" }).waitFor();
    await this.page.keyboard.press("Control+a");
    await this.page.keyboard.type(name);
    this.actions++;
    await this.key("Enter");
  }
  /** What a tank is given stands in the list of what is added. */
  async fitting(name) {
    await this.key("a");
    await this.option(name);
    await this.page.waitForTimeout(400);
  }
  /** From the palette, by its name. */
  async pick(name) {
    const sought = typeof name === "string" ? name : name.source.replace(/^\^(Tank )?/, "");
    await this.key("Control+k");
    await this.option(sought);
    await this.page.waitForTimeout(300);
  }
  async atHand() {
    return this.page.evaluate(
      () => document.activeElement?.closest("[data-drawing] [data-id]")?.getAttribute("aria-label") ?? "",
    );
  }
  async go(name) {
    if (!name.test(await this.atHand())) await this.pick(name);
  }
  async part(kind, name) {
    await this.press("Add a part");
    await this.option(kind);
    await this.page.waitForTimeout(500);
    if (name) await this.named(name);
  }
  /** The list stays open for the next one with Shift. */
  async row(steps) {
    await this.press("Add a part");
    for (const [i, step] of steps.entries()) {
      await this.option(
        typeof step === "string" ? step : step[1],
        i < steps.length - 1 ? "Shift+Enter" : "Enter",
      );
      await this.page.waitForTimeout(500);
    }
  }
  async join(from, to) {
    const [owner] = from.split(", ");
    if (!(await this.atHand()).includes(owner)) await this.pick(owner);
    await this.key("a");
    await this.option(to);
    await this.page.waitForTimeout(500);
  }
}

/** By taps on a phone: the outline stands for the drawing, and a sheet holds what is chosen. */
class Thumb extends Hand {
  async click(target) {
    await target.tap();
    this.actions++;
  }
  async shut() {
    const close = this.page.getByRole("button", { name: "Close", exact: true });
    if (await close.isVisible().catch(() => false)) await this.click(close);
  }
  async press(name) {
    if (["Add a part", "Add tank", "Add engine", "Line-ups…"].includes(name)) await this.shut();
    await super.press(name);
    await this.page.waitForTimeout(250);
  }
  async pick(name) {
    await this.shut();
    // A row says the name first; the drawing says what kind it is before it.
    const row = new RegExp(name.source.replace(/^\^Tank /, "^"));
    await this.click(this.page.locator("#place ol").getByRole("button", { name: row }).first());
    await this.page.waitForTimeout(300);
  }
  async named(name) {
    await this.page.waitForTimeout(500);
    if (!(await this.page.getByRole("textbox", { name: "Name", exact: true }).first().isVisible()))
      await this.click(this.page.locator('#place ol button[aria-pressed="true"]').first());
    await this.type("Name", name);
  }
  async choose(label, option) {
    await this.page.waitForTimeout(300);
    if (this.page.url().endsWith("layout") && !(await this.button(label).first().isVisible()))
      await this.click(this.page.locator('#place ol button[aria-pressed="true"]').first());
    await super.choose(label, option);
  }
  async join(from, to) {
    await this.shut();
    await this.click(this.button(`Open: ${from}`));
    await this.click(this.page.getByRole("option", { name: to }).first());
    await this.page.waitForTimeout(400);
  }
  async lineUp(tank) {
    await this.shut();
    await super.lineUp(tank);
  }
}
const hands = { mouse: Hand, keys: Keys, touch: Thumb };

async function begun(page, address, name) {
  const hand = new hands[by](page);
  await page.goto(address);
  await page.getByRole("link", { name: /^Marram 10/ }).waitFor();
  await hand.press("New job");
  await hand.start(name);
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
    await hand.row([
      "Selector valve",
      "Filter or separator",
      "Vacuum gauge",
      "Lift pump",
      "Lift pump",
      "Filter or separator",
      ["Separator 2, out", "Engine, feed"],
    ]);
    await hand.go(/^Engine/);
    await hand.part("Selector valve", "Return");
    await hand.row([
      ["Return, way 1", "Port tank, return"],
      ["Return, way 2", "Starboard tank, return"],
    ]);
    await hand.join("Starboard tank, supply", "Selector, way 2");
    await hand.lineUp();
    await hand.lineUp();
    return hand;
  },
  "gravity auxiliary: stripping tube, priming pump with bypass (168)": async (page, address) => {
    const hand = await begun(page, address, "Auxiliary");
    await hand.press("Add engine");
    await hand.part("Filter or separator");
    await tank(hand, "Header tank");
    await hand.row(["Two-way valve", "Priming pump with bypass", ["Priming pump, out", "Separator, in"]]);
    await hand.join("Engine, return", "Header tank, return");
    await hand.pick(/^Tank Header tank/);
    await hand.fitting("Stripping tube, to the lowest point");
    await hand.lineUp();
    return hand;
  },
  "petrol outboard: bulb, twin-port separator (40 for a portable tank)": async (page, address) => {
    const hand = await begun(page, address, "Outboard");
    await hand.fuel("EN 228");
    await hand.press("Add engine");
    await tank(hand, "Portable tank");
    await hand.row(["Primer bulb", "Twin-port separator", ["Separator, out", "Engine, feed"]]);
    await hand.lineUp();
    return hand;
  },
  "sump truck: pump unit (58)": async (page, address) => {
    const hand = await begun(page, address, "Truck");
    await hand.press("Add engine");
    await tank(hand, "Frame tank");
    await hand.fitting("Sump with its outlet");
    await hand.row([
      "Two-way valve",
      "Pump and filter unit",
      "Filter or separator",
      ["Separator, out", "Engine, feed"],
      ["Engine, return", "Frame tank, return"],
    ]);
    await hand.lineUp();
    return hand;
  },
  "van heater on its own tank": async (page, address) => {
    const hand = await begun(page, address, "Van");
    await tank(hand, "Heater tank");
    await hand.row(["Dosing pump", "Heater"]);
    await hand.lineUp();
    return hand;
  },
  "van heater on the vehicle's tank": async (page, address) => {
    const hand = await begun(page, address, "Van");
    await tank(hand, "Vehicle tank");
    await hand.fitting("Standpipe, above a reserve");
    await hand.pick(/^Tank Vehicle tank/);
    await hand.row(["Dosing pump", "Heater"]);
    await hand.lineUp();
    return hand;
  },
};

/** By mouse, by keys and by touch at 390 wide; or by the one that is named. */
let by = "mouse";
const wanted = process.argv[2] ? [process.argv[2]] : Object.keys(hands);
await withBrowser(14, async (browser, address) => {
  for (by of wanted)
    for (const [name, build] of Object.entries(builds)) {
      const page = await (
        await browser.newContext(
          by === "touch"
            ? { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true }
            : { viewport: { width: 1280, height: 800 } },
        )
      ).newPage();
      page.setDefaultTimeout(8000);
      try {
        const hand = await build(page, address);
        await page.waitForTimeout(3000);
        const stops = await page.getByRole("button", { name: /^Findings: / }).getAttribute("aria-label");
        const said = await page.locator("#place").getByRole("status").allTextContents();
        console.log(`${by}, ${name}: ${hand.actions} actions. ${said.filter(Boolean).join(" ")}. ${stops}`);
      } catch (error) {
        console.log(`${by}, ${name}: not built. ${String(error).split("\n").slice(0, 3).join(" ")}`);
      }
      await page.close();
    }
});
