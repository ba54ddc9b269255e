import { type APIRequestContext, expect, type Page, test } from "@playwright/test";
import type { LinkBundleDto, LinkDto, LinkVerdict } from "../src/contract";
import { demoJob, expectAccessible, linkPath, linkTo, noPageScroll, openSection } from "./helpers";

/** Opens the rack of a link and waits until its first rows are drawn. */
const openRack = async (page: Page, request: APIRequestContext, far: string, label = ""): Promise<LinkVerdict> => {
  const summary = await demoJob(request);
  const link = linkTo(summary, far, label);
  await page.goto(`/jobs/${summary.job.id}/gear/${link.linkId}`);
  await drawn(page);
  return link;
};

const drawn = async (page: Page): Promise<void> => {
  await expect(page.getByTestId("counts")).toContainText("rejected");
  await expect(page.getByTestId("counts")).not.toContainText("Drawing");
};

const designOf = async (request: APIRequestContext, linkId: string): Promise<LinkDto["design"]> =>
  ((await (await request.get(await linkPath(request, linkId))).json()) as LinkBundleDto).link.design;

const row = (page: Page, name: string) => page.getByRole("option", { name: new RegExp(`^${name},`) });
const reason = (page: Page, code: string) => page.locator(`[data-reason="${code}"]`);
const limit = (page: Page, key: string) => page.locator(`[data-limit="${key}"]`);

test("from the section with the keys alone: a pair is chosen, taken and taken back, and the section agrees", async ({ page, request }) => {
  const link = await openSection(page, request, "Ice House", "first idea");
  const before = await designOf(request, link.linkId);
  await page.getByRole("link", { name: /Gear/ }).focus();
  await page.keyboard.press("Enter");
  await drawn(page);
  await expect(page.getByTestId("verdict")).toHaveText("Short");
  await expect(page.getByTestId("headline-trouble")).toContainText("Receiver overloaded");
  await expect(page.getByTestId("planned-figure")).toHaveText("80 Mbps short");
  // The great dishes are never proposed, and it says by how much they are too hot.
  await expect(reason(page, "hot")).toContainText(/Razorbill Grand \d\.\d\sdB/);
  await expect(page.getByTestId("rack")).not.toContainText("Razorbill Grand");
  await expect(row(page, "Eider Small")).toBeVisible();
  await noPageScroll(page);
  await expectAccessible(page);

  await page.getByTestId("rack").focus();
  await page.keyboard.press("Home");
  await page.keyboard.press("ArrowDown");
  const second = page.getByRole("option").nth(1);
  await expect(second).toHaveAttribute("aria-selected", "true");
  await expect(page.getByRole("region", { name: "Power" })).toContainText("just enough");
  const told = (await second.getAttribute("aria-label"))!;
  const [name, figure] = [told.split(",")[0]!, told.match(/([\d.]+) Mbps to spare/)![1]!];
  const [nearRadioId] = (await second.getAttribute("data-candidate"))!.split("|");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("said")).toContainText(`${name} is planned now`);
  await expect(page.getByTestId("verdict")).toHaveText("Clear");
  await expect(page.getByTestId("planned-figure")).toHaveText(`${figure} Mbps to spare`);
  await expect(page.getByRole("button", { name: `${name} is planned` })).toBeDisabled();
  await expect.poll(async () => (await designOf(request, link.linkId)).nearRadioId).toBe(nearRadioId);
  await drawn(page);

  await page.getByRole("link", { name: "Section", exact: true }).click();
  await expect(page.getByTestId("findings")).toBeVisible();
  await expect(page.getByTestId("verdict")).toHaveText("Clear");

  // One undo takes all of it back.
  await page.goBack();
  await drawn(page);
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("planned-figure")).toHaveText("80 Mbps short");
  const after = await designOf(request, link.linkId);
  const { version: _a, ...was } = before;
  const { version: _b, ...is } = after;
  expect(is).toEqual(was);
});

