// Dragging a mast on a 2,000-point profile in headless Chromium: time from the pointer's move to the frame that shows it.
import { chromium } from "@playwright/test";
import { CHROMIUM } from "../e2e/chromium";
import type { JobSummary } from "../src/contract";

const base = process.env.DRYARC_URL!;
const MOVES = 200;

const browser = await chromium.launch({
  ...CHROMIUM,
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const cdp = await page.context().newCDPSession(page);
await cdp.send("Performance.enable");
const metrics = async (): Promise<Record<string, number>> =>
  Object.fromEntries((await cdp.send("Performance.getMetrics")).metrics.map((m) => [m.name, m.value]));
const jobs = (await (await page.request.get(`${base}/api/jobs`)).json()) as JobSummary[];
const job = jobs.find((s) => s.job.name === "Merrow Harbour Trust")!;

/** A street of 300 houses on and beside a path of its own over the demo's ground. */
const crowded = async (): Promise<{ jobId: string; linkId: string }> => {
  const post = async <T>(path: string, data: unknown): Promise<T> =>
    (await (await page.request.post(`${base}${path}`, { data })).json()) as T;
  const [latDeg, lonDeg] = [47.296, -19.39];
  const made = await post<{ id: string }>("/api/jobs", {
    name: "A street of 300 houses",
    visitOn: "2026-12-03",
    centreLatDeg: latDeg,
    centreLonDeg: lonDeg,
    ruleDomain: "FCC-like",
    rainRate001MmH: 28,
  });
  const site = (name: string, at: number) =>
    post<{ id: string }>(`/api/jobs/${made.id}/sites`, { name, latDeg, lonDeg: at, mountAglM: 25 });
  const [near, far] = [await site("West", lonDeg), await site("East", lonDeg + 0.016)];
  for (let i = 0; i < 300; i++) {
    const west = lonDeg + 0.0004 + (0.0152 * i) / 300;
    const south = latDeg + ((i % 3) - 1) * 0.00012 - 0.00004;
    await post(`/api/jobs/${made.id}/obstacles`, {
      name: `House ${i}`,
      kind: "building",
      outline: [
        [west, south],
        [west + 0.00004, south],
        [west + 0.00004, south + 0.00008],
        [west, south + 0.00008],
      ],
      heightM: 5 + (i % 7),
      heightSigmaM: 0.5,
      surveyedOn: "2026-07-15",
    });
  }
  const link = await post<{ id: string }>(`/api/jobs/${made.id}/links`, { nearSiteId: near.id, farSiteId: far.id });
  return { jobId: made.id, linkId: link.id };
};
const street = await crowded();
const runs = [
  ...["Tarrowfell Observatory", "Rope Walk"].map((far) => ({
    far,
    jobId: job.job.id,
    linkId: job.links.find((l) => l.farName === far)!.linkId,
  })),
  { far: "a street of 300 houses", ...street },
];
for (const { far, jobId, linkId } of runs) {
  await page.goto(`${base}/jobs/${jobId}/section/${linkId}`);
  const mast = page.getByTestId("mast-far");
  await mast.waitFor();
  const profile = (await (await page.request.get(`${base}/api/jobs/${jobId}/links/${linkId}/profile`)).json()) as {
    distanceM: number[];
    bodies: unknown[];
  };
  const box = (await mast.boundingBox())!;
  const x = box.x + box.width / 2;
  const y = box.y + 14;
  await page.evaluate(() => {
    const w = window as unknown as { paint: number[] };
    w.paint = [];
    // Before any handler of the page; then the frame, then the first task after it.
    window.addEventListener(
      "pointermove",
      () => {
        const started = performance.now();
        requestAnimationFrame(() => {
          const channel = new MessageChannel();
          channel.port1.onmessage = () => w.paint.push(performance.now() - started);
          channel.port2.postMessage(0);
        });
      },
      { capture: true },
    );
  });
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 0; i < 20; i++) await page.mouse.move(x, y - 40 * Math.sin(i / 12));
  const before = await metrics();
  const perMove: number[] = [];
  for (let i = 20; i < MOVES; i++) {
    const at = await metrics();
    await page.mouse.move(x, y - 40 * Math.sin(i / 12));
    const now = await metrics();
    perMove.push(
      (now.ScriptDuration! +
        now.LayoutDuration! +
        now.RecalcStyleDuration! -
        at.ScriptDuration! -
        at.LayoutDuration! -
        at.RecalcStyleDuration!) *
        1000,
    );
  }
  const after = await metrics();
  await page.mouse.up();
  const paint = await page.evaluate(() => (window as unknown as { paint: number[] }).paint);
  // Put back what the drag changed.
  await page.keyboard.press("Control+z");
  await page.getByTestId("saved").filter({ hasText: ":" }).waitFor();
  const each = (name: string): string => (((after[name]! - before[name]!) * 1000) / (MOVES - 20)).toFixed(1);
  perMove.sort((a, b) => a - b);
  paint.splice(0, 20);
  paint.sort((a, b) => a - b);
  const at = (share: number): string => paint[Math.floor(paint.length * share)]!.toFixed(1);
  console.log(
    `drag ${far}: ${profile.distanceM.length} points, ${profile.bodies.length} bodies, ${paint.length} moves: ${at(0.5)} ms median, ${at(0.95)} ms p95 from pointer move to the end of its frame (aim 16.7 and 25); of it script ${each("ScriptDuration")} ms, styles ${each("RecalcStyleDuration")}, layout ${each("LayoutDuration")}, all tasks ${each("TaskDuration")} a move; script, styles and layout ${perMove[Math.floor(perMove.length * 0.95)]!.toFixed(1)} ms p95 (aim 8)`,
  );
}
await browser.close();
