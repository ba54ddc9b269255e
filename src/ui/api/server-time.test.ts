import { expect, test, vi } from "vitest";

const fresh = async (kept: string | null) => {
  const store = new Map<string, string>(kept === null ? [] : [["dry-arc.ahead-s", kept]]);
  vi.stubGlobal("localStorage", { getItem: (k: string) => store.get(k) ?? null, setItem: (k: string, v: string) => store.set(k, v) });
  vi.resetModules();
  return { ...(await import("./server-time")), store };
};
const AT = Date.parse("2026-12-03T10:00:00Z");

test("a phone three hours ahead knows it after one answer, and still after a reload without coverage", async () => {
  const one = await fresh(null);
  expect(one.aheadOfServerS()).toBeNull();
  one.noteServerTime("Thu, 03 Dec 2026 10:00:00 GMT", AT + 10_800_400);
  expect(one.aheadOfServerS()).toBe(10_800);
  const two = await fresh(one.store.get("dry-arc.ahead-s")!);
  expect(two.aheadOfServerS()).toBe(10_800);
});

test("the way of an answer is no error of the clock; an answer without a time says nothing", async () => {
  const { noteServerTime, aheadOfServerS } = await fresh(null);
  noteServerTime(null, AT);
  noteServerTime("yesterday", AT);
  expect(aheadOfServerS()).toBeNull();
  noteServerTime("Thu, 03 Dec 2026 10:00:00 GMT", AT + 2900);
  expect(aheadOfServerS()).toBe(0);
});

test("a clock that was put right is noticed", async () => {
  const { noteServerTime, aheadOfServerS } = await fresh("10800");
  noteServerTime("Thu, 03 Dec 2026 10:00:00 GMT", AT + 500);
  expect(aheadOfServerS()).toBe(0);
});
