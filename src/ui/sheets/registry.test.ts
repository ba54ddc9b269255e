import { expect, test } from "vitest";
import type { LinkVerdict } from "@/contract";
import type { Verdict } from "@/core/link";
import { indexOf, opensAt, SHEETS } from "./registry";

const link = (linkId: string, verdict: Verdict, clearanceVerdict: Verdict = verdict): LinkVerdict =>
  ({ linkId, verdict, clearanceVerdict }) as LinkVerdict;
const states = (
  links: LinkVerdict[] | undefined,
  linkId: string | null,
  live: Verdict | undefined,
  briefOpen: number | null,
  lone: number | null,
  kit: Verdict | null = null,
) =>
  Object.fromEntries(
    indexOf({ jobId: "job", links: links ?? [], linkId, live, briefOpen, loneSites: lone, kit }).map((r) => [r.name, r.state]),
  );

test("settled is said only where nothing is open: no lone site, no open point, no link that is not clear in all", () => {
  const clear = [link("a", "clear"), link("b", "clear")];
  expect(states(clear, "a", undefined, 0, 0)).toMatchObject({ Brief: "settled", Ground: "settled", Section: "settled" });
  expect(states(clear, "a", undefined, 0, 1).Ground).toBe("open");
  expect(states(clear, "a", undefined, 0, null).Ground).toBe("open");
  expect(states(clear, "a", undefined, 2, 0).Brief).toBe("open");
  expect(states(clear, "a", undefined, null, 0).Brief).toBe("open");
  expect(states(undefined, null, undefined, 0, 0)).toMatchObject({ Ground: "open" });
});

test("a clear path with a dead radio is in trouble on both sheets; what is open on the page comes before what was stored", () => {
  const links = [link("a", "clear"), link("b", "short", "clear"), link("c", "short")];
  expect(states(links, "b", undefined, 0, 0)).toMatchObject({
    Ground: { verdict: "short", words: "2 short" },
    Section: { verdict: "short", words: "short" },
  });
  expect(states(links, "b", "tight", 0, 0).Section).toEqual({ verdict: "tight", words: "tight" });
});

test("the kit says what it comes to, and is open while nobody knows", () => {
  const links = [link("a", "clear")];
  expect(states(links, "a", undefined, 0, 0).Kit).toBe("open");
  expect(states(links, "a", undefined, 0, 0, "clear").Kit).toBe("settled");
  expect(states(links, "a", undefined, 0, 0, "short").Kit).toEqual({ verdict: "short", words: "short" });
});

test("every sheet has a number of its own in order, keys, and an address; one that does not apply is left out", () => {
  const facts = { jobId: "j", links: [], linkId: null, live: undefined, briefOpen: 0, loneSites: 0, kit: null };
  const numbers = Object.values(SHEETS).map((s) => s.number);
  expect(numbers).toEqual([...new Set(numbers)].sort());
  for (const s of Object.values(SHEETS)) expect(s.keys.length, s.name).toBeGreaterThan(0);
  const rows = indexOf(facts);
  expect(new Set(rows.map((r) => r.href)).size).toBe(rows.length);
  expect(rows.map((r) => r.key)).not.toContain("section");
  expect(indexOf({ ...facts, links: [link("a", "clear"), link("b", "short")] }).find((r) => r.key === "section")?.href).toBe(
    "/jobs/j/section/b",
  );
});

test("a job opens where who is here may look: the sheet that was meant, else the first of their own", () => {
  const of = { jobId: "j", links: [link("a", "clear"), link("b", "short")], linkId: null };
  expect(opensAt(of, "ground", null)).toBe("/jobs/j/ground");
  expect(opensAt(of, "ground", ["section"])).toBe("/jobs/j/section/b");
  expect(opensAt({ ...of, linkId: "a" }, "section", ["gear", "section"])).toBe("/jobs/j/section/a");
  expect(opensAt({ ...of, linkId: "a" }, "section", ["wiring"])).toBe("/jobs/j/wiring/a");
  // A hub needs two links: the next of their sheets that there is.
  expect(opensAt({ jobId: "j", links: [link("a", "clear")], linkId: null }, "ground", ["hub", "kit"])).toBe("/jobs/j/kit");
  expect(opensAt({ jobId: "j", links: [], linkId: null }, "ground", ["section"])).toBeNull();
});
