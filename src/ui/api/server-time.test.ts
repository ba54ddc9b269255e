import { expect, test, vi } from "vitest";

const fresh = async () => {
  vi.resetModules();
  return import("./server-time");
};
const AT = Date.parse("2026-12-03T10:00:00Z");
const TOLD = "Thu, 03 Dec 2026 10:00:00 GMT";

test("a phone three hours ahead knows it after one answer", async () => {
  const { noteServerTime, aheadOfServerS } = await fresh();
  expect(aheadOfServerS()).toBeNull();
  noteServerTime(TOLD, AT + 10_800_400);
  expect(aheadOfServerS()).toBe(10_800);
});

test("the way of an answer is no error of the clock; an answer without a time says nothing", async () => {
  const { noteServerTime, aheadOfServerS } = await fresh();
  noteServerTime(null, AT);
  noteServerTime("yesterday", AT);
  expect(aheadOfServerS()).toBeNull();
  noteServerTime(TOLD, AT + 2900);
  expect(aheadOfServerS()).toBe(0);
});

test("a clock that was put right is noticed; seconds more or less are not", async () => {
  const { noteServerTime, aheadOfServerS } = await fresh();
  noteServerTime(TOLD, AT + 10_800_000);
  noteServerTime(TOLD, AT + 10_802_000);
  expect(aheadOfServerS()).toBe(10_800);
  noteServerTime(TOLD, AT + 500);
  expect(aheadOfServerS()).toBe(0);
});
