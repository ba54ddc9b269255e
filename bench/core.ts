// Timings of the core: median and 95th percentile over many runs, after warming up.

import { generateDemo } from "../demo/generate";
import { obstacleInputsOf, terrainGridOf } from "../demo/grids";
import hardware from "../demo/hardware.json" with { type: "json" };
import { effectiveRadiusM, pathFrame, planeProjection } from "../src/core/geo";
import { assembleProfile, evaluatePrepared, findings, monteCarlo, pathStateOf, preparePath, serviceOf, widthSweep } from "../src/core/link";
import { deltaBullingtonDb, prepareDiffraction } from "../src/core/propagation";
import { bilinearSampler, pathPositions, positionAt, sampleGround } from "../src/core/terrain";
import { end as sceneEnd, plan as scenePlan } from "../src/core/testing/scene";
import { radioSchema } from "../src/formats";

const POINTS = 2000;

const time = (name: string, run: () => unknown, aimUs?: number): void => {
  const warmUntil = performance.now() + 400;
  while (performance.now() < warmUntil) run();
  const samples: number[] = [];
  const until = performance.now() + 1200;
  while (performance.now() < until) {
    const started = performance.now();
    for (let i = 0; i < 10; i++) run();
    samples.push(((performance.now() - started) / 10) * 1000);
  }
  samples.sort((a, b) => a - b);
  const at = (share: number): string => samples[Math.floor(samples.length * share)]!.toFixed(1).padStart(9);
  console.log(
    `${name.padEnd(58)}${at(0)} us best ${at(0.5)} us median ${at(0.95)} us p95${aimUs === undefined ? "" : `   aim ${aimUs} us`}`,
  );
};

const demo = generateDemo();
const grids = demo.grids.map((g, i) => terrainGridOf(g, String(i)));
const site = (key: string) => demo.sites.find((s) => s.key === key)!;
const radio = radioSchema.parse(hardware.radios.find((r) => r.id === "kittiwake-dish"));
const obstacles = obstacleInputsOf(demo, 2026);

const near = site("office").position;
const far = site("tarrow").position;
const frame = pathFrame(near, far);
const coarse = grids[0]!;

/** A profile of exactly 2000 points between two sites. */
const profileOf = (to: string, bodies: number) => {
  const p = assembleProfile(near, site(to).position, [coarse], obstacles.slice(0, bodies), demo.features, 2026);
  const f = pathFrame(near, site(to).position);
  const positions = pathPositions(f, planeProjection(coarse.crs));
  const sample = bilinearSampler(coarse);
  const xy = new Float64Array(2);
  const distanceM = Float64Array.from({ length: POINTS }, (_, i) => (f.lengthM * i) / (POINTS - 1));
  const groundAmslM = distanceM.map((d) => {
    positionAt(positions, d, xy);
    return sample(xy[0]!, xy[1]!);
  });
  return { ...p, distanceM, groundAmslM, datasetIndex: new Uint8Array(POINTS) };
};

const end = (name: string, mountAglM: number) => sceneEnd(name, mountAglM, { radio });
const plan = scenePlan(end("A", 11), end("B", 8), { needToFarMbps: 20, needToNearMbps: 20 });

console.log(`node ${process.version}, ${POINTS} points`);
const long = profileOf("tarrow", 300);
const diffraction = prepareDiffraction({
  distanceM: long.distanceM,
  topAmslM: long.groundAmslM,
  groundAmslM: long.groundAmslM,
  frequencyGhz: 5.5,
  effectiveRadiusM: effectiveRadiusM(4 / 3),
});
let lift = 0;
const next = (step: number, most: number): number => {
  lift = (lift + step) % most;
  return lift;
};
time("delta-Bullington, 2000 points", () => deltaBullingtonDb(diffraction, 14.5 + next(0.01, 5), 190), 30);
{
  const positions = pathPositions(frame, planeProjection(coarse.crs));
  const sample = bilinearSampler(coarse);
  const xy = new Float64Array(2);
  const out = new Float64Array(POINTS);
  const step = frame.lengthM / (POINTS - 1);
  time(
    "sampling 2000 points of a 30 m grid, positions prepared",
    () => {
      for (let i = 0; i < POINTS; i++) {
        positionAt(positions, i * step, xy);
        out[i] = sample(xy[0]!, xy[1]!);
      }
    },
    45,
  );
  time("positions of a 19 km path, exact at chunk ends", () => pathPositions(frame, planeProjection(coarse.crs)));
  time("whole ground profile of 19 km over both grids", () => sampleGround(frame, grids));
}
const prepared = preparePath(plan, long);
time("evaluate link, 2000 points, 300 obstacles", () => evaluatePrepared({ ...plan, far: end("B", 8 + next(0.1, 9)) }, prepared));
const short = preparePath(plan, profileOf("rope", 300));
time("evaluate Rope Walk, 2000 points, 300 obstacles", () => evaluatePrepared({ ...plan, far: end("B", 7.5 + next(0.1, 9)) }, short));
const shortPlan = { ...plan, far: end("B", 7.5) };
const shortResult = evaluatePrepared(shortPlan, short);
time("findings with mends, Rope Walk", () => findings(shortPlan, short, shortResult));
time("prepare path, 2000 points, 300 obstacles", () => preparePath(plan, long));

// What stands in the corridor of a usual path; 300 is a town's worth.
const usual = preparePath(plan, profileOf("rope", 12));
time("evaluate link, 2000 points, 12 obstacles", () => evaluatePrepared({ ...plan, far: end("B", 7.5 + next(0.1, 9)) }, usual), 120);
const state = pathStateOf(shortPlan, usual);
time("path state alone (clearance, diffraction, leaves, gas)", () => pathStateOf({ ...plan, far: end("B", 7.5 + next(0.1, 9)) }, usual));
time("both directions of one radio over a known path, all detail", () => serviceOf(shortPlan, state));
time("both directions of one radio over a known path, for ranking", () => serviceOf(shortPlan, state, false), 15);
time("sweep over channel widths", () => widthSweep(shortPlan, state));
{
  const catalogue = hardware.radios.map((r) => radioSchema.parse(r)).filter((r) => r.bandKey === "5" && r.antenna.kind === "integrated");
  const plans = catalogue.flatMap((r) =>
    r.channelWidthsMhz.map((widthMhz) => ({
      ...shortPlan,
      widthMhz,
      near: { ...shortPlan.near, radio: r },
      far: { ...shortPlan.far, radio: r },
    })),
  );
  const started = performance.now();
  for (let i = 0; i < 10_000; i++) serviceOf(plans[i % plans.length]!, state, false);
  console.log(
    `10,000 hardware x width combinations on one profile${" ".repeat(7)}${(performance.now() - started).toFixed(0).padStart(9)} ms   aim 150 ms`,
  );
}
for (const [name, path] of [
  ["Rope Walk", usual],
  ["19 km", prepared],
] as const) {
  const samples = Array.from({ length: 15 }, () => {
    const started = performance.now();
    monteCarlo(shortPlan, path);
    return performance.now() - started;
  }).sort((a, b) => a - b);
  console.log(
    `500 draws of a whole link, 2000 points, ${name.padEnd(17)}${samples[0]!.toFixed(1).padStart(9)} ms best ${samples[7]!.toFixed(1).padStart(9)} ms median   aim 50 ms`,
  );
}
