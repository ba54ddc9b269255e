import { describe, expect, test } from "vitest";
import { type Brief, briefSchema, type LinkDto, PERMISSIONS, type PhotoDto, type SiteDto } from "@/contract";
import { openPoints } from "./open-points";

const ids = ["6b1f0c52-7b5c-4a4e-9f0e-0b7c1f6f0001", "6b1f0c52-7b5c-4a4e-9f0e-0b7c1f6f0002"] as const;
const sites = [
  { id: ids[0], name: "Office" },
  { id: ids[1], name: "Shed" },
] as unknown as SiteDto[];
const link = (toFar: number | null, toNear: number | null): LinkDto =>
  ({ nearSiteId: ids[0], farSiteId: ids[1], design: { needToFarMbps: toFar, needToNearMbps: toNear } }) as unknown as LinkDto;
const settled: Brief = briefSchema.parse({
  feed: { downMbps: 100, upMbps: 20 },
  source: { freePort: "yes" },
  shapes: { chosen: "pair", reason: "no duct" },
  permissions: PERMISSIONS.map((key) => ({ key, state: "not-needed" })),
});
const words = (brief: Partial<Brief>, links: LinkDto[] = [link(10, 5)], photos: PhotoDto[] = []) =>
  openPoints({ ...settled, ...brief }, links, sites, photos).map((p) => p.words);

describe("what keeps a brief open", () => {
  test("nothing when everything was answered", () => expect(words({})).toEqual([]));
  test.each([
    ["a rate missing one way", {}, [link(10, null)], "Office to Shed has no required rate back."],
    ["both rates missing", {}, [link(null, null)], "Office to Shed has no required rate to the far end and back."],
    ["no link at all", {}, [], "No link is drawn yet, so no rate can be asked of one."],
    [
      "a shape without its reason",
      { shapes: { ...settled.shapes, reason: " " } },
      undefined,
      "The reason for the chosen shape is not recorded.",
    ],
    [
      "no port and no way round it",
      { source: { ...settled.source, freePort: "no" as const } },
      undefined,
      "There is no free port, and no way round it is written down.",
    ],
    [
      "a refusal",
      { permissions: settled.permissions.map((p) => (p.key === "landlord" ? { ...p, state: "refused" as const } : p)) },
      undefined,
      "Landlord: refused.",
    ],
    ["a permission never looked at", { permissions: settled.permissions.slice(1) }, undefined, "Landlord: open."],
  ] as const)("%s", (_what, brief, links, expected) => {
    expect(words(brief as Partial<Brief>, links as LinkDto[] | undefined)).toEqual([expected]);
  });
  test("photos that all look from the ground, until one does not", () => {
    const photo = (fromWhere: string) => ({ fromWhere }) as PhotoDto;
    expect(words({}, undefined, [photo("ground")])).toEqual(["All photos are from the ground: none shows what an antenna would see."]);
    expect(words({}, undefined, [photo("ground"), photo("antenna height")])).toEqual([]);
  });
  test("devices where no link goes", () => {
    const devices = briefSchema.parse({ devices: [{ id: "d", siteId: ids[1], kind: "camera", count: 1 }] }).devices;
    const other = { ...link(1, 1), farSiteId: ids[0] } as LinkDto;
    expect(openPoints({ ...settled, devices }, [other], sites, []).map((p) => p.words)).toContain("Shed has devices and no link.");
  });
});
