/**
 * What much costs in the real browser: a book of 20,000 entries, 500 pictures of 3 MB in and out, 998 parts in each
 * place, 200 jobs restored. Memory is the proportional set size of all of the browser's processes (proc(5)), peak while
 * it works; each figure stands beside the same with little in it, from the same run.
 */
import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { withBrowser } from "./browser.mjs";

const only = process.argv.slice(2);
const wants = (name) => only.length === 0 || only.includes(name);
const PICTURES = Number(process.env.PICTURES ?? 500);
const PICTURE_BYTES = 3_000_000;
const ENTRIES = 20_000;
const PARTS = 998;
const JOBS = 200;
const LONG_MS = 120_000;

const folder = mkdtempSync(join(tmpdir(), "keel-weight-"));
const file = JSON.parse(readFileSync("demo/marram.keel.json", "utf8"));
const written = (name, value) => {
  const path = join(folder, name);
  writeFileSync(path, JSON.stringify(value));
  return path;
};

/** Proportional set size of a process and all that it started, MB. */
function memoryMb(root) {
  const parents = new Map();
  for (const pid of readdirSync("/proc").filter((name) => /^\d+$/.test(name)))
    try {
      parents.set(pid, /\) \S (\d+)/.exec(readFileSync(`/proc/${pid}/stat`, "utf8"))[1]);
    } catch {
      // It ended meanwhile.
    }
  const isOwn = (pid) => pid === String(root) || (parents.has(pid) && isOwn(parents.get(pid)));
  let kb = 0;
  for (const pid of parents.keys())
    if (isOwn(pid))
      try {
        kb += Number(/^Pss:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, "utf8"))[1]);
      } catch {
        // It ended meanwhile.
      }
  return kb / 1000;
}

/** Runs work, and tells its seconds and how far the browser's memory rose over what it was. */
async function measured(root, work) {
  const before = memoryMb(root);
  let peak = before;
  const timer = setInterval(() => (peak = Math.max(peak, memoryMb(root))), 100);
  const began = performance.now();
  try {
    await work();
  } finally {
    clearInterval(timer);
  }
  return { seconds: (performance.now() - began) / 1000, roseMb: peak - before };
}
const told = ({ seconds, roseMb }) => `${seconds.toFixed(1)} s, memory up by ${roseMb.toFixed(0)} MB`;

const open = async (page, address, path, name) => {
  await page.goto(address);
  await page.getByRole("button", { name: "Open a file…" }).click();
  await page.locator("#jobFile").setInputFiles(path);
  await page.getByRole("link", { name }).waitFor({ timeout: LONG_MS });
};

/** A ZIP with pictures that are stored, written by another program. */
function zipWithPictures(count) {
  const [photo] = file.book;
  const base = { planId: photo.planId, planHash: photo.planHash };
  const photos = Array.from({ length: count }, (_, i) => ({
    kind: "photo",
    id: `ph${i}`,
    at: new Date(Date.UTC(2026, 0, 1, 0, i)).toISOString(),
    ...base,
    ofId: "lift",
    note: "",
    pictureId: `ph${i}`,
  }));
  const job = { ...file.job, id: `pics${count}`, name: `Pictures ${count}` };
  const path = written(`pics${count}.json`, { ...file, job, book: [...file.book, ...photos] });
  const zip = join(folder, `pics${count}.keel.zip`);
  const script = `
import sys,zipfile,os
z=zipfile.ZipFile(sys.argv[2],"w")
z.write(sys.argv[1],"job.keel.json",zipfile.ZIP_DEFLATED)
body=os.urandom(${PICTURE_BYTES})
for i in range(${count}): z.writestr("pictures/ph%d.jpg"%i, body[i:]+body[:i])
z.close()`;
  execFileSync("python3", ["-c", script, path, zip]);
  return zip;
}

