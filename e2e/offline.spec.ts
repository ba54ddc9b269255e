/* The survey without coverage: opened once with it, it opens again without; what is done there is kept and sent. */
import { type BrowserContext, expect, type Page, test } from "@playwright/test";
import type { JobDto, PhotoDto, SiteDto } from "../src/contract";
import { cluster, newJob } from "./helpers";

/** A picture of the smallest kind that a browser reads. */
const picture = async (page: Page): Promise<Buffer> => {
  const base64 = await page.evaluate(() => {
    const c = document.createElement("canvas");
    c.width = c.height = 40;
    c.getContext("2d")!.fillRect(5, 5, 30, 30);
    return c.toDataURL("image/jpeg").split(",")[1]!;
  });
  return Buffer.from(base64, "base64");
};

/** Once the page is kept: its worker stands between, and holds the page and its job. */
const untilKept = (page: Page, jobId: string): Promise<void> =>
  expect
    .poll(() =>
      page.evaluate(async (id) => {
        const held = await Promise.all([`/jobs/${id}/survey`, `/api/jobs/${id}`, `/api/jobs/${id}/photos`].map((p) => caches.match(p)));
        return navigator.serviceWorker.controller !== null && held.every((r) => r !== undefined);
      }, jobId),
    )
    .toBe(true);

const phone = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };

