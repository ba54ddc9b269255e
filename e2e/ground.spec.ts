import { expect, test } from "@playwright/test";
import { demoJob, expectAccessible, newJob, noPageScroll } from "./helpers";

test.describe.configure({ mode: "serial" });

test("register and ground: what is drawn, and axe finds nothing", async ({ page, request }) => {
  await page.goto("/");
  await page.getByRole("row", { name: /Merrow Harbour Trust/ }).click();
  await expect(page.getByRole("link", { name: "Rope Walk" })).toBeVisible();
  await expectAccessible(page);
  await noPageScroll(page);
  const { job } = await demoJob(request);
  await page.goto(`/jobs/${job.id}/ground`);
  await expect(page.getByTestId("map")).toHaveAttribute("data-drawn", /\d/);
  await expect(page.getByText(/Contours every 5\sm; Harbour 2 m survey/)).toBeVisible();
  // Pixels: water, paper, ink and vermilion all stand on the canvas.
  const colours = await page.evaluate(() => {
    const seen = new Set<string>();
    for (const canvas of document.querySelectorAll<HTMLCanvasElement>(".map canvas")) {
      const data = canvas.getContext("2d")!.getImageData(0, 0, canvas.width, canvas.height).data;
      for (let i = 0; i < data.length; i += 4) if (data[i + 3] === 255) seen.add(`${data[i]},${data[i + 1]},${data[i + 2]}`);
    }
    return { water: seen.has("237,240,240"), short: seen.has("204,58,22"), ink: seen.has("20,32,46"), many: seen.size > 30 };
  });
  expect(colours).toEqual({ water: true, short: true, ink: true, many: true });
  await expectAccessible(page);
  await noPageScroll(page);
});

test("a job of one's own: made, two sites placed, joined, judged; wrong input is named", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "New job" }).click();
  await page.getByLabel("Customer or job").fill("Kelp Works");
  await page.getByLabel(/Position of the first building/).fill("95, -19.4");
  await page.getByRole("button", { name: "Make the job" }).click();
  await expect(page.getByText("Latitude 95° is out of range; it must be between -90 and 90.")).toBeVisible();
  await page.getByLabel(/Position of the first building/).fill("47.3000 N, 19.4000 W");
  await page.getByLabel("Rules").selectOption("FCC-like");
  await page.getByRole("button", { name: "Make the job" }).dblclick();
  await expect(page.getByTestId("map")).toHaveAttribute("data-drawn", /\d/);

  // The first site by pressing the drawing, the second by typing.
  await page.keyboard.press("p");
  const map = page.getByTestId("map");
  const box = (await map.boundingBox())!;
  await map.click({ position: { x: box.width / 2 + 30, y: box.height / 2 - 20 } });
  await expect(page.getByLabel("Latitude, longitude")).toHaveValue(/47\.30/);
  await page.getByLabel("Name").fill("Shed");
  await page.getByLabel(/Mount above ground/).fill("-3");
  await page.getByRole("button", { name: "Place it" }).click();
  await expect(page.getByText("height must be 0 m or above.")).toBeVisible();
  await page.getByLabel(/Mount above ground/).fill("8");
  await page.getByRole("button", { name: "Place it" }).click();
  await expect(page.getByText("Sites, 1")).toBeVisible();

  const place = async (name: string, where: string): Promise<void> => {
    await page.getByRole("button", { name: "Place a site" }).click();
    await page.getByLabel("Name").fill(name);
    await page.getByLabel("Latitude, longitude").fill(where);
    await page.getByRole("button", { name: "Place it" }).click();
  };
  await place("Office", "47.3040, -19.3960");
  await expect(page.getByText("Sites, 2")).toBeVisible();
  await place("Twin", "47.3040, -19.3960");
  await expect(page.getByText("Office already stands on this spot: two sites must be at least 2 m apart.")).toBeVisible();
  await page.getByLabel("Latitude, longitude").fill("47.3040, 19.3960");
  await page.getByRole("button", { name: "Place it" }).click();
  await expect(page.getByText(/This lies .* from the nearest place of this job\. Is it right\?/)).toBeVisible();
  await expect(page.getByText(/Office already stands/)).toBeHidden();
  await page.getByRole("button", { name: /^Use 47\.304000° N, 19\.396000° W/ }).press("Enter");
  await expect(page.getByLabel("Latitude, longitude")).toHaveValue(/19\.396000° W/);
  await page.getByLabel("Latitude, longitude").fill("55.9, -19.3960");
  await page.getByRole("button", { name: "Place it" }).click();
  await page.getByRole("button", { name: "It is right, keep it" }).click();
  await expect(page.getByText("Sites, 3")).toBeVisible();

  await page.getByRole("button", { name: "Join two sites" }).click();
  await page.getByLabel("Near end").selectOption("Shed");
  await page.getByLabel("Far end").selectOption("Twin");
  await page.getByRole("button", { name: "Join them" }).click();
  await expect(page.getByText(/These sites are \d+\.\d+\skm apart; a link may be 5\.0\sm to 100\.00\skm long\./)).toBeVisible();
  await page.getByLabel("Far end").selectOption("Office");
  await expect(page.getByText(/there \d{3}\.\d° true, back/)).toBeVisible();
  await page.getByRole("button", { name: "Join them" }).click();
  await expect(page.getByRole("button", { name: /^Office/ })).toHaveAttribute("aria-pressed", "true");

  // Undone and done again; then a site is dragged and its link follows.
  await page.getByTestId("map").focus();
  await page.keyboard.press("Control+z");
  await expect(page.getByText("none yet").first()).toBeVisible();
  await page.keyboard.press("Control+Shift+z");
  await expect(page.getByRole("button", { name: /^Office/ })).toBeVisible();
  await page.getByRole("link", { name: "Open section" }).click();
  await expect(page.getByTestId("verdict")).toHaveText(/Clear|Tight|Short|Unknown/);
  await expect(page.getByTestId("expected-level")).toContainText("dBm");
});

