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
  async part(kind, name) {
    await this.choose(/^(Add a part|Let in a part)/, kind);
    if (name) await this.named(name);
  }
  /** Two taps on the drawing. */
  async join(from, to) {
    await this.click(this.page.getByRole("button", { name: `Join from ${from}`, exact: true }));
    await this.click(this.page.getByRole("button", { name: `Join to ${to}`, exact: true }));
    await this.page.waitForTimeout(700);
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

const builds = {
  "two-tank cruiser, two selectors, two filters, vacuum gauge": async (page, address) => {
    const hand = await begun(page, address, "Cruiser");
    for (const name of ["Port tank", "Starboard tank"]) {
      await hand.press("Add tank");
      await hand.named(name);
    }
    await hand.press("Add engine");
    for (const [kind, name] of [
      ["Selector valve", "Supply"],
      ["Selector valve", "Return"],
      ["Filter or separator", "Separator"],
      ["Vacuum gauge"],
      ["Lift pump"],
      ["Filter or separator", "Fine filter"],
    ])
      await hand.part(kind, name);
    for (const [from, to] of [
      ["Port tank, supply", "Supply, way 1"],
      ["Starboard tank, supply", "Supply, way 2"],
      ["Supply, common", "Separator, in"],
      ["Separator, out", "Vacuum gauge, one side"],
      ["Vacuum gauge, other side", "Lift pump, in"],
      ["Lift pump, out", "Fine filter, in"],
      ["Fine filter, out", "Engine, feed"],
      ["Engine, return", "Return, common"],
      ["Return, way 1", "Port tank, return"],
      ["Return, way 2", "Starboard tank, return"],
    ])
      await hand.join(from, to);
    return hand;
  },
};

await withBrowser(14, async (browser, address) => {
  for (const [name, build] of Object.entries(builds)) {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    page.setDefaultTimeout(15_000);
    const hand = await build(page, address);
    const built = hand.actions;
    await hand.press("Line-ups…");
    await hand.press("New line-up");
    await page.keyboard.press("Escape");
    hand.actions++;
    await page.waitForTimeout(3000);
    const stops = await page
      .getByRole("button", { name: /^Findings: / })
      .getAttribute("aria-label")
      .catch(() => "no findings");
    const said = await page.locator("#place").getByRole("status").allTextContents();
    console.log(
      `${name}: ${built} actions to build, ${hand.actions} to a line-up. ${said.filter(Boolean).join(" ")} ${stops}`,
    );
    await page.close();
  }
});
