// Timings of a hub: a sector of twelve remotes judged anew while it is turned, and the search for sectors, on one core.
import { generateDemo } from "../demo/generate";
import { gridsOf, plannedPath } from "../demo/plans";
import { demoHardware } from "../demo/seed";
import { type AntennaShape, patternOf } from "../src/core/antenna";
import { findSectors, type HubRemote, judgeSector, seenFromHub } from "../src/core/hub";
import { pathStateOf, preparePath } from "../src/core/link";

const REMOTES = 12;
const ANTENNAS = 14;
const RUNS = 60;
const demo = generateDemo();
const grids = gridsOf(demo);
const hardware = demoHardware();
const median = (samples: number[]): number => samples.sort((a, b) => a - b)[samples.length >> 1]!;
const line = (name: string, ms: number, aim: string): void =>
  console.log(`${name.padEnd(74)}${ms.toFixed(1).padStart(8)} ms median   aim ${aim}`);

const links = demo.links.filter((l) => l.near === "tower" && l.nearAim !== undefined);
const remotes = Array.from({ length: REMOTES }, (_, i): HubRemote => {
  const { planned, profile } = plannedPath(demo, grids, links[i % links.length]!);
  const turned = { ...profile, nearBearingDeg: (profile.nearBearingDeg + 11 * Math.floor(i / links.length)) % 360 };
  return {
    linkId: `l${i}`,
    name: `remote ${i}`,
    plan: planned,
    state: pathStateOf(planned, preparePath(planned, turned), false),
    hubIsNear: true,
  };
});
const shape = hardware.radios.find((r) => r.id === "gannet-ninety")!.antenna as AntennaShape;
const pattern = patternOf(shape, 5.62);
const policy = { school: "headroom", freeShare: 0.3, grant: true, hearEachOther: null } as const;

const drag = Array.from({ length: RUNS }, (_, i) => {
  const aim = { azimuthDeg: 180 + i, tiltDeg: -3 };
  const started = performance.now();
  const moved = remotes.map((r) => ({ ...r, plan: { ...r.plan, near: { ...r.plan.near, aim } } }));
  judgeSector(moved, pattern, aim, policy, null);
  return performance.now() - started;
});
console.log(`node ${process.version}; ${REMOTES} remotes of the demo's water tower`);
line("a sector of 12 remotes judged anew, once a move", median(drag), "8 ms");

const shapes = [
  ...hardware.antennas,
  ...hardware.radios.filter((r) => r.antenna.kind === "integrated" && r.bandKey === "5").map((r) => r.antenna),
].filter((a) => a.gainDbi !== undefined);
const choices = shapes.slice(0, ANTENNAS).map((a, j) => ({
  id: `a${j}`,
  priceEur: 100 + j,
  relativeDb: patternOf(a as AntennaShape, 5.62).relativeDb,
  promisedDb: -10,
  marginDb: remotes.map((_, i) => 8 + ((i * 7 + j * 3) % 14)),
  airShare: remotes.map((_, i) => 0.05 + ((i * 5) % 8) / 100),
}));
const places = remotes.map(seenFromHub);
const search = Array.from({ length: 5 }, () => {
  const started = performance.now();
  findSectors(places, choices, { mostSectors: 4, mayUse: 0.7, tiltFromDeg: -20, tiltToDeg: 5 });
  return performance.now() - started;
});
line(`sectors for 12 remotes from ${choices.length} antennas, 360 axes by 51 tilts`, median(search), "200 ms");
