import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { unzipSync } from "fflate";
import { demoJob, expectAccessible, noPageScroll } from "./helpers";

const dir = mkdtempSync(path.join(tmpdir(), "dry-arc-survey-"));

const openJob = async (page: Page, name: string, where: string): Promise<string> => {
  await page.goto("/");
  await page.getByRole("button", { name: "New job" }).click();
  await page.getByLabel("Customer or job").fill(name);
  await page.getByLabel(/Position of the first building/).fill(where);
  await page.getByRole("button", { name: "Make the job" }).click();
  await expect(page.getByTestId("map")).toHaveAttribute("data-drawn", /\d/);
  return page.url().split("/jobs/")[1]!.split("/")[0]!;
};
const ground = async (page: Page, jobId: string): Promise<{ x: number; y: number; width: number; height: number }> => {
  await page.goto(`/jobs/${jobId}/ground`);
  await expect(page.getByTestId("map")).toHaveAttribute("data-drawn", /\d/);
  return (await page.getByTestId("map").boundingBox())!;
};
/** Presses on the drawing, far enough apart in time that two are never one double press. */
const pressAt = async (page: Page, at: readonly (readonly [number, number])[]): Promise<void> => {
  for (const [x, y] of at) {
    await page.mouse.move(x, y, { steps: 2 });
    await page.mouse.click(x, y, { delay: 20 });
    await page.waitForFunction((t) => performance.now() > t, (await page.evaluate(() => performance.now())) + 320);
  }
};

test("the brief: devices become rates, a slip of units is asked about, and what is open is told", async ({ page, request }) => {
  const { job } = await demoJob(request);
  await page.goto(`/jobs/${job.id}/brief`);
  await expect(page.getByTestId("rates").getByRole("listitem")).toHaveCount(14);
  await expectAccessible(page);
  await noPageScroll(page);
  await expect(page.getByTestId("open-points")).toContainText("Planning: asked, no answer yet.");

  // Kilobits typed where megabits stand: asked about, mended by one press, kept over a reload.
  const row = page.getByLabel("Devices at the far ends").getByRole("listitem").filter({ hasText: "together" }).nth(2);
  await row.getByLabel("Up, if read off").fill("2500");
  await expect(page.getByLabel("Title strip")).toContainText("Enter keeps, Escape restores");
  await page.keyboard.press("Enter");
  await expect(row.getByText(/Is it 2.5 Mbit\/s, and kilobits were typed as megabits\?/)).toBeVisible();
  // Saved as typed first, so that the mend is a step of its own.
  await expect(page.getByLabel("Title strip")).toContainText("all edits");
  await row.getByRole("button", { name: "Use 2.5 Mbit/s" }).click();
  await expect(row.getByText("2500 kbit/s")).toBeVisible();
  await expect(page.getByLabel("Title strip")).toContainText("all edits");
  await page.reload();
  await expect(page.getByLabel("Devices at the far ends").getByLabel("Up, if read off").nth(2)).toHaveValue("2.5");
  const rope = page.getByTestId("rates").getByRole("listitem").filter({ hasText: "Rope Walk" });
  await rope.getByRole("button", { name: "Use 1 and 11" }).click();
  await expect(rope).toContainText("1 there, 11 back");
  // All steps go back: the rate of the link, then the brief twice.
  await page.getByRole("heading", { name: "Brief" }).click();
  await page.keyboard.press("Control+z");
  await expect(rope).toContainText("20 there, 40 back");
  const typed = page.getByLabel("Devices at the far ends").getByLabel("Up, if read off").nth(2);
  await page.keyboard.press("Control+z");
  await expect(typed).toHaveValue("2500");
  await page.keyboard.press("Control+z");
  await expect(typed).toHaveValue("");

  for (const tab of ["Shapes", "What is there", "Photos", "Permission"]) {
    await page.getByRole("tab", { name: new RegExp(tab) }).click();
    await expectAccessible(page);
  }
  await page.getByRole("heading", { name: "Brief" }).click();
  await page.keyboard.press("3");
  await expect(page.getByRole("tab", { name: /What is there/ })).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("5");
  await page.getByLabel("Heritage: how it stands").selectOption("not-needed");
  await expect(page.getByTestId("open-points")).not.toContainText("Heritage");
  await page.getByLabel("Heritage: how it stands").selectOption("open");
  await page.getByRole("tab", { name: /Shapes/ }).click();
  await page.getByLabel("Duct between them").selectOption("clear");
  await page.getByLabel("For the way").selectOption({ index: 0 });
  await expect(page.getByRole("row", { name: /Copper cable/ })).toContainText("longer than the 90.0 m that copper carries");
  await expect(page.getByRole("row", { name: /Fibre/ })).toContainText("fits");
  await page.getByLabel("Duct between them").selectOption("none");
  await expect(page.getByLabel("Title strip")).not.toContainText("saving");
});

