import { type APIRequestContext, expect, type Locator, type Page, test } from "@playwright/test";
import type { UnitDto, WiringDto } from "../src/contract";
import { demoJob, expectAccessible, linkTo, newJob, noPageScroll } from "./helpers";

test.describe.configure({ mode: "serial" });

const jobIdOf = async (request: APIRequestContext): Promise<string> => (await demoJob(request)).job.id;
const wiringOf = async (request: APIRequestContext, siteName: string): Promise<WiringDto> => {
  const jobId = await jobIdOf(request);
  const job = (await (await request.get(`/api/jobs/${jobId}`)).json()) as { sites: { id: string; name: string }[] };
  const all = (await (await request.get(`/api/jobs/${jobId}/wirings`)).json()) as WiringDto[];
  return all.find((w) => w.siteId === job.sites.find((s) => s.name === siteName)!.id)!;
};
const open = async (page: Page, request: APIRequestContext, far: string): Promise<string> => {
  const summary = await demoJob(request);
  await page.goto(`/jobs/${summary.job.id}/wiring/${linkTo(summary, far).linkId}`);
  await expect(page.getByTestId("verdict")).toBeVisible();
  await expect(page.getByTestId("ends")).toBeVisible();
  return summary.job.id;
};
const saved = async (page: Page): Promise<void> => {
  await expect(page.getByTestId("saved")).toContainText("all edits");
};
const socket = (page: Page, end: "near" | "far", name: RegExp): Locator => page.getByTestId(`end-${end}`).getByRole("button", { name });
const finding = (page: Page, code: string): Locator => page.locator(`[data-finding="${code}"]`);
const centre = async (l: Locator): Promise<{ x: number; y: number }> => {
  const box = (await l.boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};
const cameraFeed = async (request: APIRequestContext): Promise<string> => {
  const w = await wiringOf(request, "Rope Walk");
  const camera = w.places.find((p) => p.name === "camera 1")!;
  const lead = w.leads.find((l) => l.to.placeId === camera.id || l.from.placeId === camera.id);
  if (lead === undefined) return "nothing";
  const other = lead.to.placeId === camera.id ? lead.from : lead.to;
  return `${w.places.find((p) => p.id === other.placeId)!.name}, ${other.port}`;
};

test("a camera fed with the wrong kind: volts there, what it asks, where it stops, told in the register too", async ({ page, request }) => {
  await open(page, request, "Rope Walk");
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await expect(page.getByTestId("headline-trouble")).toHaveText(
    "Camera 1 is not made for what arrives. It asks for 802.3af; passive 24 V on 2 pairs stands on its lead.",
  );
  await expect(page.getByTestId("decides")).toContainText(/^23\.1 V/);
  await expect(page.getByTestId("decides")).toContainText(/13\.9 V too little to start/);
  await expect(finding(page, "unfit")).toContainText("the plan stops here");
  await expect(page.getByTestId("units-far").locator('[data-unit="camera 1"]')).toContainText("passive 24 V on 2 pairs");
  await noPageScroll(page);
  await expectAccessible(page);
  for (const name of ["Addresses", "Earth", "Battery and sun"]) {
    await page.getByRole("tab", { name }).click();
    await expectAccessible(page);
  }
  const told = linkTo(await demoJob(request), "Rope Walk");
  expect(told.wiring).toMatchObject({ verdict: "short", code: "unfit", holdsUp: true });
});

test("its mend is drawn before it is planned, planned as one edit, and undone", async ({ page, request }) => {
  await open(page, request, "Rope Walk");
  const before = await cameraFeed(request);
  expect(before).toBe("Harbour Office radio, 2");
  await finding(page, "unfit")
    .getByRole("button", { name: /^Lead it to switch, port/ })
    .click();
  await expect(page.getByText("drawn as if, not planned")).toBeVisible();
  await expect(page.getByTestId("decides")).not.toContainText("camera 1");
  expect(await cameraFeed(request)).toBe(before);
  // Somebody else edits the job meanwhile: what is drawn stays drawn, with its two ways out.
  const jobId = await jobIdOf(request);
  const units = page.waitForResponse((r) => r.url().endsWith("/wirings") && r.ok());
  const { version } = (await (await request.get(`/api/jobs/${jobId}/kit`)).json()) as { version: number };
  expect((await request.patch(`/api/jobs/${jobId}/kit`, { data: { version, fixingFactor: 3.5 } })).ok()).toBe(true);
  await units;
  await expect(page.getByTestId("tried")).toBeVisible();
  await page.getByTestId("tried").getByRole("button", { name: "Plan it" }).click();
  await expect(finding(page, "unfit")).toHaveCount(0);
  await saved(page);
  expect(await cameraFeed(request)).toMatch(/^switch, /);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => cameraFeed(request)).toBe(before);
  await expect(finding(page, "unfit")).toHaveCount(1);
});