test.describe("without coverage", () => {
  let context: BrowserContext;
  test.beforeEach(async ({ browser, baseURL }) => {
    context = await browser.newContext({ ...phone, baseURL: baseURL! });
  });
  test.afterEach(async () => {
    cluster("start");
    await context.close();
  });

  test("the survey opens, a site is added, a photo taken; all of it is there when coverage is back", async ({ request }) => {
    const job = (await (
      await request.post("/api/jobs", {
        data: {
          name: "Far quay",
          visitOn: "2026-12-03",
          centreLatDeg: 47.3,
          centreLonDeg: -19.4,
          ruleDomain: "cautious",
          rainRate001MmH: 28,
        },
      })
    ).json()) as JobDto;
    await request.post(`/api/jobs/${job.id}/sites`, { data: { name: "Boat shed", latDeg: 47.3, lonDeg: -19.4, mountAglM: 5 } });
    let page = await context.newPage();
    await page.goto(`/jobs/${job.id}/survey`);
    await expect(page.getByRole("button", { name: /Boat shed/ })).toBeVisible();
    await untilKept(page, job.id);
    const jpeg = await picture(page);
    // A second look with the worker in between, as on the way to the site: what is fetched late is kept as well.
    await page.reload();
    await page.getByRole("button", { name: "Add a site here" }).click();
    await expect(page.getByRole("form", { name: "New site" })).toBeVisible();

    await context.setOffline(true);
    await page.close();
    page = await context.newPage();
    await page.goto(`/jobs/${job.id}/survey`);
    await expect(page.getByTestId("no-coverage")).toBeVisible();
    await page.getByRole("button", { name: /Boat shed/ }).click();
    await page.getByLabel("Notes").fill("Slip at low water");
    await page.getByLabel("Notes").blur();
    await expect(page.getByTestId("saved")).toContainText("kept on this phone");
    await page.getByTestId("photo-file").setInputFiles({ name: "bracket.jpg", mimeType: "image/jpeg", buffer: jpeg });
    await expect(page.getByTestId("waiting-photo")).toContainText("not sent yet");
    await page.getByRole("button", { name: "All sites" }).click();
    await expect(page.getByRole("button", { name: /Boat shed/ })).toContainText("not sent yet");

    await page.getByRole("button", { name: "Add a site here" }).click();
    await page.getByLabel("Name").fill("Signal mast");
    await page.getByLabel("Latitude, longitude").fill("47.301 N, 19.402 W");
    await page.getByRole("button", { name: "Add it" }).click();
    await expect(page.getByRole("heading", { name: "Signal mast" })).toBeVisible();
    await page.getByLabel("power point seen").check();
    await page.getByTestId("photo-file").setInputFiles({ name: "mast.jpg", mimeType: "image/jpeg", buffer: jpeg });
    await expect(page.getByTestId("waiting-photo")).toHaveCount(1);
    // The phone dies and is started again, still without coverage.
    await page.close();
    page = await context.newPage();
    await page.goto(`/jobs/${job.id}/survey`);
    await expect(page.getByRole("button", { name: /Signal mast/ })).toContainText("not sent yet");

    await context.setOffline(false);
    await expect(page.getByRole("button", { name: /Signal mast/ })).not.toContainText("not sent yet", { timeout: 30_000 });
    await expect(page.getByRole("button", { name: /Boat shed/ })).not.toContainText("not sent yet");
    await expect(page.getByTestId("no-coverage")).toHaveCount(0);
    const sites = (await (await request.get(`/api/jobs/${job.id}/sites`)).json()) as SiteDto[];
    expect(sites.map((s) => [s.name, s.notes, s.ticks])).toEqual(
      expect.arrayContaining([
        ["Boat shed", "Slip at low water", []],
        ["Signal mast", "", ["power point seen"]],
      ]),
    );
    expect(sites).toHaveLength(2);
    const photos = (await (await request.get(`/api/jobs/${job.id}/photos`)).json()) as PhotoDto[];
    expect(photos.map((p) => sites.find((s) => s.id === p.siteId)?.name).sort()).toEqual(["Boat shed", "Signal mast"]);
  });

  test("what waits is taken out as a file and brought in on another machine; sent afterwards as well, it is there once", async ({
    request,
    browser,
    baseURL,
  }) => {
    const job = { id: await newJob(request, "By hand", 47.3, -19.4) };
    const quay = (await (
      await request.post(`/api/jobs/${job.id}/sites`, { data: { name: "Boat shed", latDeg: 47.3, lonDeg: -19.4, mountAglM: 5 } })
    ).json()) as SiteDto;
    const page = await context.newPage();
    await page.goto(`/jobs/${job.id}/survey`);
    await expect(page.getByRole("button", { name: /Boat shed/ })).toBeVisible();
    await untilKept(page, job.id);
    const jpeg = await picture(page);
    await page.reload();
    await page.getByRole("button", { name: "Add a site here" }).click();
    await expect(page.getByRole("form", { name: "New site" })).toBeVisible();
    await page.getByRole("button", { name: "Leave it" }).click();

    await context.setOffline(true);
    await page.getByRole("button", { name: /Boat shed/ }).click();
    await page.getByLabel("Notes").fill("Slip at low water");
    await page.getByLabel("Notes").blur();
    await expect(page.getByTestId("saved")).toContainText("kept on this phone");
    await page.getByTestId("photo-file").setInputFiles({ name: "bracket.jpg", mimeType: "image/jpeg", buffer: jpeg });
    await expect(page.getByTestId("waiting-photo")).toHaveCount(1);
    await page.getByRole("button", { name: "All sites" }).click();
    const part = page.getByRole("region", { name: "Not sent yet" });
    await expect(part).toContainText("1 entry and 1 photo");
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      part.getByRole("button", { name: "Take them out as a file" }).tap(),
    ]);
    expect(download.suggestedFilename()).toMatch(/^dry-arc-unsent-[\d-]+\.zip$/);
    const file = await download.path();
    await expect(part.getByRole("status")).toContainText("They stay here as well");

    // Meanwhile somebody changed what the phone changed.
    await request.patch(`/api/jobs/${job.id}/sites/${quay.id}`, { data: { version: quay.version, notes: "Slip is new" } });
    const office = await browser.newContext({ baseURL: baseURL! });
    const desk = await office.newPage();
    await desk.goto("/");
    await desk.getByRole("button", { name: "Bring in", exact: true }).click();
    await desk.getByTestId("bundle-file").setInputFiles(file);
    await expect(desk.getByText(/1 entry and 1 photo of By hand/)).toBeVisible();
    await desk.getByRole("button", { name: "Bring it in" }).click();
    await expect(desk.getByText("Brought in: 1 photo.")).toBeVisible();
    const clash = desk.getByRole("alert", { name: "Changed elsewhere" });
    await expect(clash).toContainText("Slip at low water");
    await expect(clash).toContainText("Slip is new");
    await clash.getByRole("button", { name: "Keep mine" }).click();
    await expect(clash).toHaveCount(0);
    const notes = async (): Promise<string> =>
      ((await (await request.get(`/api/jobs/${job.id}/sites/${quay.id}`)).json()) as SiteDto).notes;
    expect(await notes()).toBe("Slip at low water");

    await context.setOffline(false);
    await expect(page.getByRole("region", { name: "Not sent yet" })).toHaveCount(0, { timeout: 30_000 });
    expect(await notes()).toBe("Slip at low water");
    expect((await (await request.get(`/api/jobs/${job.id}/photos`)).json()) as PhotoDto[]).toHaveLength(1);
    await office.close();
  });

  test("a server that does not answer is said, and asked again; a position with its sign left out is asked about", async ({ request }) => {
    const job = (await (
      await request.post("/api/jobs", {
        data: { name: "Slips", visitOn: "2026-12-03", centreLatDeg: 47.3, centreLonDeg: -19.4, ruleDomain: "cautious", rainRate001MmH: 28 },
      })
    ).json()) as JobDto;
    const page = await context.newPage();
    await page.goto(`/jobs/${job.id}/survey`);
    await untilKept(page, job.id);
    cluster("stop");
    await page.reload();
    await expect(page.getByTestId("no-coverage")).toContainText("The server does not answer. This is the job as it was last read here");
    await page.getByRole("button", { name: "Add a site here" }).click();
    await page.getByLabel("Name").fill("Store");
    await page.getByLabel("Latitude, longitude").fill("47.3004, 19.4004");
    await page.getByRole("button", { name: "Add it" }).click();
    await page.getByRole("button", { name: /47\.300400.* N, 19\.400400.* W/ }).click();
    await page.getByRole("button", { name: "Add it" }).click();
    await expect(page.getByRole("heading", { name: "Store" })).toBeVisible();
    cluster("start");
    await expect(page.getByTestId("no-coverage")).toHaveCount(0, { timeout: 20_000 });
    // It stays open over all of it, and is in the list.
    await expect(page.getByRole("heading", { name: "Store" })).toBeVisible();
    await expect(page.getByTestId("saved")).toHaveText("All saved");
    await page.getByRole("button", { name: "All sites" }).click();
    await expect(page.getByRole("button", { name: /Store/ })).not.toContainText("not sent yet");
    await expect
      .poll(async () =>
        ((await (await request.get(`/api/jobs/${job.id}/sites`)).json()) as SiteDto[]).map((s) => [s.name, s.latDeg, s.lonDeg]),
      )
      .toEqual([["Store", 47.3004, -19.4004]]);
  });

  test("another sheet is never shown as it once was", async ({ request }) => {
    const job = (await (await request.get("/api/jobs")).json()) as { job: JobDto }[];
    const { id } = job.find((s) => s.job.name === "Merrow Harbour Trust")!.job;
    const page = await context.newPage();
    await page.goto(`/jobs/${id}/survey`);
    await untilKept(page, id);
    await page.goto(`/jobs/${id}/brief`);
    await expect(page.getByRole("heading", { name: "Brief" })).toBeVisible();
    await context.setOffline(true);
    await expect(page.goto(`/jobs/${id}/brief`)).rejects.toThrow("ERR_INTERNET_DISCONNECTED");
  });
});