test("an obstacle drawn, its height told by angles, its corners moved, cut, and all of it taken back", async ({ page }) => {
  const jobId = await openJob(page, "Drawing", "47.3000 N, 19.4000 W");
  const box = await ground(page, jobId);
  const at = (dx: number, dy: number) => [box.x + box.width / 2 + dx, box.y + box.height / 2 + dy] as const;
  await page.keyboard.press("d");
  await expectAccessible(page);
  await pressAt(page, [at(-60, -60), at(20, -60), at(20, 0), at(-60, 0), at(-60, -60)]);
  const form = page.getByRole("form", { name: "New obstacle" });
  await form.getByLabel("Name").fill("Boat shed");
  await form.getByLabel("Height told by").selectOption("one");
  await form.getByLabel("Distance to it").fill("20");
  await form.getByLabel("Up to the top, °").fill("20");
  await form.getByLabel("To the foot, ° (down is −)").fill("-4");
  await expect(form.getByText(/^8\.7\sm ± 0\.3\sm$/)).toBeVisible();
  await form.getByRole("button", { name: "Use it" }).click();
  await form.getByLabel("Height above ground").fill("26");
  await expect(form.getByRole("status")).toHaveCount(0);
  await form.getByLabel("Height above ground").fill("95");
  await expect(form.getByText(/Is it 28\.956 m, and feet were typed as metres/)).toBeVisible();
  await form.getByLabel("Height above ground").fill("8.7");
  await expectAccessible(page);
  const saved = page.waitForResponse((r) => r.url().endsWith("/obstacles") && r.request().method() === "POST");
  await form.getByRole("button", { name: "Put it there" }).click();
  expect((await saved).status()).toBe(200);

  const obstacles = async () =>
    (
      (await (await page.request.get(`/api/jobs/${jobId}/obstacles?westDeg=-20&southDeg=47&eastDeg=-19&northDeg=48`)).json()) as {
        obstacles: { name: string; heightM: number; outline: unknown[]; heightSource: string }[];
      }
    ).obstacles;
  await expect.poll(async () => (await obstacles()).map((o) => [o.name, o.heightM, o.outline.length])).toEqual([["Boat shed", 8.7, 4]]);
  await page.keyboard.press("Escape");
  await pressAt(page, [at(-20, -30)]);
  const kept = page.getByRole("form", { name: "Obstacle Boat shed" });
  await expect(kept).toBeVisible();

  // A corner is added on an edge and dragged out.
  await kept.getByRole("button", { name: "Move its corners" }).click();
  await page.mouse.move(...at(20, -30));
  await page.mouse.down();
  await page.mouse.move(...at(60, -30), { steps: 5 });
  await page.mouse.up();
  await expect(kept.getByText("5 corners")).toBeVisible();
  await kept.getByRole("button", { name: "Keep" }).click();
  await expect.poll(async () => (await obstacles()).map((o) => o.outline.length)).toEqual([5]);

  await pressAt(page, [at(-20, -30)]);
  await page.getByRole("button", { name: "Cut in two" }).click();
  await pressAt(page, [at(-20, -90), at(-20, 40), at(-20, 40)]);
  await expect.poll(async () => (await obstacles()).length).toBe(2);

  await page.getByTestId("map").focus();
  for (const left of [1, 1]) {
    const answered = page.waitForResponse((r) => r.url().endsWith("/undo"));
    await page.keyboard.press("Control+z");
    expect((await answered).status()).toBe(200);
    await expect.poll(async () => (await obstacles()).length).toBeGreaterThanOrEqual(left);
  }
  await expect.poll(async () => (await obstacles()).map((o) => o.outline.length)).toEqual([4]);
  await page.keyboard.press("h");
  await expect(
    page.getByTestId("history").getByRole("listitem").filter({ hasText: "obstacle Boat shed, changed: outline" }).first(),
  ).toBeVisible();
  await expectAccessible(page);
  await page
    .getByTestId("history")
    .getByRole("listitem")
    .filter({ hasText: "obstacle Boat shed, added" })
    .getByRole("button", { name: "Take back" })
    .last()
    .click();
  await expect.poll(async () => (await obstacles()).length).toBe(0);
});

