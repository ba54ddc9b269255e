/* Sites with the edits on their way laid over them. */
import { expect, test } from "vitest";
import { RECORDS, type SiteDto } from "@/contract";
import type { Edit } from "./outbox";
import { withPendingSites } from "./pending-sites";

const JOB = "11111111-1111-4111-8111-111111111111";
const site = (id: string, name: string): SiteDto =>
  ({ ...RECORDS.site.fields.parse({ name, latDeg: 47.3, lonDeg: -19.4, mountAglM: 6 }), id, version: 3 }) as SiteDto;
const sites = [site("a", "Boat shed"), site("b", "Signal mast")];
let number = 0;
const edit = (method: "POST" | "PATCH", path: string, body: object, jobId = JOB): Edit =>
  ({ id: `e${++number}`, method, path: `/api/jobs/${jobId}${path}`, body }) as unknown as Edit;
const names = (edits: readonly Edit[]): string[] => withPendingSites(JOB, sites, edits).map((s) => s.name);

test("nothing on its way leaves the very list that was read", () => {
  expect(withPendingSites(JOB, sites, [])).toBe(sites);
  expect(withPendingSites(JOB, sites, [edit("PATCH", "/links/a", { version: 1, label: "x" })])).toBe(sites);
});

test("what was changed stands there already, one edit over the other; the version is still the server's", () => {
  const edits = [
    edit("PATCH", "/sites/a", { version: 3, name: "Shed", latDeg: 47.4 }),
    edit("PATCH", "/sites/a", { version: 4, name: "New shed" }),
  ];
  const [a, b] = withPendingSites(JOB, sites, edits);
  expect(a).toMatchObject({ name: "New shed", latDeg: 47.4, lonDeg: -19.4, version: 3 });
  expect(b).toBe(sites[1]);
});

test("a new one has the id that was made for it, and what it was not told at its start; it can be changed and taken away", () => {
  const made = edit("POST", "/sites", { id: "c", name: "Store", latDeg: 47.31, lonDeg: -19.41, mountAglM: 4 });
  const [, , c] = withPendingSites(JOB, sites, [made]);
  expect(c).toMatchObject({ id: "c", name: "Store", mountAglM: 4, version: 1 });
  // All that a site has: a row of the list reads any of it.
  expect(Object.keys(c!).sort()).toEqual(expect.arrayContaining(Object.keys(RECORDS.site.fields.shape).sort()));
  expect(names([made, edit("PATCH", "/sites/c", { version: 1, name: "Net store" })])).toEqual(["Boat shed", "Signal mast", "Net store"]);
  expect(names([made, edit("PATCH", "/sites/c", { version: 1, deleted: true })])).toEqual(["Boat shed", "Signal mast"]);
});

test("one that is taken away is gone, another job's edits are another job's", () => {
  expect(names([edit("PATCH", "/sites/b", { version: 3, deleted: true })])).toEqual(["Boat shed"]);
  expect(names([edit("PATCH", "/sites/b", { version: 3, deleted: true }, "22222222-2222-4222-8222-222222222222")])).toEqual([
    "Boat shed",
    "Signal mast",
  ]);
});
