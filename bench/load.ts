// First load of each sheet in headless Chromium, nine times cold: largest paint, first verdict, script sent.
import { chromium } from "@playwright/test";
import { CHROMIUM } from "../e2e/chromium";
import type { JobSummary } from "../src/contract";

const base = process.env.DRYARC_URL!;
const LOADS = 9;

const jobs = (await (await fetch(`${base}/api/jobs`)).json()) as JobSummary[];
const { job, links } = jobs.find((s) => s.job.name === "Merrow Harbour Trust")!;

/** Notes the largest paint, and when what shows a verdict is first there; as text, since it runs in the page. */
const watcher = (selector: string): string => `
  window.largest = 0;
  window.first = 0;
  new PerformanceObserver((list) => { for (const e of list.getEntries()) window.largest = e.startTime; })
    .observe({ type: "largest-contentful-paint", buffered: true });
  const look = () => {
    const found = [...document.querySelectorAll(${JSON.stringify(selector)})];
    if (found.some((n) => n.tagName !== "DIV" || /Clear|Tight|Short|Unknown/.test(n.textContent))) window.first = performance.now();
    else requestAnimationFrame(look);
  };
  requestAnimationFrame(look);`;
const PAGES: readonly [name: string, path: string, verdict: string][] = [
  ["register", "/", "main table tbody svg"],
  ["brief", `/jobs/${job.id}/brief`, "[aria-current=page]"],
  ["ground", `/jobs/${job.id}/ground`, "[data-testid=verdict], aside .v-short, aside .v-tight, aside .v-clear, aside .v-unknown"],
  ["section", `/jobs/${job.id}/section/${links[0]!.linkId}`, "[data-testid=verdict]"],
  ["rack", `/jobs/${job.id}/gear/${links[0]!.linkId}`, "[data-testid=verdict]"],
  ["hardware", `/jobs/${job.id}/gear`, "main table"],
];

const browser = await chromium.launch({
  ...CHROMIUM,
});

interface Load {
  readonly paintMs: number;
  readonly verdictMs: number;
  readonly scriptKb: number;
  readonly allKb: number;
  readonly files: readonly [name: string, kb: number][];
}

const once = async (path: string, verdict: string): Promise<Load> => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const cdp = await context.newCDPSession(page);
  await cdp.send("Network.enable");
  const kindOf = new Map<string, string>();
  const urlOf = new Map<string, string>();
  const files: [string, number][] = [];
  let script = 0;
  let all = 0;
  let open = true;
  cdp.on("Network.responseReceived", (e) => {
    kindOf.set(e.requestId, e.type);
    urlOf.set(e.requestId, e.response.url);
  });
  cdp.on("Network.loadingFinished", (e) => {
    if (!open) return;
    all += e.encodedDataLength;
    if (kindOf.get(e.requestId) !== "Script") return;
    script += e.encodedDataLength;
    files.push([urlOf.get(e.requestId)!.replace(/.*\//, ""), e.encodedDataLength / 1000]);
  });
  await page.addInitScript(watcher(verdict));
  await page.goto(`${base}${path}`);
  await page.waitForFunction(() => (window as unknown as { first: number }).first > 0, null, { timeout: 20_000 });
  // What the page itself asked for; what it fetches ahead of need afterwards is not counted.
  open = false;
  await page.waitForLoadState("networkidle");
  const [paintMs, verdictMs] = await page.evaluate(() => {
    const w = window as unknown as { largest: number; first: number };
    return [w.largest, w.first];
  });
  await context.close();
  return { paintMs: paintMs!, verdictMs: verdictMs!, scriptKb: script / 1000, allKb: all / 1000, files };
};

const median = (of: readonly number[]): number => [...of].sort((a, b) => a - b)[of.length >> 1]!;
const most = (of: readonly number[]): number => Math.max(...of);
console.log("cold loads, production build, one browser on the same machine: median (worst) of nine");
for (const [name, path, verdict] of PAGES) {
  const loads: Load[] = [];
  for (let i = 0; i < LOADS; i++) loads.push(await once(path, verdict));
  const told = (f: (l: Load) => number): string => `${Math.round(median(loads.map(f)))} (${Math.round(most(loads.map(f)))})`;
  console.log(
    `${name.padEnd(9)} largest paint ${told((l) => l.paintMs)} ms, first verdict ${told((l) => l.verdictMs)} ms, script until then ${told((l) => l.scriptKb)} kB, all ${told((l) => l.allKb)} kB`,
  );
  if (process.env.FILES)
    for (const [file, kb] of [...loads.at(-1)!.files].sort((a, b) => b[1] - a[1]))
      console.log(`   ${kb.toFixed(1).padStart(7)} kB ${file}`);
}
await browser.close();