test("with the keyboard alone: a row of trees typed corner by corner, a named place, a measure", async ({ page }) => {
  const jobId = await openJob(page, "Keyboard", "47.3000 N, 19.4000 W");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("Draw: row");
  await page.keyboard.press("Enter");
  await page.getByText("Type its corners").focus();
  await page.keyboard.press("Enter");
  await page.getByLabel("Latitude, longitude, one corner a line").focus();
  await page.keyboard.type("47.3010 N, 19.4000 W\n47.3010 N, 91° W");
  await page.getByRole("button", { name: "Draw it" }).focus();
  await page.keyboard.press("Enter");
  await page.getByRole("form", { name: "New obstacle" }).getByLabel("Name").fill("Limes");
  await page.keyboard.press("Enter");
  // The form leaves when it is saved: until then a key is a letter of its name.
  await expect(page.getByRole("form", { name: "New obstacle" })).toBeHidden();
  await expect
    .poll(async () =>
      (
        (await (await page.request.get(`/api/jobs/${jobId}/obstacles?westDeg=-100&southDeg=47&eastDeg=-19&northDeg=48`)).json()) as {
          obstacles: { name: string; kind: string }[];
        }
      ).obstacles.map((o) => [o.name, o.kind]),
    )
    .toEqual([["Limes", "row"]]);
  await page.keyboard.press("Escape");
  for (const [name, where] of [
    ["A", "47.3000, -19.4000"],
    ["B", "47.3030, -19.4000"],
  ] as const) {
    await page.keyboard.press("p");
    await page.getByLabel("Name").fill(name);
    await page.getByLabel("Latitude, longitude").fill(where);
    await page.keyboard.press("Enter");
    await expect(page.getByText(name === "A" ? "Sites, 1" : "Sites, 2")).toBeVisible();
  }
  await page.getByTestId("map").focus();
  await page.keyboard.press("r");
  await page.getByLabel("Or from").selectOption("A");
  await page.getByLabel("And to").selectOption("B");
  await page.getByRole("button", { name: "Measure it" }).press("Enter");
  await expect(page.getByTestId("measured")).toContainText(/333\.5\sm/);
  await expect(page.getByTestId("measured")).toContainText("000.0° true");
  await expectAccessible(page);
});

