/** How the command line is called: what is not understood is said, with a status by what was wrong. */
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, test } from "@jest/globals";
import { keel } from "./called";

const folder = mkdtempSync(join(tmpdir(), "verbs-"));
afterAll(() => rmSync(folder, { recursive: true }));
const MARRAM = "demo/marram.keel.json";
const written = (name: string, value: unknown) => {
  const path = join(folder, name);
  writeFileSync(path, JSON.stringify(value));
  return path;
};

describe("a call", () => {
  test.each([
    ["a flag that is not the verb's", ["dip", MARRAM, "--tank", "dayTank", "--rol", "5"], 2, "--rol"],
    ["a flag without its value", ["dip", MARRAM, "--tank"], 2, "--tank"],
    ["a file too many", ["check", MARRAM, MARRAM], 2, "one file too many"],
    ["a line-up that is not there", ["bleed", MARRAM, "--lineup", "none"], 2, "runPort"],
    ["a file that is not there", ["check", "none.keel.json"], 3, "there is no such file"],
    ["a file that is a folder", ["check", "demo"], 3, "cannot be read"],
    ["a file that is no job", ["check", "package.json"], 1, "package.json"],
    ["a verb that is none", ["toString", MARRAM], 2, "no verb 'toString'"],
  ])("with %s is refused and says what", async (_, args, status, words) => {
    const said = await keel(args);
    expect([said.status, said.out]).toEqual([status, ""]);
    expect(said.err).toContain(words);
    expect(said.err).not.toMatch(/\bat .*keel\.js/);
  });

  test("for help is answered, of all and of one verb", async () => {
    expect(await keel(["--help"])).toMatchObject({ status: 0, out: expect.stringContaining("service") });
    expect(await keel(["dip", "--help"])).toMatchObject({
      status: 0,
      out: expect.stringContaining("[--roll DEG]"),
    });
  });

  test("takes a value that begins with a minus", async () => {
    const at = async (roll: string) =>
      JSON.parse((await keel(["dip", MARRAM, "--tank", "dayTank", "--roll", roll])).out);
    expect((await at("-5")).rollDeg).toBe(-5);
  });
});

describe("edit", () => {
  const rename = { name: "rename", jobName: "Tern" };
  test("makes edits in their order, and hands the job on", async () => {
    const commands = written("c.json", [rename, { name: "removePart", id: "lift" }]);
    const job = JSON.parse((await keel(["edit", MARRAM, "--commands", commands])).out).job;
    expect(job.name).toBe("Tern");
    expect(JSON.stringify(job.plans[0].parts)).not.toContain('"id":"lift"');
    const then = await keel(["edit", MARRAM, "--commands", commands, "--then", "check"]);
    expect(JSON.parse(then.out)).toMatchObject({ faults: [] });
  });

  test.each([
    ["no edit of that name", [rename, { name: "constructor" }], "commands[1]"],
    ["a part that is not there", [{ name: "removePart", id: "none" }], "commands[0] (removePart)"],
    ["another form", [{ name: "connect", id: "x" }], "commands[0] (connect)"],
    ["a figure out of its bounds", [{ name: "editPart", id: "lift", change: { boreM: -1 } }], "boreM"],
  ])("of %s is refused with its place", async (_, commands, place) => {
    const said = await keel(["edit", MARRAM, "--commands", written("bad.json", commands)]);
    expect([said.status, said.out]).toEqual([1, ""]);
    expect(said.err).toContain(place);
  });
});

describe("service", () => {
  const steps = async (
    file: string,
    element: string,
  ): Promise<{ verb: string; of: string[]; words: string; turns?: number }[]> =>
    JSON.parse((await keel(["service", file, "--element", element])).out).steps;

  test("on the road opens no hatch and shuts no valve that is not there; afloat the hatch comes first", async () => {
    const truck = (await steps("demo/unit-12.keel.json", "sep")).map(({ verb }) => verb);
    expect(truck).not.toContain("hatchOff");
    expect((await steps(MARRAM, "second"))[0]?.verb).toBe("hatchOff");
  });

  test("says how far an element is spun on, and names the valve", async () => {
    const boat = await steps(MARRAM, "second");
    expect(boat.find(({ verb }) => verb === "element")).toMatchObject({ turns: 0.75 });
    const shut = boat.find(({ verb }) => verb === "shutOff");
    if (shut) expect(shut.words).toMatch(/: \w+/);
    expect(await keel(["service", MARRAM, "--element", "none"])).toMatchObject({ status: 2 });
  });
});
