import { expect, test } from "vitest";
import { RIGHTS, ROLES, SHEET_NAMES } from "@/contract";
import { auditSentence, lastDayFor, lastDayText, ROLE_NAME, ROLE_NOTE, SHEET_WORD } from "./people";

test("a phone comes in until a week after the next visit; a visit that is over counts for nothing", () => {
  expect(lastDayFor(["2026-12-03", "2027-01-10"], "2026-12-01")).toBe("2026-12-10");
  expect(lastDayFor(["2026-11-03"], "2026-12-01")).toBe("2026-12-08");
  expect(lastDayFor(["2026-12-01"], "2026-12-01")).toBe("2026-12-08");
  expect(lastDayFor([], "2026-12-28")).toBe("2027-01-04");
});

test("what ends at midnight is said to end the day before, wherever the reader is", () => {
  expect(lastDayText("2026-12-11T00:00:00.000Z")).toBe("10 Dec 2026");
  expect(lastDayText("2026-12-10T15:30:00.000Z")).toBe("10 Dec 2026");
});

test("every role and sheet has a word, and what a later program wrote into the book is told by its name", () => {
  for (const role of ROLES) expect([ROLE_NAME[role], ROLE_NOTE[role]].every((t) => t.length > 2)).toBe(true);
  for (const s of SHEET_NAMES) expect(SHEET_WORD[s].toLowerCase()).toBe(s);
  expect(auditSentence({ what: "invited", detail: { email: "a@isles.example", role: "viewer" } })).toBe(
    "invited a@isles.example as viewer",
  );
  expect(auditSentence({ what: "from-the-future", detail: {} })).toBe("from-the-future");
  expect(Object.keys(RIGHTS).length).toBeGreaterThan(15);
});