test("terrain and buildings of one's own are brought in, asked about, and taken away as a whole", async ({ page }) => {
  // Open ocean where the demo has no ground.
  const jobId = await openJob(page, "Own ground", "44.0000 N, 21.0000 W");
  await expect(page.getByText("No terrain is known here: paths stay Unknown. The grid is in metres.")).toBeVisible();
  writeFileSync(
    path.join(dir, "g.asc"),
    `ncols 300\nnrows 300\nxllcorner 495000\nyllcorner 4868000\ncellsize 30\n${"12.5 ".repeat(90_000)}`,
  );
  execFileSync("gdal_translate", [
    "-q",
    "-a_srs",
    "EPSG:32627",
    "-ot",
    "Float32",
    "-co",
    "COMPRESS=DEFLATE",
    path.join(dir, "g.asc"),
    path.join(dir, "hills.tif"),
  ]);
  await page.keyboard.press("b");
  await page
    .getByTestId("import-file")
    .setInputFiles({ name: "holiday.jpg", mimeType: "image/jpeg", buffer: Buffer.from([255, 216, 255, 1, 2]) });
  await expect(page.getByText("This file cannot be taken in: it is no GeoJSON, KML, KMZ, GPX or CSV.")).toBeVisible();
  await page.getByTestId("import-file").setInputFiles(path.join(dir, "hills.tif"));
  await expect(page.getByText(/GeoTIFF, 300 × 300 cells of 30\sm\. WGS 84 \/ UTM zone 27N\./)).toBeVisible();
  await expect(page.getByText("Still to say: what its heights are of, their unit, what they are counted from.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Take it in" })).toBeDisabled();
  await expectAccessible(page);
  await page.getByLabel("Its heights are of").selectOption("dtm");
  await page.getByLabel("Unit of its heights").selectOption("m");
  await page.getByLabel("Counted from").selectOption("ellipsoid");
  await expect(page.getByText("Still to say: the offset to mean sea level.")).toBeVisible();
  await page.getByLabel("To add, to reach mean sea level").fill("-2.5");
  await page.getByRole("button", { name: "Take it in" }).click();
  const imports = page.getByTestId("imports");
  await expect(imports.getByText("taken in")).toBeVisible({ timeout: 30_000 });
  const height = async () =>
    (
      (await (await page.request.post(`/api/jobs/${jobId}/heights`, { data: { points: [[-21, 44]] } })).json()) as {
        heights: { groundAmslM: number | null }[];
      }
    ).heights[0]!.groundAmslM;
  expect(await height()).toBe(10);
  await page.keyboard.press("k");
  await expect(page.getByRole("button", { name: "hills" })).toBeVisible();
  await expect(page.getByText("heights from ellipsoid, −2.50")).toBeVisible();

  const houses = {
    type: "FeatureCollection",
    features: [0, 1, 2].map((i) => ({
      type: "Feature",
      properties: { label: `House ${i}`, tall: i === 2 ? null : 20 + i },
      geometry: {
        type: "Polygon",
        coordinates: [
          [
            [-21 + i * 0.001, 44],
            [-20.9998 + i * 0.001, 44],
            [-20.9998 + i * 0.001, 44.0002],
            [-21 + i * 0.001, 44],
          ],
        ],
      },
    })),
  };
  await page.keyboard.press("b");
  await page
    .getByTestId("import-file")
    .setInputFiles({ name: "houses.geojson", mimeType: "application/geo+json", buffer: Buffer.from(JSON.stringify(houses)) });
  await expect(page.getByText(/GeoJSON: 3 places; 3 outlines/)).toBeVisible();
  await page.getByLabel("Height above ground").selectOption({ label: "tall (20)" });
  await page.getByLabel("Unit of its heights").selectOption("ft");
  await page.getByRole("combobox", { name: /^Name/ }).selectOption({ label: "label (House 0)" });
  await page.getByRole("button", { name: "Take it in" }).click();
  await expect(imports.getByText("2 obstacles kept, 1 refused")).toBeVisible({ timeout: 30_000 });
  await imports.getByText("Refused rows and why").click();
  await expect(imports.getByText("Row 3: it has no height")).toBeVisible();
  await expectAccessible(page);

  // One step back takes the whole import; the list brings it back, and takes the ground away.
  await page.getByTestId("map").focus();
  await page.keyboard.press("Control+z");
  await expect(imports.getByText("taken away again")).toBeVisible();
  await imports.getByRole("button", { name: "Bring it back" }).click();
  await expect(imports.getByRole("button", { name: "Take it all away" })).toHaveCount(2);
  await imports.getByRole("listitem").filter({ hasText: "hills.tif" }).getByRole("button", { name: "Take it all away" }).click();
  await expect.poll(height).toBeNull();
});

test("what can be seen from a mount, and how much higher would do for what cannot", async ({ page, request }) => {
  const { job } = await demoJob(request);
  await ground(page, job.id);
  await page.keyboard.press("v");
  await page.getByLabel("From").selectOption("Water Tower");
  await page.getByRole("button", { name: "Look about" }).click();
  const answer = page.getByTestId("view-answer");
  await expect(answer).toContainText(/\d+ % of the known ground in view is seen/, { timeout: 30_000 });
  await expect(answer.getByRole("listitem").filter({ hasText: "Net Store" })).toContainText(/hidden: 1\.\d\sm higher would do/);
  await expect(answer.getByRole("listitem").filter({ hasText: "Sailing School" })).toContainText("seen");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Clear it" }).click();
  await expect(answer).toHaveCount(0);
});

