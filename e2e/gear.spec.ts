import { expect, test } from "@playwright/test";
import catalogue from "../demo/hardware.json" with { type: "json" };
import { demoJob, expectAccessible, openSection } from "./helpers";

test("own radios and antennas by form and by file, then used in a link", async ({ page, request }) => {
  const { job } = await demoJob(request);
  await page.goto(`/jobs/${job.id}/gear`);
  await expect(page.getByRole("heading", { name: "Catalogue", exact: true })).toBeVisible();
  await expectAccessible(page);

  await page.getByLabel("Name").fill("Own Panel");
  await page.getByRole("button", { name: "Add the radio" }).click();
  await expect(page.getByText("choose a radio whose modulation table to start from")).toBeVisible();
  await page.getByLabel("Modulations, family and roles like").selectOption("kittiwake-panel");
  await page.getByLabel("Antenna gain, dBi").fill("abc");
  await page.getByRole("button", { name: "Add the radio" }).click();
  await expect(page.getByText("gain must be a number")).toBeVisible();
  await page.getByLabel("Antenna gain, dBi").fill("17.5");
  const own = page.getByRole("form", { name: "Own radio" });
  await own.getByLabel("Bracket it hangs on").fill("Kelp clamp");
  await own.getByLabel("Connectors").selectOption("behind");
  await page.getByRole("button", { name: "Add the radio" }).click();
  await expect(page.getByText("Taken in: 1 radio, 0 antennas.")).toBeVisible();
  await expect(page.getByRole("row", { name: /Own Panel 5 GHz ax/ })).toContainText("17.5");
  await page.getByRole("button", { name: "Own Panel", exact: true }).click();
  await expect(page.getByRole("dialog", { name: "Own Panel" })).toContainText("Kelp clamp, behind");
  await page.keyboard.press("Escape");

  const file = (content: unknown) => ({
    name: "own.json",
    mimeType: "application/json",
    buffer: Buffer.from(typeof content === "string" ? content : JSON.stringify(content)),
  });
  const radio = { ...catalogue.radios[5]!, id: "file-radio", name: "File Radio" };
  await page.getByLabel("Hardware file").setInputFiles(file({ radios: [radio, { ...radio, id: "bad", chains: 0 }] }));
  await expect(page.getByText("Nothing was taken in: the file has faults.")).toBeVisible();
  await expect(page.getByText("radios[1] bad: chains")).toBeVisible();
  await expect(page.getByRole("row", { name: /File Radio/ })).toHaveCount(0);
  await page
    .getByLabel("Hardware file")
    .setInputFiles(file({ radios: [radio], antennas: [{ ...catalogue.antennas[0]!, id: "file-horn", name: "File Horn" }] }));
  await expect(page.getByText("Taken in: 1 radio, 1 antenna.")).toBeVisible();
  await expect(page.getByRole("row", { name: /File Horn/ })).toBeVisible();

  // Each save is a step of the catalogue: taken back as a whole, and done again.
  const edits = page.getByRole("region", { name: "Edits of the catalogue" });
  const newest = edits.getByRole("listitem").first();
  await expect(newest).toContainText("File Radio, File Horn added");
  await newest.getByRole("button", { name: "Take back" }).click();
  await expect(page.getByRole("row", { name: /File Horn/ })).toHaveCount(0);
  await expect(page.getByRole("row", { name: /File Radio/ })).toHaveCount(0);
  await newest.getByRole("button", { name: "Do again" }).click();
  await expect(page.getByRole("row", { name: /File Horn/ })).toBeVisible();
  // A row that is cut by the edge of what is scrolled is no target of half a size: looked at from the top.
  await page.evaluate(() => {
    for (const e of document.querySelectorAll("main, main *")) e.scrollTop = 0;
  });
  await expectAccessible(page);

  await openSection(page, request, "Water Tower");
  await page.getByRole("tab", { name: "gear" }).click();
  await page
    .getByLabel(/^Radio/)
    .first()
    .selectOption("own-panel");
  await expect(page.locator("main")).toContainText("+17.5 dB");

  // What stands in a design stays in the catalogue, and it is said where.
  await expect(page.getByTestId("saved")).toContainText(":");
  await page.goto(`/jobs/${job.id}/gear`);
  await edits.getByRole("listitem").filter({ hasText: "Own Panel added" }).getByRole("button", { name: "Take back" }).click();
  await expect(edits.getByRole("alert")).toHaveText("Own Panel stands in a design of Merrow Harbour Trust; choose another there first.");
  await expect(page.getByRole("row", { name: /Own Panel 5 GHz ax/ })).toBeVisible();
});