test("two sites joined with the pointer, distance and bearings shown on the way; a site is dragged", async ({ page, request }) => {
  const { job } = await demoJob(request);
  await page.goto(`/jobs/${job.id}/ground`);
  await expect(page.getByTestId("map")).toHaveAttribute("data-drawn", /\d/);
  const { sites } = (await (await request.get(`/api/jobs/${job.id}`)).json()) as {
    sites: { name: string; latDeg: number; lonDeg: number }[];
  };
  const map = page.getByTestId("map");
  // Where two sites stand on the drawing follows from the scale line: metres a pixel about the middle of the fit.
  const found = async (name: string): Promise<{ x: number; y: number }> => {
    const box = (await map.boundingBox())!;
    const close = sites.filter((s) => Math.hypot((s.latDeg - job.centreLatDeg) * 111_000, (s.lonDeg - job.centreLonDeg) * 75_500) < 1300);
    const [north, south] = [Math.max(...close.map((s) => s.latDeg)), Math.min(...close.map((s) => s.latDeg))];
    const [east, west] = [Math.max(...close.map((s) => s.lonDeg)), Math.min(...close.map((s) => s.lonDeg))];
    const site = sites.find((s) => s.name === name)!;
    const guess = {
      x: box.x + 90 + ((site.lonDeg - west) / (east - west)) * (box.width - 180),
      y: box.y + 90 + ((north - site.latDeg) / (north - south)) * (box.height - 160),
    };
    // The pointer turns to a hand over a site; look about the guess for it.
    for (let r = 0; r <= 60; r += 6) {
      for (let a = 0; a < 360; a += 30) {
        const at = { x: guess.x + r * Math.cos((a * Math.PI) / 180), y: guess.y + r * Math.sin((a * Math.PI) / 180) };
        await page.mouse.move(at.x, at.y);
        if ((await map.evaluate((e) => e.style.cursor)) === "pointer") return at;
      }
    }
    throw new Error(`${name} is not on the drawing`);
  };
  await page.keyboard.press("j");
  const from = await found("Weighbridge");
  await page.mouse.click(from.x, from.y);
  await expect(page.getByLabel("Near end")).not.toHaveValue("");
  await page.mouse.move(from.x + 120, from.y + 60);
  await expect(page.getByTestId("reach")).toContainText(/\d+\.\d\sm/);
  await expect(page.getByTestId("reach")).toContainText(/there \d{3}\.\d° true, \d{3}\.\d° magnetic/);
  const to = await found("Museum Hulk");
  await page.mouse.click(to.x, to.y);
  await expect(page.getByRole("button", { name: /^Museum Hulk/ })).toHaveAttribute("aria-pressed", "true");

  await page.keyboard.press("m");
  const at = await found("Museum Hulk");
  await page.mouse.down();
  await page.mouse.move(at.x + 20, at.y + 10, { steps: 4 });
  await expect(page.getByTestId("reach")).toContainText("magnetic");
  const moved = page.waitForResponse((r) => r.url().includes("/sites/") && r.request().method() === "PATCH");
  await page.mouse.up();
  expect((await moved).status()).toBe(200);
  await page.getByTestId("map").focus();
  for (let i = 0; i < 2; i++) {
    const answered = page.waitForResponse((r) => r.url().endsWith("/undo") && r.request().method() === "POST");
    await page.keyboard.press("Control+z");
    expect((await answered).status()).toBe(200);
  }
  await expect(page.getByRole("button", { name: /^Museum Hulk/ })).toHaveCount(0);
});