test("two browsers on one job see each other's edits", async ({ page, browser }) => {
  const jobId = await openJob(page, "Two people", "47.3000 N, 19.4000 W");
  const other = await (await browser.newContext()).newPage();
  await other.goto(`/jobs/${jobId}/ground`);
  await expect(other.getByText("Sites, 0")).toBeVisible();
  await page.getByRole("button", { name: "Place a site" }).click();
  await page.getByLabel("Name").fill("Shed");
  await page.getByLabel("Latitude, longitude").fill("47.3010, -19.4010");
  await page.getByRole("button", { name: "Place it" }).click();
  await expect(other.getByText("Sites, 1")).toBeVisible();
  // Both have the site open; the second to keep it is told.
  for (const p of [page, other]) {
    await p.getByText("Sites, 1").click();
    await p.getByRole("button", { name: "Shed", exact: true }).click();
  }
  await other.route(/\/events\?client=/, (route) => route.abort());
  await page.getByLabel(/Mount above ground/).fill("11");
  await page.getByRole("button", { name: "Keep" }).click();
  await expect(page.getByRole("form", { name: "Site Shed" })).toHaveCount(0);
  const stale = await other.request.patch(
    `/api/jobs/${jobId}/sites/${((await (await other.request.get(`/api/jobs/${jobId}`)).json()) as { sites: { id: string }[] }).sites[0]!.id}`,
    { data: { version: 1, mountAglM: 3 } },
  );
  expect(stale.status()).toBe(409);
  await other.context().close();
});

test("a line of news that broke off: what others changed meanwhile is read once it is open again", async ({ page, request }) => {
  const jobId = await openJob(page, "Broken line", "47.3000 N, 19.4000 W");
  let [asked, changed] = [(): void => undefined, (): void => undefined];
  const askedAgain = new Promise<void>((resolve) => {
    asked = resolve;
  });
  const wasChanged = new Promise<void>((resolve) => {
    changed = resolve;
  });
  let lines = 0;
  await page.route(/\/events\?client=/, async (route) => {
    lines++;
    if (lines === 1) return route.fulfill({ contentType: "text/event-stream", body: "retry: 200\n\n" });
    asked();
    await wasChanged;
    return route.continue();
  });
  await page.goto(`/jobs/${jobId}/ground`);
  await expect(page.getByText("Sites, 0")).toBeVisible();
  await askedAgain;
  const made = await request.post(`/api/jobs/${jobId}/sites`, { data: { name: "Shed", latDeg: 47.301, lonDeg: -19.401, mountAglM: 5 } });
  expect(made.ok()).toBe(true);
  await expect(page.getByText("Sites, 0")).toBeVisible();
  changed();
  await expect(page.getByText("Sites, 1")).toBeVisible();
});

