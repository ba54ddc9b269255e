import { beforeEach, expect, test, vi } from "vitest";
import { keptJobs, noteKept } from "./kept-jobs";

const store = new Map<string, string>();
beforeEach(() => {
  store.clear();
  vi.stubGlobal("localStorage", { getItem: (k: string) => store.get(k) ?? null, setItem: (k: string, v: string) => store.set(k, v) });
});

test("the last that was kept is first, once, and no more than twenty", () => {
  for (let i = 0; i < 25; i++) noteKept({ id: `j${i}`, name: `Job ${i}`, atMs: i });
  noteKept({ id: "j20", name: "Job 20, renamed", atMs: 99 });
  expect(keptJobs()).toHaveLength(20);
  expect(keptJobs()[0]).toEqual({ id: "j20", name: "Job 20, renamed", atMs: 99 });
  expect(keptJobs().filter((k) => k.id === "j20")).toHaveLength(1);
});

test("what somebody else wrote there is no job, and storage that is shut holds up nothing", () => {
  store.set("dry-arc.kept-jobs", '[{"id":1},null,{"id":"a","name":"A","atMs":1}]');
  expect(keptJobs().map((k) => k.id)).toEqual(["a"]);
  store.set("dry-arc.kept-jobs", "{");
  expect(keptJobs()).toEqual([]);
  vi.stubGlobal("localStorage", {
    getItem: () => {
      throw new Error("shut");
    },
    setItem: () => {
      throw new Error("shut");
    },
  });
  expect(keptJobs()).toEqual([]);
  expect(() => noteKept({ id: "a", name: "A", atMs: 1 })).not.toThrow();
});
