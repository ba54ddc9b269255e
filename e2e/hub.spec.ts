import { type APIRequestContext, expect, type Page, test } from "@playwright/test";
import type { HubDto, LinkBundleDto, LinkDto } from "../src/contract";
import { demoJob, expectAccessible, linkPath, linkTo, noPageScroll } from "./helpers";

test.describe.configure({ mode: "serial" });

const designOf = async (request: APIRequestContext, linkId: string): Promise<LinkDto["design"]> =>
  ((await (await request.get(await linkPath(request, linkId))).json()) as LinkBundleDto).link.design;
const saved = async (page: Page): Promise<void> => {
  await expect(page.getByTestId("saved")).toContainText("all edits");
};
const hubsOf = async (request: APIRequestContext): Promise<{ jobId: string; hubs: HubDto[] }> => {
  const { job } = await demoJob(request);
  return { jobId: job.id, hubs: (await (await request.get(`/api/jobs/${job.id}/hubs`)).json()) as HubDto[] };
};
/** Opens the hub of the water tower, made from its links the first time. */
const openHub = async (page: Page, request: APIRequestContext): Promise<HubDto> => {
  const { jobId, hubs } = await hubsOf(request);
  await page.goto(`/jobs/${jobId}/hub${hubs[0] === undefined ? "" : `/${hubs[0].id}`}`);
  if (hubs[0] === undefined) {
    // From the ground, where the mast stands with what ends at it.
    await page.goto(`/jobs/${jobId}/ground`);
    await page.getByText(/^Sites, \d+$/).click();
    await page.getByRole("button", { name: "Water Tower", exact: true }).click();
    await page.getByRole("link", { name: "As a hub" }).click();
    await page.getByRole("button", { name: "Make Water Tower a hub" }).click();
  }
  await expect(page.getByTestId("verdict")).toBeVisible();
  return (await hubsOf(request)).hubs[0]!;
};

test("a hub is made of the links that end at a mast: who lies under the beam, what the air lacks, and nothing of the links is changed", async ({
  page,
  request,
}) => {
  const before = await demoJob(request);
  const was = new Map<string, LinkDto["design"]>();
  for (const l of before.links) was.set(l.linkId, await designOf(request, l.linkId));
  const hub = await openHub(page, request);
  expect(hub.sectors.map((s) => [s.azimuthDeg, s.tiltDeg])).toEqual([
    [205, -3],
    [130, -3],
  ]);
  expect(hub.remotes).toHaveLength(5);
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await expect(page.getByTestId("headline-trouble")).toContainText(
    /south-west air is \d+ % over what may be used: Net Store alone takes \d+ %/,
  );
  await expect(page.getByTestId("air-verdict")).toHaveText("Short");
  await expect(page.getByTestId("air-over")).toContainText("% over");
  const findings = page.getByRole("region", { name: "Findings" });
  await expect(findings).toContainText(/Weighbridge lies 6\.\d° under the south-west beam/);
  await noPageScroll(page);
  await expectAccessible(page);
  for (const l of before.links) expect(await designOf(request, l.linkId)).toEqual(was.get(l.linkId));

  // The cut turns to whoever is chosen, by keys too.
  await page.getByRole("button", { name: /^Weighbridge, / }).press("Enter");
  await expect(page.getByTestId("place-figure")).toHaveText(/^6\.\d°$/);
  await page.getByRole("button", { name: "south-east" }).click();
  await expect(page.getByRole("region", { name: "Air of the south-east sector" })).toContainText("Sailing School");
  await expect(page.getByTestId("air-verdict")).toHaveText("Clear");
  await page.keyboard.press("[");
  await expect(page.getByTestId("air-verdict")).toHaveText("Short");
});

