import { expect, test } from "@playwright/test";
import { openSection } from "./helpers";

test("a permission is recorded, covers only its channel and days, stops the design when it ended, and is taken back", async ({
  page,
  request,
}) => {
  await openSection(page, request, "Skarn Light");
  const verdict = page.getByTestId("verdict");
  const open = page.getByText(/This band needs a permission before it may be used/);
  await expect(open.first()).toBeVisible();
  await expect(verdict).not.toHaveText("Clear");
  const first = (await verdict.textContent()) ?? "";

  const gear = page.getByRole("tab", { name: "gear" });
  const findings = page.getByRole("tab", { name: "findings" });
  const record = async (fields: Readonly<Record<string, string>>): Promise<void> => {
    await gear.click();
    await page.getByRole("button", { name: "Record a permission" }).press("Enter");
    const dialog = page.getByRole("dialog", { name: "Record a permission" });
    for (const [label, text] of Object.entries(fields)) await dialog.getByLabel(label, { exact: true }).fill(text);
    await dialog.getByRole("button", { name: "Record it" }).press("Enter");
  };
  const dialog = page.getByRole("dialog", { name: "Record a permission" });
  const paper = { Kind: "registration", Holder: "Merrow Harbour Trust", "Place it is for": "Skarn Light" };

  // Nothing is recorded without what makes it a permission, and each slip is named.
  await record({ Kind: "registration", "To, MHz": "wide" });
  await expect(dialog.getByText("the number or reference must not be empty")).toBeVisible();
  await expect(dialog.getByText('the upper edge must be a number, received "wide"')).toBeVisible();
  await page.keyboard.press("Escape");

  // Another channel: on record, and the design still stops.
  await record({ ...paper, "Number or reference": "SK-1", "From, MHz": "1000", "To, MHz": "1020" });
  await expect(dialog).toBeHidden();
  await expect(page.getByText(/SK-1: .*another channel/).first()).toBeVisible();
  await findings.click();
  await expect(open.first()).toBeVisible();
  await expect(verdict).toHaveText(first);

  // Ended before the visit: said by its day.
  await record({ ...paper, "Number or reference": "SK-2", "First day": "2020-01-01", "Last day, empty for open": "2021-01-01" });
  await findings.click();
  await expect(page.getByText(/The permission SK-2/).first()).toBeVisible();
  await expect(verdict).toHaveText(first);

  // The right one: the finding goes, and comes again when the record is taken back.
  await record({ ...paper, "Number or reference": "SK-3" });
  await expect(page.getByText(/SK-3: .*covers this channel/).first()).toBeVisible();
  await findings.click();
  await expect(open).toHaveCount(0);
  await expect(page.getByText(/The permission SK-2/)).toHaveCount(0);
  await expect(page.getByTestId("saved")).toContainText("all edits");
  await page.reload();
  await gear.click();
  await expect(page.getByText(/SK-3: .*covers this channel/).first()).toBeVisible();
  await page.getByRole("button", { name: "Record a permission" }).press("Enter");
  for (const number of ["SK-3", "SK-2", "SK-1"]) await dialog.getByRole("button", { name: `Take ${number} off the record` }).click();
  await page.keyboard.press("Escape");
  await findings.click();
  await expect(open.first()).toBeVisible();
  await expect(page.getByTestId("saved")).toContainText("all edits");
});
