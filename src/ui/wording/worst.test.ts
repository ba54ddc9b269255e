import { expect, test } from "vitest";
import type { LinkVerdict } from "@/contract";
import { worstText } from "./worst";

const missed = (missM: number, name: string | null = "Water Tower"): LinkVerdict["worst"] => ({ name, missM, atM: 10, kind: "building" });
const link = (of: Partial<LinkVerdict>): LinkVerdict =>
  ({ verdict: "clear", clearanceVerdict: "clear", serviceVerdict: "clear", trouble: null, worst: missed(-1.4), ...of }) as LinkVerdict;

test.each<[string, Partial<LinkVerdict>, string]>([
  ["a clear link tells its room", {}, "1.4\u00a0m to spare, Water Tower"],
  [
    "one in the way tells by how much",
    { verdict: "short", clearanceVerdict: "short", trouble: "short", worst: missed(1.8) },
    "1.8\u00a0m short, Water Tower",
  ],
  ["blinded on a clear path, it tells that and no room", { verdict: "short", trouble: "air-blinded" }, "blinded by a radio on its mast"],
  [
    "tight by itself and short by the sector, it tells the sector",
    { verdict: "short", serviceVerdict: "tight", trouble: "sector-over" },
    "its hub's air is not enough for all",
  ],
  ["an open permission on a clear path", { verdict: "unknown", serviceVerdict: "unknown", trouble: "permission" }, "permission open"],
  [
    "ground that nobody knows",
    { verdict: "unknown", clearanceVerdict: "unknown", trouble: "ground-unknown", worst: null },
    "ground not known",
  ],
  ["what has no name", { worst: missed(-0.6, null) }, "0.6\u00a0m to spare, building"],
])("%s", (_what, of, words) => expect(worstText(link(of), "metric")).toBe(words));
