import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { pathFrame, planeProjection } from "../src/core/geo";
import { AIMED, assembleProfile, evaluatePrepared, type Finding, findings, type LinkResult, preparePath } from "../src/core/link";
import { sampleGround } from "../src/core/terrain";
import { CLIMATE, end, POLICY, plan } from "../src/core/testing/scene";
import { type DemoJob, type DemoOptions, generateDemo } from "./generate";
import { obstacleInputsOf, terrainGridOf } from "./grids";
import { demoHardware } from "./seed";
import { writeDemoFiles } from "./write-files";

const catalogue = demoHardware();

const judge = (demo: DemoJob): { result: LinkResult; found: Finding[]; far: string; label: string }[] => {
  const grids = demo.grids.map((g, i) => terrainGridOf(g, String(i)));
  const obstacles = obstacleInputsOf(demo, 2026);
  return demo.links.map((l) => {
    const [near, far] = [l.near, l.far].map((key) => demo.sites.find((s) => s.key === key)!) as [
      DemoJob["sites"][number],
      DemoJob["sites"][number],
    ];
    const profile = assembleProfile(near.position, far.position, grids, obstacles, demo.features, 2026);
    const at = (s: typeof near, i: 0 | 1) =>
      end(s.name, s.mountAglM, {
        mountMaxAglM: s.mountMaxAglM,
        txPowerDbm: l.powerDbm[i],
        radio: catalogue.radios.find((r) => r.id === l.radio[i])!,
        barrier: i === 1 && l.farWall !== undefined ? { kind: "material", material: l.farWall } : null,
        aim: i === 0 && l.nearAim !== undefined ? l.nearAim : AIMED,
      });
    const planned = plan(at(near, 0), at(far, 1), {
      centreMhz: l.centreMhz,
      widthMhz: l.widthMhz,
      needToFarMbps: l.needMbps[0],
      needToNearMbps: l.needMbps[1],
      policy: { ...POLICY, use: l.radio[0] === "gannet-ninety" ? "ptmp" : "ptp" },
      climate: CLIMATE,
    });
    const path = preparePath(planned, profile);
    const result = evaluatePrepared(planned, path);
    return { result, found: findings(planned, path, result), far: far.name, label: l.label };
  });
};

const backwards = (name: string): string => [...name].reverse().join("");
const OTHER: DemoOptions = { anchor: { latDeg: -12.3, lonDeg: -140.2 }, mirror: true, rename: backwards };

describe("the demo job", () => {
  const plain = generateDemo();
  const judged = judge(plain);
  const of = (far: string, label = "") => judged.find((j) => j.far === far && j.label === label)!;

  test("is the same each time and of the stated size", () => {
    const again = generateDemo();
    expect(again.grids[1]!.values).toEqual(plain.grids[1]!.values);
    expect(again.obstacles).toEqual(plain.obstacles);
    const buildings = plain.obstacles.filter((o) => o.kind === "building").length;
    expect(buildings).toBeGreaterThan(850);
    expect(buildings).toBeLessThan(950);
  });

  test("each lesson comes out of the computation", () => {
    const rope = of("Rope Walk").result.clearance;
    expect(rope.verdict).toBe("short");
    expect(rope.worst).toMatchObject({ ownerName: "Poplar row" });
    expect(rope.worst!.missM).toBeCloseTo(1.84, 1);
    expect(rope.worst!.atM).toBeGreaterThan(286);
    expect(rope.worst!.atM).toBeLessThan(294);
    const tarrow = of("Tarrowfell Observatory");
    expect(tarrow.result.clearance.worst).toMatchObject({ owner: { kind: "ground" }, ownerName: "Corrie Saddle" });
    expect(Math.abs(tarrow.result.clearance.worst!.missM - 101)).toBeLessThan(4);
    expect(tarrow.found[0]!.code).toBe("blocked-no-height");
    expect(of("Ice House", "first idea").found[0]!.code).toBe("overloaded");
    expect(of("Ice House", "60 GHz pair").result.verdict).toBe("clear");
    expect(of("Ice House", "60 GHz pair").result.service.toFar!.levelDbm).toBeCloseTo(-48, 0);
    expect(of("Old Exchange").result.clearance.worst).toMatchObject({ ownerName: "Bonded store gable", side: "right" });
    expect(of("Skarn Light").found[0]!.code).toBe("permission");
    // The tide: about +3.2 dB at 9 m, +1.2 at 15 m, -2.0 at 21 m, 10 dB and more lost at most heights between.
    expect(of("Pilot Station").result.reflection!.surface).toBe("sea");
    // 13 degrees under a sector 6.9 high: outside its beam.
    expect(of("Weighbridge").found.map((f) => f.code)).toContain("out-of-beam");
    expect(of("Ferry Ramp").found.map((f) => f.code)).not.toContain("out-of-beam");
    const glass = of("Old Exchange", "behind the glass").result.service.toFar!.terms.find((t) => t.id === "barrier-in")!;
    expect(glass.valueDb).toBeCloseTo(-27.5, 6);
  });

  test("renamed, mirrored and moved to another ocean, every finding follows", () => {
    const other = judge(generateDemo(OTHER));
    other.forEach((moved, i) => {
      const here = judged[i]!;
      expect(
        moved.found.map((f) => f.code),
        here.far,
      ).toEqual(here.found.map((f) => f.code));
      expect(moved.result.verdict).toBe(here.result.verdict);
      const [a, b] = [here.result.clearance.worst!, moved.result.clearance.worst!];
      expect(b.ownerName).toBe(a.ownerName === null ? null : backwards(a.ownerName));
      // Another place has another scale of its grid and another bend of the ellipsoid: a few parts in ten thousand.
      expect(Math.abs(b.missM - a.missM)).toBeLessThan(0.02 + 0.003 * Math.abs(a.missM));
      const mirrored = { left: "right", right: "left", over: "over", under: "under", through: "through" } as const;
      expect(b.side).toBe(mirrored[a.side]);
    });
  });
});