test("a lead is drawn from socket to socket by the pointer, its volts told before it is let go", async ({ page, request }) => {
  await open(page, request, "Rope Walk");
  const from = await centre(socket(page, "far", /^camera 1, port lan, in use/));
  const to = await centre(socket(page, "far", /^switch, port 1, free, gives power/));
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x - 30, from.y + 20, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 8 });
  await expect(page.getByTestId("end-far").getByText(/^4\d\.\d V$/)).toBeVisible();
  await page.mouse.up();
  await expect(finding(page, "unfit")).toHaveCount(0);
  await expect(page.getByTestId("lead-panel")).toBeVisible();
  await saved(page);
  expect(await cameraFeed(request)).toBe("switch, 1");
  // The lead stays what it was: only its end went elsewhere.
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => cameraFeed(request)).toBe("Harbour Office radio, 2");
});

test("the same by keys alone: pick up, choose, let in; Escape lets go; Delete takes a lead away; undo", async ({ page, request }) => {
  await open(page, request, "Rope Walk");
  const start = await cameraFeed(request);
  const camera = socket(page, "far", /^camera 1, port lan/);
  await camera.focus();
  await page.keyboard.press("Enter");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Escape");
  expect(await cameraFeed(request)).toBe(start);
  await camera.focus();
  await page.keyboard.press("Enter");
  const wanted = socket(page, "far", /^switch, port 2, free|^switch, port 1, free/).first();
  for (let i = 0; i < 40 && !(await wanted.evaluate((e) => e === document.activeElement)); i++) await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Enter");
  await expect(finding(page, "unfit")).toHaveCount(0);
  await saved(page);
  expect(await cameraFeed(request)).toMatch(/^switch, [12]$/);
  await camera.focus();
  await page.keyboard.press("Delete");
  await expect(finding(page, "unfed")).toContainText("Nothing feeds camera 1.");
  await saved(page);
  expect(await cameraFeed(request)).toBe("nothing");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => cameraFeed(request)).toMatch(/^switch, [12]$/);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => cameraFeed(request)).toBe(start);
});

test("95 m of thin cable leave too little; a typed length is felt at once, one that is none is refused", async ({ page, request }) => {
  await open(page, request, "Net Store");
  await expect(page.getByTestId("decides")).toContainText("19.6 V");
  await expect(page.getByTestId("headline-trouble")).toContainText("it works from 20.0 V");
  await finding(page, "volts-low").getByRole("button", { name: "Look at it" }).click();
  await page.getByRole("button", { name: "the lead of camera on the slip" }).click();
  const panel = page.getByTestId("lead-panel");
  const length = panel.getByLabel("Length", { exact: true });
  await length.fill("2001");
  await expect(panel.getByRole("alert")).toContainText("0 to 2000 m");
  await length.fill("40");
  await expect(finding(page, "volts-low")).toHaveCount(0);
  await expect(page.getByTestId("decides")).toContainText(/2[12]\.\d V/);
  await length.press("Enter");
  await saved(page);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByTestId("decides")).toContainText("19.6 V");
});

