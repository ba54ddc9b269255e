import { expect, test } from "@playwright/test";
import catalogue from "../demo/hardware.json" with { type: "json" };
import { demoJob, expectAccessible, openSection } from "./helpers";

test("own radios and antennas by form and by file, then used in a link", async ({ page, request }) => {
  const { job } = await demoJob(request);
  await page.goto(`/jobs/${job.id}/gear`);
  await expect(page.getByRole("heading", { name: "Gear" })).toBeVisible();
  await expectAccessible(page);

  await page.getByLabel("Name").fill("Own Panel");
  await page.getByRole("button", { name: "Add the radio" }).click();
  await expect(page.getByText("choose a radio whose modulation table to start from")).toBeVisible();
  await page.getByLabel("Modulations, family and roles like").selectOption("kittiwake-panel");
  await page.getByLabel("Antenna gain, dBi").fill("abc");
  await page.getByRole("button", { name: "Add the radio" }).click();
  await expect(page.getByText("gain must be a number")).toBeVisible();
  await page.getByLabel("Antenna gain, dBi").fill("17.5");
  await page.getByRole("button", { name: "Add the radio" }).click();
  await expect(page.getByText("Taken in: 1 radio, 0 antennas.")).toBeVisible();
  await expect(page.getByRole("row", { name: /Own Panel 5 GHz ax/ })).toContainText("17.5");

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