describe("open files", () => {
  const dir = mkdtempSync(path.join(tmpdir(), "dry-arc-demo-"));
  const demo = generateDemo();
  beforeAll(() => void writeDemoFiles(demo, dir));
  afterAll(() => rmSync(dir, { recursive: true }));

  test.each([
    ["harbour-2-m-survey.tif", 1, "rope"],
    ["merrow-30-m-survey.tif", 0, "tarrow"],
  ] as const)("a profile of %s equals bilinear sampling over what GDAL reads", (file, grid, farKey) => {
    const tif = path.join(dir, file);
    const info = JSON.parse(execFileSync("gdalinfo", ["-json", tif], { encoding: "utf8", maxBuffer: 1e8 })) as {
      geoTransform: number[];
      size: [number, number];
      coordinateSystem: { wkt: string };
    };
    expect(info.coordinateSystem.wkt).toContain("UTM zone 27N");
    // GDAL writes the values as plain numbers; its geotransform gives the corner of the first cell.
    const raw = path.join(dir, `${file}.raw`);
    execFileSync("gdal_translate", ["-q", "-of", "ENVI", "-ot", "Float32", tif, raw]);
    const bytes = readFileSync(raw);
    const values = new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4);
    const [x0, dx, , y0, , dy] = info.geoTransform as [number, number, number, number, number, number];
    const [cols] = info.size;
    const source = demo.grids[grid]!;
    const near = demo.sites[0]!.position;
    const far = demo.sites.find((s) => s.key === farKey)!.position;
    const frame = pathFrame(near, far);
    const profile = sampleGround(frame, [terrainGridOf(source, "g")]);
    const projection = planeProjection(source.crs);
    let worstM = 0;
    profile.distanceM.forEach((d, i) => {
      const [x, y] = projection.forward(frame.at(d));
      const c = (x - x0) / dx - 0.5;
      const r = (y - y0) / dy - 0.5;
      const [ci, ri] = [Math.floor(c), Math.floor(r)];
      const at = (rr: number, cc: number) => values[rr * cols + cc]!;
      const top = at(ri, ci) * (1 - (c - ci)) + at(ri, ci + 1) * (c - ci);
      const bottom = at(ri + 1, ci) * (1 - (c - ci)) + at(ri + 1, ci + 1) * (c - ci);
      worstM = Math.max(worstM, Math.abs(profile.groundAmslM[i]! - (top * (1 - (r - ri)) + bottom * (r - ri))));
    });
    expect(profile.distanceM.length).toBeGreaterThan(400);
    expect(worstM).toBeLessThan(0.01);
  });

  test("GDAL opens the vectors with as many features as were written", () => {
    const count = (file: string) =>
      Number(/Feature Count: (\d+)/.exec(execFileSync("ogrinfo", ["-so", "-al", path.join(dir, file)], { encoding: "utf8" }))![1]);
    expect(count("obstacles.geojson")).toBe(demo.obstacles.length);
    expect(count("sites.geojson")).toBe(demo.sites.length);
  });
});