test("an axis dragged and a tilt by keys move all links of the sector together, and one undo takes each back", async ({
  page,
  request,
}) => {
  const summary = await demoJob(request);
  const [fuel, sailing] = [linkTo(summary, "Fuel Berth").linkId, linkTo(summary, "Sailing School").linkId];
  await openHub(page, request);
  const handle = page.getByTestId("axis-0");
  const box = (await handle.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x - 60, box.y + 10, { steps: 6 });
  const turned = Number(await handle.getAttribute("aria-valuenow"));
  expect(Math.abs(turned - 205)).toBeGreaterThan(10);
  // Nothing is sent while it is held.
  expect((await designOf(request, fuel)).nearAimAzimuthDeg).toBe(205);
  await page.mouse.up();
  await saved(page);
  expect((await designOf(request, fuel)).nearAimAzimuthDeg).toBe(turned);
  expect((await designOf(request, sailing)).nearAimAzimuthDeg).toBe(130);

  await page.keyboard.press("Control+z");
  await expect(handle).toHaveAttribute("aria-valuenow", "205");
  expect((await designOf(request, fuel)).nearAimAzimuthDeg).toBe(205);

  const tilt = page.getByTestId("tilt");
  await tilt.focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowDown");
  await expect(tilt).toHaveAttribute("aria-valuenow", "-5");
  await saved(page);
  expect((await designOf(request, fuel)).nearAimTiltDeg).toBe(-5);
  for (let i = 0; i < 4; i++) await page.keyboard.press("Control+z");
  await expect(tilt).toHaveAttribute("aria-valuenow", "-3");
  await saved(page);
  expect((await designOf(request, fuel)).nearAimTiltDeg).toBe(-3);
});

test("the best axis and tilt are drawn before they are planned; what is typed wrong is named and nothing is sent", async ({
  page,
  request,
}) => {
  const summary = await demoJob(request);
  const weigh = linkTo(summary, "Weighbridge").linkId;
  await openHub(page, request);
  await expect(page.getByTestId("turn")).toContainText("left over: Net Store");
  const words = (await page.getByTestId("turn").getByRole("button").textContent())!;
  const [azimuth, tilt] = words
    .replace("\u2212", "-")
    .match(/-?[\d.]+/g)!
    .map(Number);
  await page.getByTestId("turn").getByRole("button").click();
  await expect(page.getByTestId("axis-0")).toHaveAttribute("aria-valuenow", String(azimuth));
  await expect(page.getByTestId("drawn")).toContainText("Nothing is planned yet.");
  expect((await designOf(request, weigh)).nearAimAzimuthDeg).toBe(205);
  await page.getByTestId("drawn").getByRole("button", { name: "Leave it" }).click();
  await expect(page.getByTestId("axis-0")).toHaveAttribute("aria-valuenow", "205");
  await page.getByTestId("turn").getByRole("button").click();
  await page.getByTestId("drawn").getByRole("button", { name: "Plan it" }).click();
  await expect(page.getByTestId("drawn")).toHaveCount(0);
  await saved(page);
  expect(await designOf(request, weigh)).toMatchObject({ nearAimAzimuthDeg: azimuth, nearAimTiltDeg: tilt });
  // The section of the link reads the same.
  await page.goto(`/jobs/${summary.job.id}/section/${weigh}`);
  await expect(page.getByTestId("verdict")).toBeVisible();
  await page.getByRole("tab", { name: "gear" }).click();
  await page
    .getByText(/^More of this end/)
    .first()
    .click();
  await expect(page.getByLabel(/^Aim, true/).first()).toHaveValue(String(azimuth));
  await page.goBack();
  await expect(page.getByTestId("sector")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await designOf(request, weigh)).nearAimAzimuthDeg).toBe(205);

  const field = page.getByTestId("sector").getByLabel("Tilt, °");
  await field.fill("-95");
  await page.keyboard.press("Tab");
  await expect(page.getByTestId("sector").getByRole("alert")).toBeVisible();
  expect((await designOf(request, weigh)).nearAimTiltDeg).toBe(-3);
});

