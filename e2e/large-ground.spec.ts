/* A town of 1,600 houses: all of them are drawn, as tiles, and each can still be pressed. */
import { expect, test } from "@playwright/test";
import type { JobDto } from "../src/contract";

const ROWS = 40;
const STEP_DEG = 0.0005;
const SIDE_DEG = 0.0003;
const [LAT, LON] = [44.3, -23.5];

test("more obstacles than are read whole are drawn all the same; one is pressed, changed, and drawn as it is now", async ({
  page,
  request,
}) => {
  const job = (await (
    await request.post("/api/jobs", {
      data: { name: "Town", visitOn: "2026-12-03", centreLatDeg: LAT, centreLonDeg: LON, ruleDomain: "cautious", rainRate001MmH: 28 },
    })
  ).json()) as JobDto;
  const at = (i: number): [number, number] => [
    LON + ((i % ROWS) - ROWS / 2) * STEP_DEG,
    LAT + (Math.floor(i / ROWS) - ROWS / 2) * STEP_DEG * 0.7,
  ];
  const town = {
    type: "FeatureCollection",
    features: Array.from({ length: ROWS * ROWS }, (_, i) => {
      const [w, s] = at(i);
      return {
        type: "Feature",
        properties: { name: `House ${i}`, height: 6 },
        geometry: {
          type: "Polygon",
          coordinates: [
            [
              [w, s],
              [w + SIDE_DEG, s],
              [w + SIDE_DEG, s + SIDE_DEG * 0.7],
              [w, s + SIDE_DEG * 0.7],
              [w, s],
            ],
          ],
        },
      };
    }),
  };
  const tiles: string[] = [];
  page.on("response", (r) => {
    if (r.url().includes("/obstacles/tiles/") && r.status() === 200) tiles.push(r.url());
  });
  await page.goto(`/jobs/${job.id}/ground`);
  await page.getByRole("button", { name: "Bring in", exact: true }).click();
  await page
    .getByTestId("import-file")
    .setInputFiles({ name: "town.geojson", mimeType: "application/geo+json", buffer: Buffer.from(JSON.stringify(town)) });
  await page.getByLabel("Height above ground").selectOption({ label: "height (6)" });
  await page.getByLabel("Unit of its heights").selectOption("m");
  await page.getByRole("combobox", { name: /^Name/ }).selectOption({ label: "name (House 0)" });
  await page.getByRole("button", { name: "Take it in" }).click();
  await expect(page.getByTestId("imports").getByText(/1,?600 obstacles kept/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole("button", { name: "Bring in", exact: true }).click();

  const map = page.getByTestId("map");
  const box = (await map.boundingBox())!;
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  // The job's centre is the corner of the house in the middle of the town; wider, so that all of it is in view.
  await page.mouse.move(middle.x, middle.y);
  await expect
    .poll(async () => {
      if (tiles.length === 0) await page.mouse.wheel(0, 240);
      return tiles.length;
    })
    .toBeGreaterThan(0);
  const inTile = page.getByRole("form", { name: /^Obstacle / });
  await expect(async () => {
    await page.mouse.click(middle.x + 4, middle.y - 4);
    await expect(inTile).toBeVisible({ timeout: 1500 });
  }).toPass();
  const name = await inTile.getByLabel("Name").inputValue();
  const read = tiles.length;
  await inTile.getByLabel("Name").fill("Town hall");
  await inTile.getByRole("button", { name: "Keep" }).click();
  await expect(inTile).toHaveCount(0);
  // What was changed is read again.
  await expect.poll(() => tiles.length).toBeGreaterThan(read);
  await page.mouse.click(middle.x + 4, middle.y - 4);
  await expect(page.getByRole("form", { name: "Obstacle Town hall" })).toBeVisible();
  expect(name).toMatch(/^House \d+$/);
  // Too many to snap to: said where it matters.
  await page.keyboard.press("Escape");
  await page.getByRole("toolbar", { name: "What the pointer does" }).getByRole("button", { name: "Draw", exact: true }).click();
  await expect(page.getByTestId("too-many-to-snap")).toBeVisible();
});