test("two earths joined by a camera lead stop the plan; glass is offered with what it costs", async ({ page, request }) => {
  await open(page, request, "Old Exchange");
  await expect(finding(page, "two-earths")).toContainText("the plan stops here");
  await expect(finding(page, "two-earths")).toContainText("coal store");
  await finding(page, "two-earths")
    .getByRole("button", { name: /^Glass without metal/ })
    .click();
  await expect(page.getByTestId("tried")).toContainText(/0 short|Nothing is left/);
  await page.getByTestId("tried").getByRole("button", { name: "Leave it" }).click();
});

test("a site that nobody wired is proposed from the plan as one step, and what was seen is written down", async ({ page, request }) => {
  const summary = await demoJob(request);
  await page.goto(`/jobs/${summary.job.id}/wiring/${linkTo(summary, "Water Tower").linkId}`);
  await page.getByRole("button", { name: "Propose a wiring for Water Tower" }).click();
  await expect(page.getByTestId("end-far")).toBeVisible();
  await expect(page.getByTestId("units-far").locator('[data-unit="Harbour Office radio"]')).toContainText("injector");
  await expect(page.getByTestId("verdict")).toHaveText("Unknown");
  await finding(page, "bar-unseen").getByRole("button", { name: "It is not" }).click();
  await expect(page.getByTestId("headline-trouble")).toHaveText("The earth bar is not joined to the building's main earth.");
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await saved(page);
  expect((await wiringOf(request, "Water Tower")).earth.bar).toBe("open");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(finding(page, "bar-unseen")).toHaveCount(1);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("button", { name: "Propose a wiring for Water Tower" })).toBeVisible();
});

test("a unit is written down, dies, and a new one takes its place with the cause of the old one", async ({ page, request }) => {
  const jobId = await open(page, request, "Rope Walk");
  await page.getByTestId("units-far").getByRole("button", { name: "Harbour Office radio", exact: true }).click();
  const panel = page.getByTestId("place-panel");
  await panel.getByLabel("Serial number").fill("KP-0042");
  await panel.getByLabel("Address of its port (MAC)").fill("02-00-5E-00-53-1");
  await panel.getByRole("button", { name: "Write it down" }).click();
  await expect(panel.getByRole("alert")).toContainText("six pairs");
  await panel.getByLabel("Address of its port (MAC)").fill("02-00-5E-00-53-1F");
  // A tab that is killed loses nothing of what was typed.
  await page.reload();
  await page.getByTestId("units-far").getByRole("button", { name: "Harbour Office radio", exact: true }).click();
  await expect(panel.getByLabel("Serial number")).toHaveValue("KP-0042");
  await expect(panel).toContainText("Typed, not written down yet");
  await panel.getByRole("button", { name: "Telnet" }).click();
  await panel.getByLabel("Why").fill("never in the open");
  await panel.getByRole("button", { name: "Write it down" }).click();
  await expect(panel.getByRole("button", { name: "Write it down" })).toBeDisabled();
  await panel.getByLabel("It died of").selectOption("surge");
  await panel.getByRole("button", { name: "Put a new one in its place" }).click();
  await expect(panel.getByRole("list", { name: "Before it" })).toContainText("KP-0042, died of surge");
  await expect(panel.getByRole("list", { name: "Before it" })).toContainText("straps for 25 to 65 mm");
  const units = (await (await request.get(`/api/jobs/${jobId}/units`)).json()) as UnitDto[];
  const [dead, fresh] = [units.find((u) => u.serial === "KP-0042")!, units.find((u) => u.serial === "")!];
  expect(dead).toMatchObject({
    mac: "02:00:5e:00:53:1f",
    state: "dead",
    cause: "surge",
    services: [{ name: "Telnet", on: false, why: "never in the open" }],
  });
  expect(fresh).toMatchObject({ replaces: dead.id, placeId: dead.placeId, state: "planned" });
  // It is one step: taken back, the old one lives again and the new one is gone.
  await page.getByRole("button", { name: "Undo" }).click();
  await expect
    .poll(async () =>
      ((await (await request.get(`/api/jobs/${jobId}/units`)).json()) as UnitDto[])
        .filter((u) => u.placeId === dead.placeId)
        .map((u) => u.state),
    )
    .toEqual(["planned"]);
});

