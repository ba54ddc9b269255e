import { expect, test } from "vitest";
import { openApi } from "@/contract";
import { type Document, groupsOf } from "./lines";

const document = openApi("https://dryarc.local") as unknown as Document;
const all = groupsOf(document, "").flatMap((g) => g.lines);

test("every address of the document is a line once, under what it is about, with a sentence and who may", () => {
  const there = Object.entries(document.paths).flatMap(([path, methods]) => Object.keys(methods).map((m) => `${m.toUpperCase()} ${path}`));
  expect(all.map((l) => `${l.method} ${l.path}`).sort()).toEqual(there.sort());
  for (const line of all) {
    expect(line.does, line.path).toMatch(/^[A-Z].*\.$/);
    expect(line.who, line.path).toMatch(/^For (any token|a token that (writes, or )?plans)\.$/);
  }
});

test("what it takes is a schema or a kind of file; a record is answered by its name", () => {
  const line = (method: string, path: string) => all.find((l) => l.method === method && l.path === path)!;
  expect(line("GET", "/jobs/{jobId}/sites")).toMatchObject({ body: null, row: "Site", who: "For any token." });
  expect(line("PATCH", "/jobs/{jobId}/sites/{recordId}").body).toMatchObject({
    allOf: [{ properties: { name: {} } }, { required: ["version"] }, {}],
  });
  expect(line("PUT", "/jobs/{jobId}/uploads/{uploadId}").body).toBe("a file of type application/octet-stream");
  expect(line("GET", "/jobs/{jobId}/obstacles").query.map((q) => q.name)).toContain("west");
  expect(line("POST", "/jobs").who).toBe("For a token that plans.");
});

test("letters are looked for in addresses and sentences; nothing found is nothing", () => {
  expect(
    groupsOf(document, "HUBS")
      .flatMap((g) => g.lines)
      .every((l) => /hubs/i.test(`${l.path} ${l.does}`)),
  ).toBe(true);
  expect(groupsOf(document, "iCalendar").map((g) => g.lines[0]!.path)).toEqual(["/jobs/{jobId}/calendar"]);
  expect(groupsOf(document, "no such address")).toEqual([]);
});
