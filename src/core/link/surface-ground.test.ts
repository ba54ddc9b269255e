/* The same scene told twice: bare earth with a building on it, and a surface model with the building outlined. */
import { describe, expect, test } from "vitest";
import { destination, pathFrame, planeProjection, utmCrsOf } from "../geo";
import type { TerrainGrid } from "../terrain";
import { end, plan, seeded } from "../testing/scene";
import { assembleProfile, evaluateLink, type ObstacleInput } from ".";

const A = { latDeg: 47.3, lonDeg: -19.4 };
const B = destination(A, 90, 400);
const frame = pathFrame(A, B);
const at = (x: number, y: number) => {
  const foot = frame.at(x);
  return destination(foot, foot.azimuthDeg + 90, y);
};
const crs = utmCrsOf(A);
const plane = planeProjection(crs);
const [x0, y0] = plane.forward(A);

type Scene = (alongM: number, acrossM: number) => number;
/** A slope, and a house of 12 m from 195 to 210 m, 24 m wide, turned by a quarter of its breadth. */
const earth: Scene = (x, y) => 10 + 0.01 * x + 0.02 * y;
const isHouse = (x: number, y: number): boolean => x >= 195 && x <= 210 && Math.abs(y) <= 12;
const roofs: Scene = (x, y) => earth(x, y) + (isHouse(x, y) ? 12 : 0);

const gridOf = (kind: "dtm" | "dsm", cellM: number, scene: Scene, id = kind): TerrainGrid => {
  const cols = Math.ceil(520 / cellM);
  const u = seeded(7);
  const values = Float32Array.from({ length: cols * cols }, (_, i) => {
    const p = frame.locate(plane.inverse(x0 - 60 + (i % cols) * cellM, y0 + 260 - Math.floor(i / cols) * cellM));
    return scene(p.alongM, p.acrossM) + 0.05 * (2 * u() - 1);
  });
  return {
    id,
    name: id,
    kind,
    crs,
    originX: x0 - 60,
    originY: y0 + 260,
    stepX: cellM,
    stepY: -cellM,
    cols,
    rows: cols,
    cellM,
    sigmaM: 0.15,
    tileCells: cols - 1,
    tile: () => values,
  };
};

const house = (wider: number, fields: Partial<ObstacleInput> = {}): ObstacleInput => ({
  id: "h",
  name: "House",
  kind: "building",
  outline: [at(195 - wider, -12 - wider), at(210 + wider, -12 - wider), at(210 + wider, 12 + wider), at(195 - wider, 12 + wider)],
  baseAmslM: null,
  heightM: 12,
  crownBaseM: 0,
  growthMPerYear: 0,
  heightSigmaM: 0.3,
  surveyedYear: 2026,
  ...fields,
});
const masts = plan(end("A", 16), end("B", 16), { water: { surface: "none", tideRangeM: 0, roughnessM: 0 } });
const judged = (grids: TerrainGrid[], obstacles: ObstacleInput[]) => {
  const r = evaluateLink(masts, assembleProfile(A, B, grids, obstacles, [], 2026));
  return { share: r.clearance.worst!.share, owner: r.clearance.worst!.ownerName, r };
};

describe("a building outlined on a surface model stands on the ground, not on its roof", () => {
  const truth = judged([gridOf("dtm", 1, earth)], [house(0)]);

  test("as bare earth with the building it leaves about one F1", () => {
    expect(truth.owner).toBe("House");
    expect(truth.share).toBeGreaterThan(0.9);
  });

  test.each([
    ["exact", 0],
    ["1 m wide", 1],
    ["1 m narrow", -1],
  ])("outline drawn %s at 1 m cells: the same share within 0.05", (_name, wider) => {
    const told = judged([gridOf("dsm", 1, roofs)], [house(wider)]);
    expect(told.owner).toBe("House");
    expect(Math.abs(told.share - truth.share)).toBeLessThan(0.05);
  });

  test.each([2, 5])("at %f m cells it is near the truth and says how sure it is", (cellM) => {
    for (const wider of [0, 1, -1]) {
      const told = judged([gridOf("dsm", cellM, roofs)], [house(wider)]);
      expect(Math.abs(told.share - truth.share), `${wider}`).toBeLessThan(0.1);
      const note = told.r.notes.find((n) => n.code === "base-fitted")!;
      expect(note.values).toMatchObject({ name: "House" });
      const { sigmaM } = note.values as { sigmaM: number };
      // What it says is about what it is off by: the error of the share in metres is within three of it.
      expect(Math.abs(told.share - truth.share) * told.r.clearance.worst!.f1M).toBeLessThan(3 * sigmaM);
    }
  });

  test("bare earth is taken where any dataset has it, finer or coarser than the surface model", () => {
    for (const earthCellM of [0.5, 4]) {
      const told = judged([gridOf("dsm", 1, roofs), gridOf("dtm", earthCellM, earth)], [house(-1)]);
      expect(Math.abs(told.share - truth.share), `${earthCellM}`).toBeLessThan(0.05);
    }
  });

  test("a mount on the outlined roof stands above the ground, and a wood beside nobody outlined does not lift it", () => {
    const roofed = destination(A, 0, 0);
    const own = house(0, { id: "own", name: "Own", outline: [at(-6, -6), at(6, -6), at(6, 6), at(-6, 6)], heightM: 12 });
    const scene: Scene = (x, y) =>
      roofs(x, y) + (Math.abs(x) <= 6 && Math.abs(y) <= 6 ? 12 : 0) + (x > 8 && x < 40 && y > 9 && y < 40 ? 9 : 0);
    const q = assembleProfile(roofed, B, [gridOf("dsm", 1, scene)], [house(0), own], [], 2026);
    expect(Math.abs(q.groundAmslM[0]! - earth(0, 0))).toBeLessThan(0.3);
    expect(Math.abs(q.bodies.find((b) => b.id === "own")!.baseAmslM - earth(0, 0))).toBeLessThan(0.3);
  });
});