test("a limit is switched on, read back, seen to take away, loosened where it refuses, and undone", async ({ page, request }) => {
  await openRack(page, request, "Ice House", "first idea");
  await expect(row(page, "Guillemot Flat")).toBeVisible();
  await expect(limit(page, "face")).toHaveText("any face");
  await limit(page, "face").click();
  await expectAccessible(page);
  await page.getByLabel("Largest face at Ice House, cm").fill("18x");
  await expect(page.getByText('"18x" is not a number.')).toBeVisible();
  await page.getByLabel("Largest face at Ice House, cm").fill("18");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(limit(page, "face")).toHaveText("faces up to 18 cm at Ice House");
  await expect(row(page, "Guillemot Flat")).toHaveCount(0);
  await expect(row(page, "Eider Small")).toBeVisible();
  await expect(reason(page, "face")).toContainText("Guillemot Flat 19 cm");

  // The reason opens to its radios, and one press lets them in again.
  await reason(page, "face")
    .getByRole("button", { name: /Face too large/ })
    .click();
  await expect(reason(page, "face")).toContainText("Scoter Remote, 20 MHz");
  await reason(page, "face").getByRole("button", { name: "Any face" }).click();
  await expect(row(page, "Guillemot Flat")).toBeVisible();
  await expect(limit(page, "face")).toHaveText("any face");
  await expect(page.getByTestId("saved")).toContainText("all edits");
  await page.keyboard.press("Control+z");
  await expect(limit(page, "face")).toHaveText("faces up to 18 cm at Ice House");

  // Another browser has it at once, on the other link of the same site, and there a price is for that link alone.
  const other = await page.context().newPage();
  await openRack(other, request, "Ice House", "60 GHz pair");
  await expect(limit(other, "face")).toHaveText("faces up to 18 cm at Ice House");
  await limit(other, "price").click();
  await other.getByLabel("Only for this link").check();
  await other.getByLabel("At most, both ends, €").fill("290");
  await other.keyboard.press("Enter");
  await other.keyboard.press("Escape");
  await expect(limit(other, "price")).toContainText("€ 290 for both ends, this link");
  await expect(reason(other, "price")).toContainText("Eider Small € 298");
  await expect(other.getByTestId("saved")).toContainText("all edits");
  await expect(limit(page, "price")).toHaveText("any price");

  for (let i = 0; i < 3 && (await limit(other, "price").textContent()) !== "any price"; i++) {
    await other.keyboard.press("Control+z");
    await expect(other.getByTestId("saved")).toContainText("all edits");
  }
  await expect(limit(other, "price")).toHaveText("any price");
  await other.close();
  await page.keyboard.press("Control+z");
  await expect(limit(page, "face")).toHaveText("any face");
});

test("four stand side by side and no fifth; what differs is marked", async ({ page, request }) => {
  await openRack(page, request, "Ice House", "first idea");
  await page.getByTestId("rack").focus();
  await page.keyboard.press("Home");
  for (let i = 0; i < 5; i++) {
    await page.keyboard.press("Space");
    await page.keyboard.press("ArrowDown");
  }
  await expect(page.getByText("4 of 4")).toBeVisible();
  await page.keyboard.press("c");
  const table = page.getByTestId("side-by-side");
  await expect(table.locator("thead th")).toHaveCount(5);
  await expect(table.getByRole("img", { name: /The path at/ })).toHaveCount(4);
  await expect(table.getByRole("row", { name: /Price, both ends/ })).toHaveAttribute("data-differs", "true");
  await expect(table.getByRole("row", { name: /Radar duty/ })).toHaveAttribute("data-differs", "false");
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  await expect(table).toHaveCount(0);
});

