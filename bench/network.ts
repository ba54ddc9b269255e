// Timings of the load of a network: 200 links and 2,000 devices, the whole of it worked out and judged, on one core.
import { type LoadInput, type LoadLink, loadOf } from "../src/core/load";
import { judgePlace, narrowestOf } from "../src/core/load/narrowest";
import { seededRandom } from "../src/core/units";

const LINKS = 200;
const DEVICES = 2000;
const RUNS = 60;
const random = seededRandom(1);
const pick = (n: number): number => Math.floor(random() * n);
const siteIds = Array.from({ length: LINKS + 1 }, (_, i) => `s${i}`);
const way = () => ({ airMbps: 50 + 800 * random(), phyMbps: 100 + 1500 * random(), portMbps: 1000, burstUs: 2000 });
const links = siteIds.slice(1).map((farSiteId, i): LoadLink => {
  const parent = pick(Math.min(i + 1, 40));
  return {
    id: `l${i}`,
    nearSiteId: siteIds[parent]!,
    farSiteId,
    carries: { access: "contention", shared: true, toFar: way(), toNear: way() },
    sector: random() < 0.5 ? { id: `h${parent}`, siteId: siteIds[parent]! } : null,
  };
});
const input: LoadInput = {
  school: "headroom",
  freeShare: 0.3,
  siteIds,
  links,
  feeds: [{ siteId: "s0", name: "", downMbps: 10_000, upMbps: 10_000 }],
  devices: Array.from({ length: DEVICES }, (_, i) => ({
    id: `d${i}`,
    siteId: siteIds[1 + pick(LINKS)]!,
    name: "",
    class: "cameras",
    count: 1 + pick(4),
    usual: { there: 0.05, back: 4 },
    worst: { there: 0.05, back: 6 },
    talksTo: { kind: random() < 0.8 ? "recorder" : "feed" },
    portMbps: 100,
  })),
  recorder: { at: "site", siteId: "s0" },
  recorderPortMbps: 10_000,
  ports: new Map(),
  uplinks: new Map(),
  growth: { cameras: 0.1, users: 0.1, rest: 0.1 },
  needs: new Map(),
};
const median = (samples: number[]): number => samples.sort((a, b) => a - b)[samples.length >> 1]!;
const timed = (work: () => void): number => {
  const samples = Array.from({ length: RUNS }, () => {
    const started = performance.now();
    work();
    return performance.now() - started;
  });
  return median(samples);
};
console.log(`node ${process.version}; ${LINKS} links, ${DEVICES} rows of devices`);
const line = (name: string, ms: number, aim: string): void =>
  console.log(`${name.padEnd(74)}${ms.toFixed(1).padStart(8)} ms median   aim ${aim}`);
line(
  "the load of the whole job, its narrowest place",
  timed(() => {
    const load = loadOf(input);
    narrowestOf(
      load,
      "worst",
      load.places.map((_, i) => i),
    );
  }),
  "50 ms",
);
line(
  "the same, every place judged with the year in which it is full",
  timed(() => {
    const load = loadOf(input);
    load.places.forEach((_, i) => {
      judgePlace(load, "worst", i, 5);
    });
  }),
  "50 ms",
);