test("what cannot be read stays as typed with its reason, changes nothing, and goes by Escape", async ({ page, request }) => {
  const jobId = await open(page, request, "Rope Walk");
  await page.getByRole("tab", { name: "Addresses" }).click();
  const row = page.locator("[data-net]").first();
  const netNow = async () =>
    ((await (await request.get(`/api/jobs/${jobId}/addresses`)).json()) as { nets: { name: string; vlan: number | null }[] }).nets[0]!;
  const before = await netNow();
  await row.getByLabel("VLAN").fill("4095");
  await expect(row.getByRole("alert")).toHaveText("Must be 1 to 4094.");
  await row.getByLabel("VLAN").press("Escape");
  await expect(row.getByLabel("VLAN")).toHaveValue(String(before.vlan ?? ""));
  const name = row.getByRole("textbox").first();
  await name.fill(" ");
  await expect(row.getByRole("alert")).toHaveText("A name is needed.");
  await name.fill("masts");
  await name.press("Enter");
  await expect.poll(async () => (await netNow()).name).toBe("masts");
  // Escape puts back what stood before the typing.
  await name.fill("buoys");
  await name.press("Escape");
  await expect(name).toHaveValue("masts");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(async () => (await netNow()).name).toBe(before.name);
  await expect(name).toHaveValue(before.name);
});

test("addresses: clashes named as they are typed, a pasted list taken, the laptop told", async ({ page, request }) => {
  await open(page, request, "Rope Walk");
  await page.getByRole("tab", { name: "Addresses" }).click();
  const panel = page.getByTestId("addresses");
  const address = (name: string): Locator => panel.getByLabel(`Address of ${name} at Rope Walk`);
  const other = await address("camera 2").inputValue();
  expect(other).toMatch(/^192\.168\.42\.\d+$/);
  await address("camera 3").fill(other);
  await expect(panel.locator('[data-addressed="camera 3"]').getByRole("alert").first()).toContainText("given twice");
  await address("camera 3").fill("192.168.42.150");
  await expect(panel.locator('[data-addressed="camera 3"]').getByRole("alert").first()).toContainText("pool");
  await address("camera 3").fill("192.168.42.3000");
  await expect(panel.locator('[data-addressed="camera 3"]').getByRole("alert").first()).toContainText("Write it as");
  await panel
    .getByRole("textbox", { name: /^Taken already/ })
    .fill(`${other} dev eth0 lladdr 02:00:5e:00:53:70 REACHABLE\nnot an address\n`);
  await panel.getByRole("button", { name: "Take the list" }).click();
  await expect(panel.getByRole("status")).toContainText('1 addresses are taken; without an address: line 2 "not an address"');
  await expect(panel.locator('[data-addressed="camera 2"]').getByRole("alert").first()).toContainText("somebody answers there");
  await expect(panel.getByRole("region", { name: "Laptop" })).toContainText("reaches a Kittiwake Panel as it comes from its box");
  await expect(panel.getByTestId("vlans")).toContainText("untagged 20");
  await page.getByRole("tab", { name: "Earth" }).click();
  await saved(page);
});

test("on a phone one end at a time; a fresh job is told what it lacks", async ({ page, request }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, request, "Rope Walk");
  await expect(page.getByTestId("end-far")).toBeVisible();
  await page.getByRole("button", { name: "Harbour Office", exact: true }).first().click();
  await expect(page.getByTestId("end-near")).toBeVisible();
  await expect(page.getByTestId("end-far")).toHaveCount(0);
  await expectAccessible(page);
  const made = { id: await newJob(request, "Bare job") };
  await page.goto(`/jobs/${made.id}/wiring`);
  await expect(page.getByTestId("empty")).toContainText("Join two sites under 02 Ground first");
});