test("those side by side are laid over the section, each with its first zone; one is planned from there, one forgotten", async ({
  page,
  request,
}) => {
  const link = await openRack(page, request, "Ice House", "first idea");
  const before = await designOf(request, link.linkId);
  await page.getByTestId("rack").focus();
  await page.keyboard.press("Home");
  const names: string[] = [];
  const tick = async (): Promise<void> => {
    names.push((await page.getByRole("option", { selected: true }).getAttribute("aria-label"))!.split(",")[0]!);
    await page.keyboard.press("Space");
  };
  await tick();
  await page.keyboard.press("ArrowDown");
  await tick();
  await row(page, "Eider Small").click();
  await page.getByTestId("rack").focus();
  await tick();
  await page.keyboard.press("c");
  await page.getByRole("button", { name: "Lay all over the section" }).click();
  const compare = page.getByRole("region", { name: "Compare" });
  await expect(compare.getByRole("button", { name: /^Against / })).toHaveCount(3);
  // Those of the band that is planned lie on the zone that is drawn; the narrow one of 60 GHz has its own, and its name.
  await expect(page.getByTestId("ghost-zone")).toHaveCount(1);
  await expect(page.locator('[data-caption="ghost-zone"]')).toHaveText("Eider Small, 60\u00a0GHz");
  await expectAccessible(page);
  // Nothing is planned by looking.
  expect(await designOf(request, link.linkId)).toEqual(before);
  await compare.getByRole("button", { name: new RegExp(`^Against ${names[0]!}`) }).press("Enter");
  await expect(compare.getByRole("row", { name: /^Near radio/ })).toContainText(names[0]!);
  await compare.getByRole("button", { name: new RegExp(`^Forget ${names[2]!}`) }).click();
  await expect(compare.getByRole("button", { name: /^Against / })).toHaveCount(2);
  // They are there as long as the tab is, and only beside what is compared.
  await page.reload();
  await expect(page.getByTestId("findings")).toBeVisible();
  await expect(page.getByTestId("ghost-zone")).toHaveCount(0);
  await page.getByRole("tab", { name: "compare" }).click();
  await expect(compare.getByRole("button", { name: /^Against / })).toHaveCount(2);
  await compare.getByRole("button", { name: new RegExp(`^Against ${names[0]!}`) }).click();
  await compare.getByRole("button", { name: /^Plan with / }).click();
  await expect(page.getByTestId("saved")).toContainText("all edits");
  const after = await designOf(request, link.linkId);
  expect([after.nearRadioId === before.nearRadioId, after.nearMountAglM]).toEqual([false, before.nearMountAglM]);
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await designOf(request, link.linkId)).nearRadioId).toBe(before.nearRadioId);
});

test("one type for all links: what it costs is told, it holds only within what is said, and the switch goes back", async ({
  page,
  request,
}) => {
  await openRack(page, request, "Ferry Ramp");
  await expect(limit(page, "type")).toHaveText("own types per link");
  await limit(page, "type").click();
  await page.getByLabel("One type for all links of the job").check();
  const told = page.getByTestId("one-type");
  await expect(told.getByRole("progressbar")).toBeVisible();
  await expect(told.getByRole("progressbar")).toHaveCount(0, { timeout: 60_000 });
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  // Over the saddle nothing serves: it is named, and holds nobody up.
  await expect(told).toContainText(/Nothing at all serves .*Tarrowfell/);
  await expect(told).toContainText(/serves all|No one type serves all/);
  await expect(told).toContainText(/more than the best of each, over the €\s300 set\. Each link keeps its own/);
  // Where it may cost that much more it holds: nothing else is left in the rack, and one press takes it everywhere.
  await limit(page, "type").click();
  await page.getByLabel("Where it costs at most this more, €").fill("2000");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await drawn(page);
  await expect(page.getByRole("option")).toHaveCount(1);
  await expect(reason(page, "one-type")).toContainText("Not the one type of the job");
  await told.getByRole("button", { name: "Take it on other links" }).click();
  await expect(page.getByRole("dialog")).toContainText("on other links");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+z");
  await expect(told).toContainText("Each link keeps its own");
  await page.keyboard.press("Control+z");
  await expect(limit(page, "type")).toHaveText("own types per link");
  await expect(told).toHaveCount(0);
});