test("other shapes are compared; one is drawn, planned with one press, and taken back as one step", async ({ page, request }) => {
  const summary = await demoJob(request);
  const fuel = linkTo(summary, "Fuel Berth").linkId;
  const before = await openHub(page, request);
  const shapes = page.getByTestId("shapes");
  const row = (name: RegExp) => shapes.getByRole("row", { name });
  await expect(row(/^As planned/)).toContainText(/of 5.*1\d\d of 70 %.*Short/);
  await expect(row(/^A pair for each/)).toContainText(/5 of 5.*Clear/);
  await expect(row(/^One omni/)).toContainText(/[1-4] of 5/);
  await expect(row(/^Four-faced node/)).toContainText("Short");
  await expect(shapes.getByRole("status")).toHaveText(/beam and air judged/);
  await expectAccessible(page);
  await row(/^Fewest sectors/)
    .getByRole("button", { name: /^Draw it/ })
    .click();
  await expect(page.getByTestId("drawn")).toContainText("Drawn as if: another shape of the hub");
  await expect(page.getByTestId("air-over")).toHaveCount(0);
  expect((await hubsOf(request)).hubs[0]!.version).toBe(before.version);
  await page.getByTestId("drawn").getByRole("button", { name: "Plan it" }).click();
  await saved(page);
  const after = (await hubsOf(request)).hubs[0]!;
  const sector = after.sectors.find((s) => s.id === after.remotes.find((r) => r.linkId === fuel)!.sectorId)!;
  expect(await designOf(request, fuel)).toMatchObject({ nearRadioId: sector.radioId, nearAimAzimuthDeg: sector.azimuthDeg });
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await hubsOf(request)).hubs[0]!.sectors).toEqual(before.sectors);
  expect((await designOf(request, fuel)).nearAimAzimuthDeg).toBe(205);
});

test("a sector's unit, width, frame and manner of sending are set in its sheet; a further sector is added and taken away", async ({
  page,
  request,
}) => {
  const summary = await demoJob(request);
  const fuel = linkTo(summary, "Fuel Berth").linkId;
  const before = await openHub(page, request);
  const settings = page.getByTestId("sector");
  await settings.getByLabel("Unit").selectOption({ label: "Gannet Bare with Gregale Sixty" });
  await saved(page);
  expect(await designOf(request, fuel)).toMatchObject({ nearRadioId: "gannet-bare", nearAntennaId: "gregale-60" });
  await settings.getByLabel("Width, MHz").selectOption("20");
  await settings.getByLabel("Frame, there/back").selectOption({ label: "50/50" });
  await saved(page);
  expect(await designOf(request, fuel)).toMatchObject({ widthMhz: 20, frameShareToFar: 0.5 });
  await settings.getByLabel("Remotes send").selectOption({ label: "when it is quiet" });
  await expect(settings.getByTestId("deaf")).toContainText(/\d of 6 pairs of them cannot hear each other even in the open/);
  await settings.getByLabel("They hear each other").selectOption({ label: "no" });
  await saved(page);
  expect((await hubsOf(request)).hubs[0]).toMatchObject({ grant: false, hearEachOther: false });
  await settings.getByRole("button", { name: "One more sector" }).click();
  await saved(page);
  expect((await hubsOf(request)).hubs[0]!.sectors).toHaveLength(3);
  await settings.getByRole("button", { name: "Take this one away" }).click();
  await saved(page);
  expect((await hubsOf(request)).hubs[0]!.sectors).toHaveLength(2);
  await expect(page.getByTestId("takes")).toContainText(/takes: \d+ remotes/);
  for (let i = 0; i < 7; i++) await page.keyboard.press("Control+z");
  await expect
    .poll(async () => {
      const { sectors, grant, hearEachOther } = (await hubsOf(request)).hubs[0]!;
      return { sectors, grant, hearEachOther };
    })
    .toEqual({ sectors: before.sectors, grant: before.grant, hearEachOther: before.hearEachOther });
});