test("a form that is open while others edit: their fields stay, the same field is asked about, and nothing typed is lost", async ({
  page,
  request,
}) => {
  const job = { id: await newJob(request, "Two hands", 45, -24) };
  const made = await request.post(`/api/jobs/${job.id}/sites`, { data: { name: "Kiln", latDeg: 45, lonDeg: -24, mountAglM: 5 } });
  const site = (await made.json()) as { id: string; version: number };
  const path = `/api/jobs/${job.id}/sites/${site.id}`;
  const now = async () => (await (await request.get(path)).json()) as { name: string; mountAglM: number; notes: string; version: number };
  /** Somebody else's edit, of which this page hears. */
  const other = async (fields: object): Promise<void> => {
    const { version } = await now();
    expect((await request.patch(path, { data: { version, ...fields } })).status()).toBe(200);
  };
  await page.goto(`/jobs/${job.id}/ground`);
  await page.getByText("Sites, 1").click();
  await page.getByRole("button", { name: "Kiln", exact: true }).click();
  const form = page.getByRole("form", { name: /^Site / });
  await form.getByText("More of this site").click();
  await form.getByLabel("Notes").fill("dog in the yard");
  await other({ name: "Lime kiln", mountAglM: 7 });
  // The page has heard of it: the form is still the one that was opened, with what was typed.
  await expect(page.getByRole("form", { name: "Site Lime kiln" })).toBeVisible();
  await expect(form.getByLabel("Notes")).toHaveValue("dog in the yard");
  await form.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(form).toHaveCount(0);
  expect(await now()).toMatchObject({ name: "Lime kiln", mountAglM: 7, notes: "dog in the yard" });

  const open = async (): Promise<void> => {
    const row = page.getByRole("button", { name: "Lime kiln", exact: true });
    if (!(await row.isVisible())) await page.getByText("Sites, 1").click();
    await row.click();
  };
  await open();
  await form.getByLabel(/^Mount above ground/).fill("9");
  await other({ mountAglM: 8 });
  await form.getByRole("button", { name: "Keep", exact: true }).click();
  const clash = page.getByRole("alert", { name: "Changed elsewhere" });
  await expect(clash.getByRole("row", { name: /mount height/ })).toContainText(/9\sm.*8\sm/);
  await expectAccessible(page);
  await clash.getByRole("button", { name: "Take theirs" }).click();
  await expect(form.getByLabel(/^Mount above ground/)).toHaveValue("8");
  await form.getByLabel(/^Mount above ground/).fill("9.5");
  await other({ mountAglM: 8.5 });
  await form.getByRole("button", { name: "Keep", exact: true }).click();
  await clash.getByRole("button", { name: "Keep mine" }).click();
  await expect(form).toHaveCount(0);
  expect((await now()).mountAglM).toBe(9.5);
});

test("what nobody touched in a form stays to the last digit, in feet too: no edit, and no clash over a rounded position", async ({
  page,
  request,
}) => {
  const job = { id: await newJob(request, "Digits", 45.5, -24) };
  const exact = { latDeg: 45.50000012345, lonDeg: -24.00000067891, mountAglM: 5 };
  const made = await request.post(`/api/jobs/${job.id}/sites`, { data: { name: "Kiln", ...exact } });
  const { id } = (await made.json()) as { id: string };
  const path = `/api/jobs/${job.id}/sites/${id}`;
  const now = async () =>
    (await (await request.get(path)).json()) as { latDeg: number; lonDeg: number; mountAglM: number; owner: string; version: number };
  await page.goto(`/jobs/${job.id}/ground`);
  await page.getByRole("button", { name: /^Units: metric/ }).click();
  await page.getByText("Sites, 1").click();
  await page.getByRole("button", { name: "Kiln", exact: true }).click();
  const form = page.getByRole("form", { name: "Site Kiln" });
  await form.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(form).toHaveCount(0);
  expect(await now()).toMatchObject({ ...exact, version: 1 });

  const row = page.getByRole("button", { name: "Kiln", exact: true });
  if (!(await row.isVisible())) await page.getByText("Sites, 1").click();
  await row.click();
  await form.getByText("More of this site").click();
  await form.getByLabel("Who owns it").fill("the harbour");
  const moved = { latDeg: 45.5001, lonDeg: -24.0002 };
  expect((await request.patch(path, { data: { version: 1, ...moved } })).status()).toBe(200);
  await form.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(form).toHaveCount(0);
  expect(await now()).toMatchObject({ ...moved, mountAglM: 5, owner: "the harbour" });
});