test("the same pair on other links: tried on each, taken for a chosen set, and taken back as one step", async ({ page, request }) => {
  await openRack(page, request, "Ferry Ramp");
  const before = await demoJob(request);
  const ferry = linkTo(before, "Ferry Ramp");
  const kept = new Map<string, LinkDto["design"]>();
  for (const l of before.links) kept.set(l.linkId, await designOf(request, l.linkId));
  await page.getByRole("option", { name: /^Razorbill Dish,/ }).click();
  await page.getByTestId("rack").press("l");
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("Razorbill Dish on other links");
  await expect(dialog.getByTestId("other-links")).not.toContainText("being worked out", { timeout: 45_000 });
  // Over the saddle it does not, and cannot be chosen there.
  const saddle = dialog.getByRole("listitem").filter({ hasText: "Tarrowfell" });
  await expect(saddle).toContainText(/short/);
  await expect(saddle.getByRole("checkbox")).toBeDisabled();
  await expectAccessible(page);
  for (const name of ["Water Tower to Fuel Berth", "Water Tower to Sailing School"])
    await dialog.getByRole("listitem").filter({ hasText: name }).getByRole("checkbox").check();
  await expect(dialog.getByTestId("other-links-sum")).toContainText(/2 links chosen: €\s[\d,]+ now, €\s396 then/);
  await dialog.getByRole("button", { name: "Take it on 2 links" }).click();
  await expect(page.getByTestId("said")).toContainText("is planned on 2 other links");
  const radioOf = async (far: string): Promise<string> => (await designOf(request, linkTo(before, far).linkId)).nearRadioId;
  expect([await radioOf("Fuel Berth"), await radioOf("Sailing School")]).toEqual(["razorbill-dish", "razorbill-dish"]);
  expect((await designOf(request, ferry.linkId)).nearRadioId).toBe(kept.get(ferry.linkId)!.nearRadioId);

  await page.keyboard.press("Control+z");
  await expect.poll(() => radioOf("Fuel Berth")).toBe(kept.get(linkTo(before, "Fuel Berth").linkId)!.nearRadioId);
  for (const l of before.links) {
    const { version: _a, ...was } = kept.get(l.linkId)!;
    const { version: _b, ...is } = await designOf(request, l.linkId);
    expect(is).toEqual(was);
  }
});

test("what if it had to carry more: asked by dragging or by keys, saved only when it is made the need", async ({ page, request }) => {
  const link = await openRack(page, request, "Ice House", "first idea");
  const handle = page.getByRole("slider", { name: "Need, what if" });
  await expect(handle).toHaveAttribute("aria-valuenow", "80");
  const figure = async (): Promise<string | null> => page.getByRole("option").first().getAttribute("aria-label");
  const before = await figure();
  await handle.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press("Shift+ArrowRight");
  await expect(page.getByTestId("what-if")).toContainText("Not saved");
  await expect(handle).toHaveAttribute("aria-valuenow", "160");
  await drawn(page);
  expect(await figure()).not.toBe(before);
  expect((await designOf(request, link.linkId)).needToFarMbps).toBe(20);
  await page.getByRole("button", { name: /^Back to 80/ }).click();
  await expect(handle).toHaveAttribute("aria-valuenow", "80");
  await expect(page.getByTestId("what-if")).toHaveCount(0);
  // The axis is that of the rack it stands over: it comes to rest with it.
  await drawn(page);

  const box = (await handle.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 100, box.y + box.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect(page.getByTestId("what-if")).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Make it the need" }).click();
  await expect(page.getByTestId("saved")).toContainText("all edits");
  await expect.poll(async () => (await designOf(request, link.linkId)).needToFarMbps).toBeGreaterThan(30);
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await designOf(request, link.linkId)).needToFarMbps).toBe(20);
});

test("on a phone the need is dragged by a finger, and the page stays where it is", async ({ browser, request }) => {
  const summary = await demoJob(request);
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const page = await context.newPage();
  await page.goto(`/jobs/${summary.job.id}/gear/${linkTo(summary, "Rope Walk").linkId}`);
  await drawn(page);
  const handle = page.getByRole("slider", { name: "Need, what if" });
  await handle.scrollIntoViewIfNeeded();
  const box = (await handle.boundingBox())!;
  const at = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const touch = await context.newCDPSession(page);
  await touch.send("Input.dispatchTouchEvent", { type: "touchStart", touchPoints: [at] });
  for (let i = 1; i <= 6; i++)
    await touch.send("Input.dispatchTouchEvent", { type: "touchMove", touchPoints: [{ x: at.x + 12 * i, y: at.y + i }] });
  await touch.send("Input.dispatchTouchEvent", { type: "touchEnd", touchPoints: [] });
  await expect(page.getByTestId("what-if")).toContainText("Not saved");
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  await context.close();
});

test("one end stays as it is: only what pairs with it is proposed for the other", async ({ page, request }) => {
  await openRack(page, request, "Rope Walk");
  await limit(page, "ends").click();
  await page.getByLabel("What stays as planned").selectOption({ label: "Harbour Office" });
  await page.keyboard.press("Escape");
  await expect(limit(page, "ends")).toHaveText("Harbour Office as it is");
  await expect(reason(page, "kept-end")).toBeVisible();
  await drawn(page);
  const names = await page.getByRole("option").evaluateAll((all) => all.map((o) => o.getAttribute("aria-label") ?? ""));
  expect(names.length).toBeGreaterThan(1);
  for (const name of names) expect(name).toMatch(/^Kittiwake Panel(,| to )/);
  await expect(page.getByTestId("saved")).toContainText("all edits");
  await page.keyboard.press("Control+z");
  await expect(limit(page, "ends")).toHaveText("one radio for both ends");
});

