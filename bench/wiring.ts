// Timings of the wiring and the kit: an end judged anew while a lead is dragged, its mends, a job's sites, a kit, on one core.

import { demoHardware } from "../demo/seed";
import { kitFacts, kitSchema, kitSiteSchema, mountsOf, type SiteWiring, siteKit, wiringSchema } from "../src/contract";
import { judgeWiring, mendsOf, partsOf, proposeWiring } from "../src/core/wiring";

const RUNS = 60;
const hardware = demoHardware();
const parts = partsOf(hardware.parts, hardware.radios);
const median = (samples: number[]): number => samples.sort((a, b) => a - b)[samples.length >> 1]!;
const time = (work: () => void): number => {
  const samples = Array.from({ length: RUNS }, () => {
    const started = performance.now();
    work();
    return performance.now() - started;
  });
  return median(samples);
};
const line = (name: string, ms: number, aim: string): void =>
  console.log(`${name.padEnd(74)}${ms.toFixed(2).padStart(8)} ms median   aim ${aim}`);

let n = 0;
const newId = (): string => `n${++n}`;
const endOf = (radios: number, cameras: number) =>
  proposeWiring({
    radios: Array.from({ length: radios }, (_, i) => ({
      placeId: `r${i}`,
      name: `radio ${i}`,
      partId: "kittiwake-panel",
      injectorId: "injector-of:kittiwake-panel",
      linkId: `l${i}`,
      aglM: 9,
    })),
    devices: [{ id: "d", name: "camera", kind: "camera", count: cameras }],
    supply: "mains",
    feed: true,
    recorder: true,
    parts,
    newId,
  });
const small = endOf(1, 6);
const large = endOf(8, 40);
line(
  `an end of ${small.places.length} places judged anew (while a lead is dragged)`,
  time(() => judgeWiring(small, parts)),
  "4",
);
line(
  `an end of ${large.places.length} places judged anew`,
  time(() => judgeWiring(large, parts)),
  "16",
);
const broken = { ...small, places: small.places.map((p) => (p.kind === "camera" ? { ...p, partId: "capstan-24" } : p)) };
const judged = judgeWiring(broken, parts);
line(
  `all mends of an end with ${judged.findings.length} findings`,
  time(() => judged.findings.forEach((f) => void mendsOf(judged, f, null, 0, newId))),
  "200",
);
const site = "11111111-1111-4111-8111-111111111111";
const wiring: SiteWiring = {
  ...wiringSchema.parse({}),
  ...(large as unknown as Pick<SiteWiring, "places" | "leads" | "earth">),
  siteId: site,
};
const mountOf = mountsOf({ links: [] }, hardware, site);
const lines = siteKit({ wiring, kit: kitSchema.parse({}), safety: null, parts, mountOf, pickOf: (key) => ({ id: key, pick: null }) }).rows
  .length;
line(
  `the kit of that end, ${kitFacts(wiring, kitSiteSchema.parse({}), parts, mountOf).length} facts to ${lines} lines`,
  time(() => void siteKit({ wiring, kit: kitSchema.parse({}), safety: null, parts, mountOf, pickOf: (key) => ({ id: key, pick: null }) })),
  "16",
);
