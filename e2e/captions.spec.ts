import { expect, test } from "@playwright/test";
import { demoJob, openSection } from "./helpers";

const WIDTHS = [1024, 1280, 1440, 1600];
const HEIGHTS = [720, 800, 1000];

test("no caption of section or level line lies on a line, at four widths and three heights, on every link of the demo", async ({
  page,
  request,
}) => {
  test.setTimeout(240_000);
  const { links } = await demoJob(request);
  let worst = 0;
  for (const l of links) {
    await openSection(page, request, l.farName, l.label);
    for (const width of WIDTHS) {
      for (const height of HEIGHTS) {
        await page.setViewportSize({ width, height });
        const svg = page.locator('[data-drawing="section"]');
        await expect.poll(() => svg.evaluate((s) => s.getBoundingClientRect().width)).toBeGreaterThan(width - 400);
        const found = await page.evaluate(() => {
          const boxes = [...document.querySelectorAll<SVGTextElement>("[data-caption]")].map((t) => ({
            kind: t.dataset.caption ?? "",
            text: t.textContent ?? "",
            drawing: t.ownerSVGElement,
            box: t.getBoundingClientRect(),
          }));
          const struck: string[] = [];
          for (const path of document.querySelectorAll<SVGPathElement>("[data-line]")) {
            const at = path.getScreenCTM();
            const length = path.getTotalLength();
            if (at === null || length === 0) continue;
            const own = boxes.filter((b) => b.drawing === path.ownerSVGElement);
            for (let d = 0; d <= length; d += 1.5) {
              const p = path.getPointAtLength(d).matrixTransform(at);
              for (const b of own) {
                // The water's own words stand on its surface.
                if (b.kind === "tide" && /tide|water|ground/.test(path.dataset.line ?? "")) continue;
                // Letters leave a little of their box free above and below.
                const inside =
                  p.x > b.box.left + 1 &&
                  p.x < b.box.right - 1 &&
                  p.y > b.box.top + b.box.height * 0.2 &&
                  p.y < b.box.bottom - b.box.height * 0.22;
                if (inside) struck.push(`"${b.text}" by ${path.dataset.line}`);
              }
            }
          }
          return { struck: [...new Set(struck)], worst: boxes.some((b) => b.kind === "worst") };
        });
        expect(found.struck, `${l.farName} ${l.label}, ${width} x ${height}`).toEqual([]);
        if (found.worst) worst++;
      }
    }
  }
  // The worst place is told nearly everywhere.
  expect(worst).toBeGreaterThan(0.85 * links.length * WIDTHS.length * HEIGHTS.length);
});