test("only what is in stock: pairs of which there are two, or one of each", async ({ page, request }) => {
  await openRack(page, request, "Rope Walk");
  // The owner's wish stands with the site.
  await expect(limit(page, "face")).toHaveText("faces up to 30 cm at Rope Walk");
  await expect(row(page, "Kittiwake Panel")).toContainText("3 pairs in stock");
  await limit(page, "stock").click();
  await page.getByLabel("Both ends from stock").check();
  await page.keyboard.press("Escape");
  await expect(limit(page, "stock")).toHaveText("only what is in stock");
  await expect(page.getByRole("option").filter({ hasText: "to order" })).toHaveCount(0);
  await expect(row(page, "Kittiwake Panel")).toBeVisible();
  await expect(reason(page, "stock").getByRole("button", { name: "To order too" })).toBeVisible();
  await expect(page.getByTestId("saved")).toContainText("all edits");
  await page.keyboard.press("Control+z");
  await expect(limit(page, "stock")).toHaveText("in stock or to order");
});

test("what cannot be mended by a radio is said: a path behind a saddle, a permission that is open", async ({ page, request }) => {
  await openRack(page, request, "Tarrowfell Observatory");
  await expect(page.getByTestId("path-is-why")).toContainText("The path is the reason");
  await expect(reason(page, "weak")).toBeVisible();
  await expect(page.getByText("Nothing is left within these limits.")).toBeVisible();

  await openRack(page, request, "Skarn Light");
  await expect(page.getByTestId("headline-trouble")).toContainText("Permission open");
  await expect(page.locator('[data-band="6"]')).toContainText("closed until recorded");
  await expect(page.locator('[data-band="5"]')).toContainText(/keeps \d+ Mbps/);
  await reason(page, "permission").getByRole("button", { name: "Record it" }).click();
  await expect(page.getByRole("dialog")).toContainText(/permission/i);
});

test("the rack as CSV holds everything that was tried", async ({ page, request }) => {
  await openRack(page, request, "Rope Walk");
  const counts = (await page.getByTestId("counts").textContent())!;
  const [pairs, left] = [counts.match(/^([\d,]+) pairs/)![1]!, counts.match(/([\d,]+) outside/)![1]!].map((n) =>
    Number(n.replace(",", "")),
  );
  const waiting = page.waitForEvent("download");
  await page.getByRole("button", { name: "As CSV" }).click();
  const stream = await (await waiting).createReadStream();
  let text = "";
  for await (const piece of stream) text += piece;
  const lines = text.trim().split(/\r?\n/);
  expect(lines[0]).toContain("kept_mbps");
  expect(lines).toHaveLength(1 + pairs! + left!);
});

test("a link of which nobody said what it must carry asks that first", async ({ page, request }) => {
  const { job } = await demoJob(request);
  const { sites } = (await (await request.get(`/api/jobs/${job.id}`)).json()) as { sites: { id: string; name: string }[] };
  const id = (name: string): string => sites.find((s) => s.name === name)!.id;
  const made = (await (
    await request.post(`/api/jobs/${job.id}/links`, { data: { nearSiteId: id("Ice House"), farSiteId: id("Rope Walk"), label: "rack" } })
  ).json()) as { id: string; version: number };
  try {
    await page.goto(`/jobs/${job.id}/gear/${made.id}`);
    await expect(page.getByRole("heading", { name: "How much must it carry?" })).toBeVisible();
    // Typed letter by letter, both are still there to be typed.
    await page.getByLabel("To Rope Walk, Mbps").pressSequentially("12");
    await page.keyboard.press("Tab");
    await page.keyboard.type("25");
    await page.keyboard.press("Enter");
    await drawn(page);
    await expect(page.getByRole("heading", { name: "How much must it carry?" })).toHaveCount(0);
    await expect(page.getByText(/need 37/)).toBeVisible();
  } finally {
    await request.patch(`/api/jobs/${job.id}/links/${made.id}`, { data: { version: made.version, deleted: true } });
  }
});