try {
  const work = async (context, address) => {
    // The browser is this process's only child that has children of its own but for the server.
    const root = process.pid;
    const page = await context.newPage();
    await page.goto(address);
    await page.getByRole("link", { name: /^Marram 10/ }).waitFor();
    page.setDefaultTimeout(LONG_MS);

    if (wants("pictures"))
      for (const count of [5, PICTURES]) {
        const zip = zipWithPictures(count);
        const into = await measured(root, () => open(page, address, zip, new RegExp(`^Pictures ${count} `)));
        console.log(`${count} pictures of 3 MB in: ${told(into)}`);
        await page.goto(`${address}/job/pics${count}/care`);
        await page.locator("#keel svg[role=img]").waitFor();
        const out = await measured(root, async () => {
          await page.keyboard.press("s");
          const come = page.waitForEvent("download", { timeout: LONG_MS });
          await page.getByRole("button", { name: /^Save with pictures/ }).click();
          const path = await (await come).path();
          execFileSync("python3", [
            "-c",
            "import sys,zipfile;assert zipfile.ZipFile(sys.argv[1]).testzip() is None",
            path,
          ]);
        });
        console.log(`${count} pictures of 3 MB out, and checked by another program: ${told(out)}`);
      }

    if (wants("book")) {
      const dip = file.book.find(({ kind }) => kind === "dip");
      for (const count of [20, ENTRIES]) {
        const book = Array.from({ length: count }, (_, i) => ({
          ...dip,
          id: `d${i}`,
          at: new Date(Date.UTC(2020, 0, 1, i)).toISOString(),
          depthM: 0.05 + (i % 100) / 1000,
        }));
        const job = { ...file.job, id: `book${count}`, name: `Book of ${count}` };
        await open(
          page,
          address,
          written(`book${count}.json`, { ...file, job, book }),
          new RegExp(`^Book of ${count} `),
        );
        for (const place of ["layout", "care"]) {
          await page.goto("about:blank");
          const opened = await measured(root, async () => {
            await page.goto(`${address}/job/book${count}/${place}`);
            await page.locator("#keel svg[role=img]").waitFor();
          });
          console.log(`book of ${count}, ${place} from the address to its Keel: ${told(opened)}`);
        }
        await page.goto("about:blank");
        const printed = await measured(root, async () => {
          await page.goto(`${address}/job/book${count}/print/log`);
          await page.locator("main table tbody tr, main li, article tr").first().waitFor();
        });
        console.log(`book of ${count}, its log to be printed: ${told(printed)}`);
      }
    }

    if (wants("parts"))
      for (const parts of [60, PARTS]) {
        const path = join(folder, `big${parts}.json`);
        execFileSync("npx", ["tsx", "bench/writeBigPlan.ts", path, String(parts)]);
        const value = JSON.parse(readFileSync(path, "utf8"));
        value.job.id = `big${parts}`;
        await open(page, address, written(`big${parts}.json`, value), new RegExp(`^Ladder of ${parts}`));
        const line = [];
        for (const place of ["survey", "layout", "prove", "fit", "parts", "install", "bleed", "care"]) {
          await page.goto("about:blank");
          const { seconds } = await measured(root, async () => {
            await page.goto(`${address}/job/big${parts}/${place}`);
            // Its Keel, which some places have folded to a line.
            await page.locator("#keel").waitFor();
            await page.evaluate(() => new Promise((done) => requestIdleCallback(done, { timeout: 60_000 })));
          });
          line.push(`${place} ${seconds.toFixed(1)}`);
        }
        console.log(
          `${parts} parts, each place from the address until the page rests, s: ${line.join(", ")}`,
        );
      }

    if (wants("jobs"))
      for (const count of [5, JOBS]) {
        const zip = join(folder, `all${count}.keel-all.zip`);
        const script = `
import sys,json,zipfile
job=json.load(open("demo/marram.keel.json"))
z=zipfile.ZipFile(sys.argv[1],"w",zipfile.ZIP_DEFLATED)
z.writestr("settings.json",json.dumps({"format":"iron-keel-all","version":job["version"],"settings":{}}))
for i in range(${count}):
  job["job"]["id"]="r${count}x%d"%i; job["job"]["name"]="Restored ${count} %d"%i
  z.writestr("jobs/r${count}x%d/job.keel.json"%i,json.dumps(job))
z.close()`;
        execFileSync("python3", ["-c", script, zip]);
        for (const how of ["new here", "replaced"]) {
          await page.goto(address);
          await page.getByRole("button", { name: "Save or restore everything…" }).click();
          const restored = await measured(root, async () => {
            await page.locator("#allFile").setInputFiles(zip);
            await page.getByRole("button", { name: "Restore", exact: true }).click();
            await page.getByText(`${count} jobs restored.`).waitFor();
          });
          console.log(`${count} jobs restored, ${how}: ${told(restored)}`);
        }
      }
  };
  await withBrowser(13, work, join(folder, "profile"));
} finally {
  rmSync(folder, { recursive: true });
}