test("other spots for the mast are looked at from the server, stopped at any moment, and one is planned as a mounting point", async ({
  page,
  request,
}) => {
  const before = await openHub(page, request);
  const mounts = page.getByTestId("mounts");
  await mounts.getByLabel("From, m").fill("12");
  await mounts.getByRole("button", { name: "Look for a better mount" }).click();
  await expect(mounts.getByRole("status")).toHaveText("1 spot looked at, the best first.");
  await expect(mounts.getByRole("row", { name: /The site's own mount/ })).toContainText(/[1-5] of 5/);
  // The other sites: stopped on the way, what was looked at stays.
  await mounts.getByLabel("Look along").selectOption({ label: "the other sites of the job" });
  await mounts.getByRole("button", { name: "Look for a better mount" }).click();
  await expect(mounts.getByRole("row", { name: /Harbour Office/ })).toBeVisible();
  await mounts.getByRole("button", { name: "Stop" }).click();
  await expect(mounts.getByRole("status")).toHaveText(/^(Stopped: what was looked at so far|\d+ spots looked at)/);
  await expect(mounts.getByRole("row", { name: /Harbour Office/ })).toContainText("a hub of its own");
  // The edge of its roof.
  await mounts.getByLabel("Look along").selectOption({ label: "the edge of its roof" });
  await mounts.getByRole("button", { name: "Look for a better mount" }).click();
  await expect(mounts.getByRole("status")).toHaveText(/^\d+ spots looked at, the best first\.$/, { timeout: 60_000 });
  await expectAccessible(page);
  await mounts
    .getByRole("row", { name: /Roof edge/ })
    .first()
    .getByRole("button", { name: "Plan it there" })
    .click();
  await expect.poll(async () => (await hubsOf(request)).hubs[0]!.mountId).toMatch(/^hub-/);
  await saved(page);
  const moved = (await hubsOf(request)).hubs[0]!;
  const fuel = linkTo(await demoJob(request), "Fuel Berth").linkId;
  expect((await designOf(request, fuel)).nearMountId).toBe(moved.mountId);
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await hubsOf(request)).hubs[0]!.mountId).toBe(before.mountId);
  await page.keyboard.press("Control+z");
});

test("a bearing is kept free for later: which beam takes it in, what is left, and that none does", async ({ page, request }) => {
  await openHub(page, request);
  await page.getByRole("button", { name: "south-east" }).click();
  const later = page.getByTestId("later");
  await later.getByRole("button", { name: "A bearing" }).click();
  await expect(later).toContainText(/Lies in no beam: [\d.]+° beside the (south-east|south-west)\./);
  await later.getByLabel("Bearing, °").fill("120");
  await page.keyboard.press("Enter");
  await expect(later).toContainText(/In the south-east beam, about \d+ % of its air; \d+ % are then left\./);
  await saved(page);
  expect((await hubsOf(request)).hubs[0]!.later).toEqual([{ bearingDeg: 120, mbps: 10 }]);
  await later.getByRole("button", { name: "Keep 120° free no more" }).click();
  await saved(page);
  expect((await hubsOf(request)).hubs[0]!.later).toEqual([]);
});

test("clients of an old hub are moved over in an order: who stays and why, what hangs there meanwhile, spares before and after", async ({
  page,
  request,
}) => {
  await openHub(page, request);
  await page.getByRole("link", { name: "Clients moved over from an old hub" }).click();
  await expect(page.getByTestId("headline-trouble")).toHaveText("Tick the clients that hang on the old hub today");
  await expect(page.getByText("In the brief to be moved: old hub with its clients, Water Tower, north rail.")).toBeVisible();
  await page.getByLabel("The old hub").fill("the north rail hub");
  await page.keyboard.press("Enter");
  await page.getByLabel("Types of unit there today, one a line").fill("old ring\nold client");
  for (const name of ["Fuel Berth", "Ferry Ramp", "Net Store"]) await page.getByLabel(name, { exact: true }).check();
  const order = page.getByTestId("order");
  await expect(order.getByRole("row", { name: /Net Store/ })).toContainText(
    "Stays on the north rail hub: the new hub does not keep what it asks.",
  );
  await expect(order.getByRole("row", { name: /^1 / })).toContainText("2 of 3");
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await expect(page.getByTestId("headline-trouble")).toHaveText("1 client stays on the north rail hub until it is mended");
  await expect(page.getByTestId("spares")).toContainText(
    "2 types before (old ring, old client), 4 types after (Gannet Ninety, Skua Remote, old ring, old client)",
  );
  await expectAccessible(page);
  await page.getByLabel("Net Store", { exact: true }).uncheck();
  await expect(page.getByTestId("headline-trouble")).toHaveText("2 clients moved one by one, 60 minutes of windows in all");
  await expect(page.getByTestId("verdict")).toHaveText("Clear");
  await page.getByLabel("Window for each client, min").fill("0");
  await expect(page.getByText("Must be 1 to 1440 min.")).toBeVisible();
  await page.keyboard.press("Escape");
  await saved(page);
  const { moving } = (await hubsOf(request)).hubs[0]!;
  expect(moving).toMatchObject({ from: "the north rail hub", windowMin: 30 });
  expect(moving.clients).toHaveLength(2);
  // What was ticked is there again after a reload, and on paper nothing of it is cut off.
  await page.reload();
  await expect(page.getByLabel("Fuel Berth", { exact: true })).toBeChecked();
  await page.emulateMedia({ media: "print" });
  await expect(order.getByRole("row", { name: /^2 / })).toBeVisible();
});

test("a link that was planned otherwise in its section is named and set right; one is taken off and hung on again", async ({
  page,
  request,
}) => {
  const summary = await demoJob(request);
  const ferry = linkTo(summary, "Ferry Ramp").linkId;
  await openHub(page, request);
  await expect(page.getByTestId("astray")).toHaveCount(0);
  const { id, version } = await designOf(request, ferry);
  expect((await request.patch(`/api/jobs/${summary.job.id}/designs/${id}`, { data: { version, nearAimTiltDeg: -9 } })).ok()).toBe(true);
  // News of it come by themselves.
  const astray = page.getByTestId("astray");
  await expect(astray).toContainText("Ferry Ramp is planned otherwise in its own section");
  await astray.getByRole("button", { name: "Set it as the sector" }).click();
  await expect(astray).toHaveCount(0);
  expect((await designOf(request, ferry)).nearAimTiltDeg).toBe(-3);

  await page.getByRole("button", { name: /^Ferry Ramp, / }).click();
  await page.getByRole("button", { name: "Take Ferry Ramp off the hub" }).click();
  await expect(page.getByRole("heading", { name: /hub of 4 remotes/ })).toBeVisible();
  expect((await designOf(request, ferry)).nearRadioId).toBe("gannet-ninety");
  await page.getByRole("button", { name: "south-east" }).click();
  await page.getByRole("button", { name: "Hang it on the south-east" }).click();
  await saved(page);
  expect((await designOf(request, ferry)).nearAimAzimuthDeg).toBe(130);
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await page.getByRole("button", { name: "south-west" }).click();
  await expect.poll(async () => (await designOf(request, ferry)).nearAimAzimuthDeg).toBe(205);
  await expect(page.getByRole("region", { name: "Air of the south-west sector" })).toContainText("Ferry Ramp");
});

test("a hub is taken away and its links stay; History brings it back", async ({ page, request }) => {
  const { jobId, hubs } = await hubsOf(request);
  await page.goto(`/jobs/${jobId}/hub`);
  await page.getByTestId("hubs").getByRole("button", { name: "Take away" }).click();
  await expect(page.getByTestId("hubs")).toHaveCount(0);
  await expect(page.getByRole("button", { name: "Make Water Tower a hub" })).toBeVisible();
  const gone = (await request.get(`/api/jobs/${jobId}/hubs`)).json();
  expect(await gone).toEqual([]);
  await page.getByRole("button", { name: "Make Water Tower a hub" }).click();
  await expect(page.getByRole("heading", { name: /hub of 5 remotes/ })).toBeVisible();
  expect((await hubsOf(request)).hubs[0]!.sectors).toEqual(hubs[0]!.sectors);
});

test("a hub fits a phone, and one that is gone says so", async ({ page, request }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openHub(page, request);
  await expect(page.getByTestId("air")).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  const { jobId } = await hubsOf(request);
  await page.goto(`/jobs/${jobId}/hub/00000000-0000-4000-8000-000000000000`);
  await expect(page.getByText("This hub is not there any more.")).toBeVisible();
});
