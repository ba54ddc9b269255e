import { execFileSync, spawn, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { generateDemo } from "../../demo/generate";
import { writeDemoFiles } from "../../demo/write-files";

const dir = mkdtempSync(path.join(tmpdir(), "dry-arc-cli-"));
const file = (name: string, text: string | Uint8Array): string => {
  const at = path.join(dir, name);
  writeFileSync(at, text);
  return at;
};
const cli = (args: string[], input?: string) => {
  const r = spawnSync("node_modules/.bin/tsx", ["src/cli/main.ts", ...args], {
    encoding: "utf8",
    maxBuffer: 1e8,
    ...(input === undefined ? {} : { input }),
  });
  return { code: r.status, out: r.stdout, err: r.stderr };
};
const example = readFileSync("docs/examples/rope-walk.json", "utf8");
const changed = (fields: (p: Record<string, object>) => void): string => {
  const plan = JSON.parse(example) as Record<string, object>;
  fields(plan);
  return JSON.stringify(plan);
};
const HEAD = "id,path_m,near_mount_m,far_mount_m,near_radio,near_power_dbm,centre_mhz,width_mhz";
const ROW = "a,430,11,7.5,kittiwake-panel,11,5500,40";

afterAll(() => rmSync(dir, { recursive: true }));

describe("link", () => {
  test("the example comes out as the demo's Rope Walk: short by 1.8 m, named, with mends, a spread and explanations", () => {
    const r = cli(["link", "docs/examples/rope-walk.json"]);
    expect(r.code).toBe(0);
    const report = JSON.parse(r.out) as {
      result: { verdict: string; clearance: { worst: { ownerName: string; missM: number } } };
      findings: { code: string; mends: { code: string }[] }[];
      uncertainty: { draws: number };
      widths: unknown[];
      explanations: { text: string }[];
    };
    expect(report.result.verdict).toBe("short");
    expect(report.result.clearance.worst).toMatchObject({ ownerName: "Poplar row" });
    expect(report.result.clearance.worst.missM).toBeCloseTo(1.84, 1);
    expect(report.findings[0]!.mends.map((m) => m.code)).toContain("trim");
    expect([report.uncertainty.draws, report.widths.length]).toEqual([500, 3]);
    expect(report.explanations.every((e) => !/[{}]|NaN/.test(e.text))).toBe(true);
    // The same by standard input.
    expect(cli(["link", "-"], example).out).toBe(r.out);
  });

  test.each([
    ["cut off", () => example.slice(0, 300), /cut off|is not JSON/],
    ["of a newer version", () => changed((p) => Object.assign(p, { version: 2 })), /version 2; this program reads version 1/],
    ["with an unknown radio", () => changed((p) => Object.assign(p.near!, { radio: "petrel-9" })), /near\.radio: no radio "petrel-9"/],
    ["with a latitude of 95", () => changed((p) => Object.assign(p.far!, { latDeg: 95, lonDeg: 1 })), /far\.latDeg/],
    ["with a mast of -3 m", () => changed((p) => Object.assign(p.far!, { mountAglM: -3 })), /far\.mountAglM/],
    ["with a misspelt field", () => changed((p) => Object.assign(p, { centerMhz: 5500 })), /centerMhz/],
    [
      "with a profile that ends early",
      () => changed((p) => Object.assign(p, { pathM: 500 })),
      /ground\.profile: distances must run from 0 to the path's 500/,
    ],
    ["without rain", () => changed((p) => Object.assign(p, { climate: {} })), /climate: give rainRate001MmH, or rainZone/],
    ["of 900 km", () => changed((p) => Object.assign(p, { pathM: 900_000 })), /pathM/],
  ])("a plan %s is refused with one sentence and exit code 2", (name, make, words) => {
    const r = cli(["link", file(`${name.replaceAll(" ", "-")}.json`, make())]);
    expect(r.code).toBe(2);
    expect(r.out).toBe("");
    expect(r.err).toMatch(words);
    expect(r.err.trim().split("\n")).toHaveLength(1);
  });

  test("UTF-16, a missing file, an unknown command and a bad number are named", () => {
    expect(cli(["link", file("wide.json", Buffer.from(`\uFEFF${example}`, "utf16le"))]).err).toContain("UTF-16");
    expect(cli(["link", path.join(dir, "nowhere.json")]).err).toContain("does not exist");
    expect(cli(["draw", "x"])).toMatchObject({ code: 2, err: expect.stringContaining('no command "draw"') });
    expect(cli(["link", "docs/examples/rope-walk.json", "--draws", "many"]).err).toContain("--draws many");
    expect(cli(["batch", "docs/examples/links.csv", "--domain", "mars"])).toMatchObject({
      code: 2,
      err: expect.stringContaining("--domain mars"),
    });
    expect(cli(["batch", "docs/examples/links.csv", "--out", path.join(dir, "no/such/folder.csv")]).err).toContain(
      "cannot be written (ENOENT)",
    );
    expect(cli(["schema"]).out).toContain('"mountAglM"');
    const hardware = JSON.parse(cli(["schema", "hardware"]).out) as { properties: Record<string, { items: { properties: object } }> };
    expect(Object.keys(hardware.properties.parts!.items.properties)).toEqual(
      expect.arrayContaining(["ports", "cable", "surge", "battery"]),
    );
    expect(cli(["schema", "weather"]).err).toContain("plan or hardware is wanted");
  });
});

describe("terrain files", () => {
  const demo = generateDemo();
  const site = (key: string) => demo.sites.find((s) => s.key === key)!;
  const tif = path.join(dir, "merrow-30-m-survey.tif");
  beforeAll(() => void writeDemoFiles(demo, dir));
  const plan = (terrain: string, far = site("tarrow").position) =>
    changed((p) => {
      Object.assign(p, { pathM: undefined, obstacles: [], ground: { terrain } });
      Object.assign(p.near!, site("office").position);
      Object.assign(p.far!, { ...far, mountAglM: 8 });
    });

  test("a GeoTIFF gives the saddle's height, also out of GDAL's compressed integer tiles of another registration", () => {
    const whole = JSON.parse(cli(["link", file("far.json", plan(tif)), "--draws", "0"]).out) as {
      result: { clearance: { worst: { missM: number; atM: number } } };
    };
    expect(Math.abs(whole.result.clearance.worst.missM - 103)).toBeLessThan(4);
    expect(Math.abs(whole.result.clearance.worst.atM - 4937)).toBeLessThan(200);
    const tiled = path.join(dir, "tiled.tif");
    const more = ["-ot", "Int16", "-co", "TILED=YES", "-co", "COMPRESS=DEFLATE", "-mo", "AREA_OR_POINT=Area"];
    execFileSync("gdal_translate", ["-q", ...more, tif, tiled]);
    const again = JSON.parse(cli(["link", file("tiled.json", plan(tiled)), "--draws", "0"]).out) as typeof whole;
    // Whole metres, and half a metre more for a cell's registration.
    expect(Math.abs(again.result.clearance.worst.missM - whole.result.clearance.worst.missM)).toBeLessThan(1.5);
  });

  test("ground that the file does not cover leaves the verdict unknown and is said; no GeoTIFF is no GeoTIFF", () => {
    const away = cli(["link", file("away.json", plan(tif, { latDeg: 47.3, lonDeg: -18.9 })), "--draws", "0"]);
    expect(away.code).toBe(0);
    expect(away.err).toMatch(/does not cover \d+ m/);
    expect((JSON.parse(away.out) as { result: { clearance: { verdict: string } } }).result.clearance.verdict).toBe("unknown");
    expect(cli(["link", file("text.json", plan("rope.txt"))]).err).toContain("rope.txt cannot be opened");
    writeFileSync(path.join(dir, "words.tif"), "no picture at all");
    expect(cli(["link", file("words.json", plan(path.join(dir, "words.tif")))]).err).toContain(
      "words.tif: it is no GeoTIFF, HGT tile or ASCII grid",
    );
    const lambert = path.join(dir, "lambert.tif");
    // Any system with an EPSG code will do: the same ground in a grid of another projection gives the same clearance.
    execFileSync("gdalwarp", ["-q", "-t_srs", "EPSG:3035", "-r", "bilinear", "-dstnodata", "-9999", tif, lambert]);
    const worst = (terrain: string) =>
      (
        JSON.parse(cli(["link", file("grid.json", plan(terrain)), "--draws", "0"]).out) as {
          result: { clearance: { worst: { missM: number } } };
        }
      ).result.clearance.worst.missM;
    expect(Math.abs(worst(lambert) - worst(tif))).toBeLessThan(0.5);
  });
});

describe("batch", () => {
  test("a result or one clear error a row, in order, and the exit code tells", () => {
    const r = cli(["batch", "docs/examples/links.csv", "--year", "2026"]);
    expect(r.code).toBe(1);
    const lines = r.out.trim().split("\n");
    expect(lines).toHaveLength(7);
    expect(lines[1]).toMatch(/^1,yard,,clear/);
    expect(lines[5]).toMatch(/no radio ""petrel-9""/);
    expect(lines[6]).toMatch(/near_mount_m ""eleven"" is not a number/);
    expect(r.err).toContain("6 rows, 2 with an error");
    expect(cli(["batch", file("good.csv", `${HEAD}\n${ROW}\n`)]).code).toBe(0);
  });

  test.each([
    ["no header it knows", "a,b\n1,2\n", "has no column near_mount_m"],
    ["no rows", `${HEAD}\n`, "holds no rows"],
    ["another encoding", Buffer.concat([Buffer.from(`${HEAD}\n`), Buffer.from([0xe9, 0x2c, 0xff])]), "is not UTF-8"],
  ])("a file with %s is refused whole", (name, text, words) => {
    const r = cli(["batch", file(`${name.replaceAll(" ", "-")}.csv`, text as string)]);
    expect(r.code).toBe(2);
    expect(r.err).toContain(words);
  });

  test("40,000 rows stream: the first results come before the input ends, in bounded memory", async () => {
    const child = spawn("node", ["--max-old-space-size=160", "--import", "tsx", "src/cli/main.ts", "batch", "-"]);
    let rows = 0;
    let early = false;
    let errors = "";
    child.stdout.on("data", (chunk: Buffer) => {
      rows += chunk.toString().split("\n").length - 1;
    });
    child.stderr.on("data", (chunk: Buffer) => {
      errors += chunk.toString();
    });
    const write = (text: string): Promise<void> =>
      new Promise((resolve) => {
        if (child.stdin.write(text)) resolve();
        else child.stdin.once("drain", resolve);
      });
    await write(`${HEAD}\n`);
    // Most rows are wrong on purpose: reading and refusing is what a million rows must not choke on.
    const hundred = Array.from({ length: 100 }, (_, i) => (i === 0 ? ROW : `b${i},430,11,x,kittiwake-panel,11,5500,40`)).join("\n");
    for (let i = 0; i < 400; i++) {
      await write(`${hundred}\n`);
      if (rows > 1) early = true;
    }
    child.stdin.end();
    const code = await new Promise((resolve) => child.once("close", resolve));
    expect(errors).toContain("40000 rows, 39600 with an error");
    expect([code, rows, early]).toEqual([1, 40_001, true]);
  });
});
