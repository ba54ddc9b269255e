// Timings of the solvers: pairs of heights, answers, trims, years, water, relays.

import { generateDemo } from "../demo/generate";
import { obstacleInputsOf, terrainGridOf } from "../demo/grids";
import hardware from "../demo/hardware.json" with { type: "json" };
import { effectiveRadiusM, planeProjection } from "../src/core/geo";
import { assembleProfile, preparePath, trimList } from "../src/core/link";
import { heightAnswers, heightFrontier, levelOverHeight, outlook, policyOutcomes, relaySpots, worstOverTideGrid } from "../src/core/solve";
import { bilinearSampler } from "../src/core/terrain";
import { end, plan as scenePlan } from "../src/core/testing/scene";
import { radioSchema } from "../src/formats";

const RUNS = 15;
const time = (name: string, run: () => unknown, aim = ""): void => {
  run();
  const samples = Array.from({ length: RUNS }, () => {
    const started = performance.now();
    run();
    return performance.now() - started;
  }).sort((a, b) => a - b);
  console.log(
    `${name.padEnd(66)}${samples[0]!.toFixed(1).padStart(8)} ms best ${samples[RUNS >> 1]!.toFixed(1).padStart(8)} ms median ${samples[RUNS - 1]!.toFixed(1).padStart(8)} ms worst${aim === "" ? "" : `   aim ${aim}`}`,
  );
};

const demo = generateDemo();
const grids = demo.grids.map((g, i) => terrainGridOf(g, String(i)));
const site = (key: string) => demo.sites.find((s) => s.key === key)!;
const radio = radioSchema.parse(hardware.radios.find((r) => r.id === "kittiwake-dish"));
const obstacles = obstacleInputsOf(demo, 2026);
const pathTo = (key: string, bodies: number, farAglM: number) => {
  const plan = scenePlan(end("A", 11, { radio }), end("B", farAglM, { radio }));
  const profile = assembleProfile(site("office").position, site(key).position, grids, obstacles.slice(0, bodies), demo.features, 2026);
  return { plan, path: preparePath(plan, profile), points: profile.distanceM.length, bodies: profile.bodies.length };
};

const rope = pathTo("rope", 300, 7.5);
const long = pathTo("tarrow", 300, 8);
const pilot = pathTo("pilot", 60, 11);
const costs = { nearPerM: 240, farPerM: 95 };
console.log(
  `node ${process.version}; Rope Walk ${rope.points} points, ${rope.bodies} bodies; 19 km ${long.points} points, ${long.bodies} bodies`,
);
time("all pairs of heights, 61 columns, Rope Walk", () => heightFrontier(rope.plan, rope.path, { nearM: 50, farM: 50 }, 2031));
time("all pairs of heights, 61 columns, 19 km", () => heightFrontier(long.plan, long.path, { nearM: 50, farM: 50 }, 2031));
time("single answers of heights with the cheapest, Rope Walk", () => heightAnswers(rope.plan, rope.path, costs, 2031));
time("trim list, Rope Walk", () => trimList(rope.plan, rope.path, 2031));
time("outlook of 10 years, Rope Walk", () => outlook(rope.plan, rope.path, 10));
time("every school of policy, Rope Walk", () => policyOutcomes(rope.plan, rope.path));
time("level over 121 heights and the tide, Pilot Station", () => levelOverHeight(pilot.plan, pilot.path, "far", 1, 18));
time("worst level over the tide, 25 x 25 pairs, Pilot Station", () =>
  worstOverTideGrid(pilot.plan, pilot.path, { nearM: 20, farM: 20 }, 25),
);
{
  const grid = grids[0]!;
  const sample = bilinearSampler(grid);
  const { forward } = planeProjection(grid.crs);
  const stepM = 36;
  const [cols, rows] = [1000, 833];
  const surfaceAmslM = new Float32Array(cols * rows);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++) surfaceAmslM[r * cols + c] = sample(grid.originX + c * stepM, grid.originY - r * stepM);
  const cell = (key: string) => {
    const s = site(key);
    const [x, y] = forward(s.position);
    return { col: (x - grid.originX) / stepM, row: (grid.originY - y) / stepM, amslM: s.groundAmslM + s.mountAglM };
  };
  const question = {
    window: { surfaceAmslM, cols, rows, stepM },
    near: cell("office"),
    far: cell("tarrow"),
    mostMastM: 10,
    wavelengthM: 0.0545,
    kFactor: 4 / 3,
    effectiveRadiusM: effectiveRadiusM(4 / 3),
    policyShare: 0.6,
  };
  time("relay over 36 x 30 km, 1000 x 833 cells", () => relaySpots(question), "2000 ms");
}
