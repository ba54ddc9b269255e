import { expect, test } from "vitest";
import { LINE_LASTS_MS, type Line, linesHere } from "./here";

const line = (personId: string, sheet: Line["sheet"], n = 1, jobId = "job"): Line => ({
  line: `${personId}-${n}`,
  jobId,
  personId,
  name: `Name of ${personId}`,
  sheet,
});

test("others are shown once each, on the sheet they opened last, of this job alone, and never oneself", () => {
  const here = linesHere(() => 0);
  here.hear({ ...line("bren", "load"), open: true });
  here.hear({ ...line("bren", "air", 2), open: true });
  here.hear({ ...line("anna", "brief"), open: true });
  here.hear({ ...line("elsewhere", "brief", 1, "another"), open: true });
  expect(here.othersAt("job", "anna")).toEqual([{ name: "Name of bren", sheet: "air" }]);
  expect(here.othersAt("job", "cora").map((o) => o.name)).toEqual(["Name of anna", "Name of bren"]);
  here.hear({ ...line("bren", "air", 2), open: false });
  expect(here.othersAt("job", "anna")).toEqual([{ name: "Name of bren", sheet: "load" }]);
});

test("a line of a process that is gone ends by itself; one that is told again stays", () => {
  let nowMs = 0;
  const here = linesHere(() => nowMs);
  here.hear({ ...line("bren", "load"), open: true });
  here.hear({ ...line("anna", "load"), open: true });
  nowMs = LINE_LASTS_MS - 1;
  here.hear({ ...line("anna", "load"), open: true });
  nowMs += 2;
  expect(here.othersAt("job", "cora").map((o) => o.name)).toEqual(["Name of anna"]);
});

test("only what changes who is shown is news: not a line that says again that it is open", () => {
  let nowMs = 0;
  const here = linesHere(() => nowMs);
  const hear = (sheet: Line["sheet"], open: boolean): boolean => here.hear({ ...line("bren", sheet), open });
  expect([hear("load", true), hear("load", true), hear("air", true), hear("air", true)]).toEqual([true, false, true, false]);
  // One that was gone from everybody's sight comes back.
  nowMs = LINE_LASTS_MS + 1;
  expect([hear("air", true), hear("air", false), hear("air", false)]).toEqual([true, true, false]);
});