test("the survey on the phone keeps what was typed over a reload, and saves it", async ({ browser, request, baseURL }) => {
  const { job } = await demoJob(request);
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    geolocation: { latitude: 47.3011, longitude: -19.3969, accuracy: 9 },
    permissions: ["geolocation"],
    hasTouch: true,
  });
  const page = await context.newPage();
  await page.goto(`${baseURL}/jobs/${job.id}/survey`);
  await page.getByRole("button", { name: /Net Store/ }).click();
  const before = await page.getByLabel("Mount above ground").inputValue();
  // Out of coverage: nothing goes out, and the phone is told so.
  await page.route("**/sites/**", (route) => route.abort());
  await page.getByLabel("earth point seen").check();
  await page.getByLabel("Notes").fill("gate code from the harbour master");
  await expect(page.getByTestId("saved")).toContainText("No connection. Everything is kept on this phone");
  await expectAccessible(page);
  await page.reload();
  await page.getByRole("button", { name: /Net Store/ }).click();
  await expect(page.getByLabel("Notes")).toHaveValue("gate code from the harbour master");
  await expect(page.getByLabel("earth point seen")).toBeChecked();
  await expect(page.getByLabel("Mount above ground")).toHaveValue(before);
  const picture = await page.screenshot({ type: "jpeg" });
  await page.getByTestId("photo-file").setInputFiles({ name: "view.jpg", mimeType: "image/jpeg", buffer: picture });
  await expect(page.getByTestId("photos").getByRole("img")).toHaveCount(1);
  await page.unroute("**/sites/**");
  await expect(page.getByTestId("saved")).toHaveText("All saved");
  const { sites } = (await (await request.get(`/api/jobs/${job.id}`)).json()) as {
    sites: { name: string; notes: string; ticks: string[] }[];
  };
  expect(sites.find((s) => s.name === "Net Store")).toMatchObject({
    notes: "gate code from the harbour master",
    ticks: ["earth point seen"],
  });
  await page.getByRole("button", { name: "Take the phone's position" }).click();
  await expect(page.getByText(/Position taken, ± 9\sm/)).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.getByRole("button", { name: "Net Store is done" }).click();
  await expect(page.getByRole("button", { name: /Net Store/ })).toContainText("1 of 8");
  await page.evaluate(() => localStorage.clear());
  await context.close();
});

test("ground told by hand judges a path without terrain; parts and the whole of the job come out as files", async ({ page }) => {
  const jobId = await openJob(page, "Yard", "44.5000 N, 23.0000 W");
  for (const [name, where] of [
    ["Office", "44.5000, -23.0000"],
    ["Workshop", "44.5005, -23.0000"],
  ] as const) {
    await page.getByRole("button", { name: "Place a site" }).click();
    await page.getByLabel("Name").fill(name);
    await page.getByLabel("Latitude, longitude").fill(where);
    await page.getByRole("button", { name: "Place it" }).click();
    await expect(page.getByText(name === "Office" ? "Sites, 1" : "Sites, 2")).toBeVisible();
  }
  await page.getByRole("button", { name: "Join two sites" }).click();
  await page.getByLabel("Near end").selectOption("Office");
  await page.getByLabel("Far end").selectOption("Workshop");
  await page.getByRole("button", { name: "Join them" }).click();
  const chosen = page.getByLabel("Chosen link");
  await expect(chosen).toContainText("Unknown");
  await chosen.getByRole("button", { name: "Its ground" }).click();
  await page.getByLabel("Taken from").selectOption("typed");
  await page.getByLabel(/Distance from the near end/).fill("0 5\n30 five\n55 5");
  await page.getByRole("button", { name: "Keep" }).click();
  await expect(page.getByText('Line 2, "30 five", is not a distance and a height.')).toBeVisible();
  await page.getByLabel(/Distance from the near end/).fill("0 5\n30 4.6\n55 5");
  await page.getByRole("button", { name: "Keep" }).click();
  await expect(chosen).toContainText(/\d\.\d\sm spare/);
  await expect(chosen).toContainText("Ground told by hand: 3 heights.");

  await page.keyboard.press("t");
  await page.getByLabel("Part of the job").selectOption("links");
  await page.getByLabel("Written as").selectOption("kml");
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Take it out" }).click()]);
  expect(file.suggestedFilename()).toBe("yard-links.kml");
  const [whole] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Take the whole job out" }).click()]);
  const at = path.join(dir, "yard.zip");
  await whole.saveAs(at);
  expect(Object.keys(unzipSync(readFileSync(at)))).toEqual(
    expect.arrayContaining(["manifest.json", "sites.json", "links.json", "brief.json"]),
  );
  // It is here already; as a copy it stands beside itself.
  await page.goto("/");
  await page.getByRole("button", { name: "Bring in", exact: true }).click();
  await page.getByTestId("bundle-file").setInputFiles(at);
  await expect(page.getByText(/job \d+, Yard, is here already; bring it in as a copy/)).toBeVisible();
  await page.getByRole("button", { name: "Take it in as a copy" }).click();
  await page.waitForURL(/\/ground$/);
  await expect(page.getByLabel("Title strip")).toContainText("Yard, copy");
  await expect(page.getByText(/m spare/).first()).toBeVisible();
  expect(page.url()).not.toContain(jobId);
});
