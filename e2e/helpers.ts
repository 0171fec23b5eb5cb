import type { Download, Locator, Page } from "@playwright/test";
import { expect } from "./test";

/** How a journey goes: with the mouse, or with the keyboard alone. */
export type Hand = "mouse" | "keyboard";

const demoNames = { marram: "Marram", unit12: "Unit 12", van: "The reading van" } as const;

/** Opens one of the demo jobs at a place. */
export async function openDemo(page: Page, id: keyof typeof demoNames, place = "layout"): Promise<void> {
  await page.goto(`/job/${id}/${place}`);
  await expect(page.getByRole("heading", { level: 1, name: demoNames[id], exact: true })).toBeVisible();
}

export const openMarram = (page: Page, place?: string) => openDemo(page, "marram", place);

/** Saves a job from the list as a file; the dialog says what it will weigh before it is written. */
export async function saveFile(page: Page, hand: Hand, name: string): Promise<Download> {
  await press(page, hand, page.getByRole("button", { name: `Save ${name} as a file` }));
  const save = page.getByRole("dialog").getByRole("button", { name: /^Save the file, \d+ kB/ });
  const [download] = await Promise.all([page.waitForEvent("download"), press(page, hand, save)]);
  return download;
}

export async function press(page: Page, hand: Hand, target: Locator): Promise<void> {
  if (hand === "mouse") return target.click();
  await target.focus();
  await page.keyboard.press("Enter");
}

/** Chooses in a list that opens from a button. */
export async function choose(
  page: Page,
  hand: Hand,
  label: string | RegExp,
  option: string | RegExp,
): Promise<void> {
  await press(page, hand, page.getByRole("button", { name: label }).first());
  const target = page.getByRole("option", { name: option }).first();
  await expect(target).toBeVisible();
  if (hand === "mouse") await target.click();
  else {
    const id = await target.getAttribute("data-key");
    const at = () =>
      page.evaluate(() => {
        const active = document.activeElement;
        // In a list that is sought by typing the focus stays in the field, which points at the option.
        const points = active?.getAttribute("aria-activedescendant");
        return (points ? document.getElementById(points) : active)?.getAttribute("data-key") ?? null;
      });
    for (let tries = 0; tries < 60; tries++) {
      const now = await at();
      if (now === id) break;
      await page.keyboard.press("ArrowDown");
      // The next is marked a moment later: a hand that looks waits for it.
      await expect.poll(at).not.toBe(now);
    }
    await page.keyboard.press("Enter");
  }
  await expect(page.getByRole("listbox")).toHaveCount(0);
}

/** Opens what is folded beside the drawing, where it is folded. */
export async function unfold(page: Page, title: RegExp): Promise<void> {
  const head = page.getByRole("button", { name: title });
  if ((await head.getAttribute("aria-expanded")) === "false") await head.click();
}

/** Types into a field and keeps it with Enter. */
export async function fill(field: Locator, text: string): Promise<void> {
  await field.fill(text);
  await field.press("Enter");
}

export async function setSlider(
  page: Page,
  name: string | RegExp,
  key: string,
  times: number,
): Promise<void> {
  await page.getByRole("slider", { name }).focus();
  for (let i = 0; i < times; i++) await page.keyboard.press(key);
}

/** Reads a job as it is stored, its text stable for comparison. */
export async function storedJob(page: Page, id: string): Promise<string> {
  return page.evaluate(
    (jobId) =>
      new Promise<string>((resolve, reject) => {
        const open = indexedDB.open("iron-keel");
        open.onerror = () => reject(open.error);
        open.onsuccess = () => {
          const get = open.result.transaction("documents").objectStore("documents").get(jobId);
          get.onsuccess = () => {
            open.result.close();
            resolve(JSON.stringify((get.result as { doc?: unknown })?.doc ?? null));
          };
          get.onerror = () => reject(get.error);
        };
      }),
    id,
  );
}