test("the catalogue is searched, kept to a band, sorted by a figure and shown with other columns, by keys too", async ({
  page,
  request,
}) => {
  const { job } = await demoJob(request);
  const radios = catalogue.radios as readonly { name: string; bandKey: string; antenna: { gainDbi?: number } }[];
  await page.goto(`/jobs/${job.id}/gear`);
  const part = page.getByRole("region", { name: "Radios" });
  const names = (): Promise<string[]> => part.locator("tbody tr td:first-child").allTextContents();
  await part.getByRole("combobox", { name: "Band" }).selectOption("60 GHz");
  const of60 = radios.filter((r) => r.bandKey === "60").map((r) => r.name);
  await expect(part.locator("tbody tr")).toHaveCount(of60.length);
  expect((await names()).sort()).toEqual([...of60].sort());
  await part.getByRole("combobox", { name: "Band" }).selectOption("all");

  // A press sorts by a figure, another turns it round; what has no gain of its own stands at the weak end.
  const gain = part.getByRole("columnheader", { name: "Gain, dBi" });
  await gain.getByRole("button").focus();
  await page.keyboard.press("Enter");
  await expect(gain).toHaveAttribute("aria-sort", "descending");
  const strongest = [...radios].sort((a, b) => (b.antenna.gainDbi ?? -999) - (a.antenna.gainDbi ?? -999))[0]!.name;
  expect((await names())[0]).toBe(strongest);
  await page.keyboard.press("Enter");
  await expect(gain).toHaveAttribute("aria-sort", "ascending");
  expect((await names()).at(-1)).toBe(strongest);

  await part.getByLabel("Search radios").fill(strongest.slice(0, 5).toUpperCase());
  await expect.poll(async () => (await names()).every((n) => n.toLowerCase().startsWith(strongest.slice(0, 5).toLowerCase()))).toBe(true);
  await expect(part.getByRole("status")).toContainText(`of `);
  await part.getByLabel("Search radios").fill("no such thing");
  await expect(part.getByText("None by that.")).toBeVisible();
  await part.getByLabel("Search radios").fill("");

  await part.getByText("Columns").click();
  await part.getByLabel("Hot above, dBm").check();
  await expect(part.getByRole("columnheader", { name: "Hot above, dBm" })).toBeVisible();
  await part.getByLabel("Widths, MHz").uncheck();
  await expect(part.getByRole("columnheader", { name: "Widths, MHz" })).toHaveCount(0);
  await expectAccessible(page);
});

test("a table of own hardware with a bad row is refused by row and column; what is at hand is counted, and taken back", async ({
  page,
  request,
}) => {
  const { job } = await demoJob(request);
  await page.goto(`/jobs/${job.id}/gear`);
  await expect(page.getByRole("heading", { name: "Catalogue", exact: true })).toBeVisible();
  const table = (text: string) => ({ name: "own.csv", mimeType: "text/csv", buffer: Buffer.from(text) });
  await page
    .getByLabel("Hardware file")
    .setInputFiles(table("name,like,gain_dbi,price_eur\nTable Panel,kittiwake-panel,18,70\nTable Bad,kittiwake-panel,loud,70\n"));
  await expect(page.getByText("Nothing was taken in: the file has faults.")).toBeVisible();
  await expect(page.getByText("row 3 Table Bad: gain_dbi")).toBeVisible();
  await expect(page.getByRole("row", { name: /Table Panel/ })).toHaveCount(0);
  await page.getByLabel("Hardware file").setInputFiles(table("name,like,gain_dbi,price_eur\nTable Panel,kittiwake-panel,18,70\n"));
  await expect(page.getByText("Taken in: 1 radio, 0 antennas.")).toBeVisible();
  await expect(page.getByRole("row", { name: /Table Panel/ })).toContainText("70");

  await expect(page.getByLabel("In stock, Razorbill Small")).toHaveValue("4");
  const stock = page.getByLabel("In stock, Whimbrel Yard");
  await stock.fill("two");
  await page.keyboard.press("Enter");
  await expect(stock).toHaveAttribute("aria-invalid", "true");
  await stock.fill("4");
  await page.keyboard.press("Enter");
  const newest = page.getByRole("region", { name: "Edits of the catalogue" }).getByRole("listitem").first();
  await expect(newest).toContainText("Whimbrel Yard");
  await page.reload();
  await expect(page.getByLabel("In stock, Whimbrel Yard")).toHaveValue("4");
  await newest.getByRole("button", { name: "Take back" }).click();
  await expect(page.getByLabel("In stock, Whimbrel Yard")).toHaveValue("");
  // The table's radio goes as it came.
  const step = page.getByRole("region", { name: "Edits of the catalogue" }).getByRole("listitem").filter({ hasText: "Table Panel" });
  await step.getByRole("button", { name: "Take back" }).click();
  await expect(page.getByRole("row", { name: /Table Panel/ })).toHaveCount(0);
  await expectAccessible(page);
});

