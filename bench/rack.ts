// Timings of the rack: opening, arranging, drawing the first twelve, over the demo's paths, on one core.
import { generateDemo } from "../demo/generate";
import { gridsOf, plannedPath } from "../demo/plans";
import { demoHardware } from "../demo/seed";
import { NO_LIMITS, openRack, plainRack } from "../src/core/rack";

const RUNS = 9;
const demo = generateDemo();
const grids = gridsOf(demo);
const hardware = demoHardware();

const median = (samples: number[]): number => samples.sort((a, b) => a - b)[samples.length >> 1]!;
const line = (name: string, ms: number, aim = ""): void =>
  console.log(`${name.padEnd(74)}${ms.toFixed(0).padStart(7)} ms median${aim === "" ? "" : `   aim ${aim}`}`);

console.log(`node ${process.version}; ${hardware.radios.length} radios, ${hardware.antennas.length} antennas`);
for (const [far, label] of [
  ["ice", "Ice House"],
  ["rope", "Rope Walk"],
  ["tarrow", "19 km"],
] as const) {
  const { planned, profile } = plannedPath(demo, grids, demo.links.find((l) => l.far === far)!);
  const open = (alike: boolean, draw: boolean): { ms: number; drawMs: number; settings: number; pairs: number } => {
    const limits = { ...NO_LIMITS, alike };
    const started = performance.now();
    const rack = openRack(planned, profile, hardware);
    const { counts } = plainRack(rack.arrange(limits));
    const ms = performance.now() - started;
    if (draw) while (rack.drawNext(limits));
    return { ms, drawMs: performance.now() - started - ms, settings: counts.settings, pairs: counts.tried };
  };
  open(true, true);
  const runs = Array.from({ length: RUNS }, () => open(true, true));
  const each = median(runs.map((r) => r.ms));
  line(`${label}: like ends, ${runs[0]!.settings} settings of both powers, ${profile.bodies.length} bodies`, each);
  line(`${label}: 10,000 hardware x width x power combinations of these`, (each * 10_000) / runs[0]!.settings, "150 ms");
  line(`${label}: the first twelve drawn, 500 draws each or 4,000`, median(runs.map((r) => r.drawMs)), "1000 ms");
  const all = Array.from({ length: 3 }, () => open(false, false));
  line(`${label}: unlike ends too, ${all[0]!.settings} settings`, median(all.map((r) => r.ms)));
}
