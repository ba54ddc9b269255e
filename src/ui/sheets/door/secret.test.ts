import fc from "fast-check";
import { expect, test } from "vitest";
import { pathBack } from "./secret";

test("goes back to a path of this server", () => {
  for (const to of ["/", "/people", "/jobs/7c/section/9a?at=3", "/jobs/a/ground?link=b"])
    expect(pathBack(`?to=${encodeURIComponent(to)}`)).toBe(to);
  expect(pathBack("")).toBe("/");
});

test("goes nowhere else, however it is written", () => {
  for (const to of [
    "https://elsewhere.example/",
    "//elsewhere.example",
    "/\\\\elsewhere.example",
    "/\\elsewhere.example",
    "\\\\elsewhere.example",
    "javascript:alert(1)",
    "/\t/elsewhere.example",
    "/\n/elsewhere.example",
    " //elsewhere.example",
    "elsewhere.example",
    "/.//elsewhere.example",
    "/jobs/..//elsewhere.example",
    "/.\\/elsewhere.example",
    "/%2e//elsewhere.example",
    "/%09/elsewhere.example\u0000",
  ])
    expect(new URL(pathBack(`?to=${encodeURIComponent(to)}`), "https://dryarc.local").host, JSON.stringify(to)).toBe("dryarc.local");
});

test("whatever is asked for, the page that opens is this server's", () => {
  fc.assert(
    fc.property(fc.oneof(fc.string(), fc.webUrl(), fc.stringMatching(/^[/\\\\.@:a-z%0-9]*$/), fc.stringMatching(/^[/\\\\.a]*$/)), (to) => {
      const at = new URL(pathBack(`?to=${encodeURIComponent(to)}`), "https://dryarc.local:4610/sign-in");
      expect(at.origin).toBe("https://dryarc.local:4610");
    }),
    { numRuns: 3000 },
  );
});
