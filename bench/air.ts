// Timings of the air: all radios of a job against each other, one block dragged, and the assignment with how often it is proven.
//   npm run bench -- air

import { AirField, assign, judgeAir, unitMaker } from "../src/core/air";
import { airJob, randomLinks, wideRadio } from "../src/core/testing/air-scene";

const RUNS = 30;
const median = (samples: number[]): number => samples.sort((a, b) => a - b)[samples.length >> 1]!;
const timed = (work: (i: number) => void, runs = RUNS): number => {
  const samples = Array.from({ length: runs }, (_, i) => {
    const started = performance.now();
    work(i);
    return performance.now() - started;
  });
  return median(samples);
};
const line = (name: string, ms: number, aim: string): void =>
  console.log(`${name.padEnd(74)}${ms.toFixed(1).padStart(8)} ms median   aim ${aim}`);

const CHANNELS = [5510, 5550, 5590, 5755].map((centreMhz) => ({ centreMhz, widthMhz: 40 }));
console.log(`node ${process.version}`);

const thirty = randomLinks(1, 30, CHANNELS);
const job = airJob(thirty);
const { radios, between } = job.field;
line(
  `${radios.length} radios: all pairs, and every link judged`,
  timed(() => {
    const field = new AirField(radios, between);
    judgeAir({ ...job, field });
  }),
  "100 ms",
);
const ten = airJob(thirty.slice(0, 10));
const on = unitMaker(ten);
const centres = Array.from({ length: 12 }, (_, i) => 5180 + 20 * i);
for (const centreMhz of centres) judgeAir(ten, new Map([["u0", { centreMhz, widthMhz: 20 }]]), on);
line(
  "a block dragged by one channel, 10 links judged anew",
  timed((i) => void judgeAir(ten, new Map([["u0", { centreMhz: centres[i % centres.length]!, widthMhz: 20 }]]), on), 200),
  "8 ms",
);

const radio = wideRadio({
  channelWidthsMhz: [40, 80],
  bandsMhz: [
    { low: 5470, high: 5725 },
    { low: 5725, high: 5850 },
  ],
});
const BUDGET_MS = 2000;
const proof = (name: string, jobs: number, of: (seed: number) => ReturnType<typeof airJob>): void => {
  let proven = 0;
  const took: number[] = [];
  for (let seed = 1; seed <= jobs; seed++) {
    const started = performance.now();
    const found = assign({
      job: of(seed),
      widths: "narrowest",
      radar: "fallback",
      seed,
      goOn: () => performance.now() - started < BUDGET_MS,
    });
    took.push(performance.now() - started);
    proven += found.exact ? 1 : 0;
  }
  const most = Math.max(...took);
  console.log(
    `${name.padEnd(74)}${median(took).toFixed(0).padStart(6)} ms median, ${most.toFixed(0)} at most; proven in ${proven} of ${jobs}`,
  );
};
const wide = (seed: number, units: number) => airJob(randomLinks(seed, units, CHANNELS).map((l) => ({ ...l, radio })));
proof("6 links, 9 channels of 40 MHz", 200, (seed) => wide(seed, 6));
proof("12 links, 9 channels of 40 MHz (aim: 180 of 200 within 2 s)", 200, (seed) => wide(seed, 12));
proof("12 links, 25 channels of 20 MHz", 40, (seed) => airJob(randomLinks(seed, 12, CHANNELS)));