test("a data sheet opens whole; an own copy takes measured cuts, and a bad row is named", async ({ page, request }) => {
  const { job } = await demoJob(request);
  await page.goto(`/jobs/${job.id}/gear`);
  await page.getByRole("button", { name: "Tramontane Small", exact: true }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByRole("img", { name: /Pattern by aperture/ })).toBeVisible();
  await expect(dialog).toContainText("25.0 dBi, 9.5° by 9.5°");
  await expectAccessible(page);
  await expect(dialog.getByLabel("Measured cuts")).toHaveCount(0);
  await dialog.getByRole("button", { name: "Copy as own" }).click();
  await expect(page.getByText("Taken in: 0 radios, 1 antenna.")).toBeVisible();
  await page.getByRole("button", { name: "Tramontane Small, own" }).click();
  const cuts = (text: string) => ({ name: "cuts.csv", mimeType: "text/csv", buffer: Buffer.from(text) });
  const good = "plane,angle,gain\nazimuth,-180,-10\nazimuth,0,25\nazimuth,180,-10\nelevation,-90,-12\nelevation,0,25\nelevation,90,-12\n";
  await dialog.getByLabel("Measured cuts").setInputFiles(cuts(good.replace("azimuth,0,25", "azimuth,0,loud")));
  await expect(dialog.getByRole("alert")).toContainText('Row 3, gain: "loud" is not a number.');
  await dialog.getByLabel("Measured cuts").setInputFiles(cuts(good));
  await expect(dialog).toHaveCount(0);
  await page.getByRole("button", { name: "Tramontane Small, own" }).click();
  await expect(dialog.getByRole("img", { name: /Pattern by measured cuts/ })).toBeVisible();
  await page.keyboard.press("Escape");

  // A radio's ladder and what the rules leave it.
  await page.getByRole("button", { name: "Razorbill Small", exact: true }).click();
  await expect(dialog.getByTestId("ladder")).toContainText("256-QAM");
  await expect(dialog.locator('[data-domain="FCC-like"]')).toContainText(/5735 to 5835.*dBm, EIRP/);
  await expectAccessible(page);
  await dialog.getByRole("button", { name: "Retire it" }).click();
  await expect(dialog.getByRole("button", { name: "Take it again" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("row", { name: /Razorbill Small retired/ })).toBeVisible();
  await page
    .getByRole("button", { name: /^Razorbill Small/ })
    .first()
    .click();
  await dialog.getByRole("button", { name: "Take it again" }).click();
  await page.keyboard.press("Escape");
  const steps = page
    .getByRole("region", { name: "Edits of the catalogue" })
    .getByRole("listitem")
    .filter({ hasText: "Tramontane Small, own" });
  await expect(steps).toHaveCount(2);
  for (const i of [0, 1]) {
    await steps.nth(i).getByRole("button", { name: "Take back" }).click();
    await expect(steps.nth(i).getByRole("button", { name: "Do again" })).toBeVisible();
  }
  await expect(page.getByRole("button", { name: "Tramontane Small, own" })).toHaveCount(0);
});

test("an own part by form: a slip is told at its field, a shorter form by kind, and what was added can be plugged in", async ({
  page,
  request,
}) => {
  const jobId = (await demoJob(request)).job.id;
  await page.goto(`/jobs/${jobId}/gear`);
  await page.getByRole("button", { name: "Own part" }).click();
  const form = page.getByRole("form", { name: "Own part" });
  await expect(form.getByRole("button", { name: "Add the part" })).toBeDisabled();
  await form.getByLabel("Name").fill("Skerry Eye");
  await form.getByLabel("Kind").selectOption("camera");
  await form.getByLabel("Draws at most, W").fill("six");
  await form.getByLabel("Takes").selectOption("802.3af");
  await form.getByRole("button", { name: "Add the part" }).click();
  await expect(form.getByRole("alert")).toHaveText('"six" is not a number.');
  await form.getByLabel("Draws at most, W").fill("6,5");
  await form.getByLabel("Works from, V").fill("37");
  await form.getByRole("button", { name: "Add the part" }).click();
  await expect(form.getByRole("alert")).toContainText("low_v and high_v come together");
  await form.getByLabel("Works to, V").fill("57");
  await form.getByLabel("In stock").fill("3");
  await expectAccessible(page);
  await form.getByRole("button", { name: "Add the part" }).click();
  await expect(page.getByText("Taken in: 0 radios, 0 antennas, 1 part.")).toBeVisible();
  await expect(form.getByLabel("Name")).toHaveValue("");
  const parts = (await (await request.get("/api/hardware/parts")).json()) as { id: string }[];
  expect(parts.find((p) => p.id === "skerry-eye")).toMatchObject({
    kind: "camera",
    drawMostW: 6.5,
    inputVolts: { "802.3af": { low: 37, high: 57 } },
    stock: 3,
    source: "own",
  });
  await form.getByLabel("Kind").selectOption("gland");
  await expect(form.getByLabel("Draws at most, W")).toHaveCount(0);
  await form.getByLabel("Name").fill("Skerry Gland");
  await form.getByLabel("Hole it needs, mm").fill("63");
  await form.getByRole("button", { name: "Add the part" }).press("Enter");
  await expect(page.getByRole("cell", { name: "Skerry Gland" })).toBeVisible();
});
