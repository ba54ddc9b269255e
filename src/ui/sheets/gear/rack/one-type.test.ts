import { describe, expect, test } from "vitest";
import { type HardwareDto, type Limits, limitsSchema, type ProfileDto } from "@/contract";
import type { LinkPlan } from "@/core/link";
import type { Serving } from "@/core/rack";
import { radio } from "@/core/testing/scene";
import { ApiError } from "../../../api/client";
import type { LinkBundle } from "../../../api/queries";
import { findOneType, type SearchParts } from "./one-type-search";
import { oneTypeHolds, oneTypeWords } from "./one-type-words";
import type { OtherLink } from "./other-links";

type Found = Serving & { readonly drawn: boolean };
const unit = (key: string) => ({ key, name: key, radio: radio({ id: key }), antenna: null, faceCm: 20, priceEur: null, poleMm: null });
const found = (key: string, priceEur: number | null, drawn = true): Found => ({
  pair: { key: `${key}|${key}`, near: unit(key), far: unit(key) },
  priceEur,
  faceCm: 20,
  drawn,
});

const PATH = { pathM: 1, distanceM: [0, 1], groundAmslM: [0, 0], datasetIndex: [0, 0], datasets: [], bodies: [], features: [], side: null };
const hardware = (): HardwareDto => ({ radios: [], antennas: [] });

/** A job of links, each with what its rack would find; and what was asked of them. */
const jobOf = (
  racks: Readonly<Record<string, readonly Found[] | "no-need">>,
  drawnAs: (link: string, only: string) => readonly Found[],
) => {
  const asked: string[] = [];
  const read = async (id: string): Promise<OtherLink> =>
    racks[id] === "no-need"
      ? { kind: "no-need" }
      : {
          kind: "plan",
          plan: { name: id } as unknown as LinkPlan,
          bundle: { near: { id: `${id}-near` }, far: { id: `${id}-far` } } as LinkBundle,
          needMbps: 50,
          path: async () => PATH as unknown as ProfileDto,
        };
  const parts: SearchParts = {
    read,
    serving: async (_profile, request) => {
      const id = (request.plan as unknown as { name: string }).name;
      asked.push(`${id} ${request.limits.onlyType ?? "all"}`);
      return request.limits.onlyType === null ? (racks[id] as readonly Found[]) : drawnAs(id, request.limits.onlyType);
    },
    onProgress: () => undefined,
    isGone: () => false,
  };
  return { links: Object.keys(racks).map((id) => ({ id })), parts, asked };
};
const limits = (): Limits => limitsSchema.parse({ oneTypeMost: 100 });
const names = (id: string): string => id.toUpperCase();
const plain = (words: string): string => words.replaceAll("\u00a0", " ");

describe("looking for one type", () => {
  test("what is told of a type is drawn wherever it is told; one that the draws refuse gives way to the next", async () => {
    const racks = {
      a: [found("small", 90), found("large", 200, false)],
      b: [found("large", 200), found("small", 90, false)],
    };
    const job = jobOf(racks, (link, only) => (link === "b" && only === "small|small" ? [] : [found(only.split("|")[0]!, 200)]));
    const answer = await findOneType(job.links, limits(), hardware(), job.parts);
    expect(answer!.best).toMatchObject({ key: "large|large", serves: 2 });
    expect(job.asked).toEqual(["a all", "b all", "b small|small", "a large|large"]);
  });

  test("asked again with nothing changed no rack is worked out again; with another limit each is", async () => {
    const job = jobOf({ a: [found("small", 90)] }, () => []);
    const of = hardware();
    await findOneType(job.links, limits(), of, job.parts);
    await findOneType(job.links, limits(), of, job.parts);
    expect(job.asked).toHaveLength(1);
    await findOneType(job.links, { ...limits(), priceMost: 50 }, of, job.parts);
    expect(job.asked).toHaveLength(2);
    // Another catalogue may hold another type.
    await findOneType(job.links, limits(), hardware(), job.parts);
    expect(job.asked).toHaveLength(3);
  });

  test("left alone it ends, and a link without a need is passed over and named", async () => {
    const job = jobOf({ a: [found("small", 90)], b: "no-need" }, () => []);
    const answer = await findOneType(job.links, limits(), hardware(), job.parts);
    expect(answer).toMatchObject({ passedOver: ["b"], links: 1 });
    expect(plain(oneTypeWords(answer!, 100, names))).toBe(
      "small serves the one link, € 90 in all: as much as the best of each. 1 kind of unit on the van in place of 1. Not looked at, for want of a required rate, a radio or a path: B.",
    );
    // A path that the server refuses is that link's own trouble; a server that does not answer is no answer at all.
    const failing = (status: number): SearchParts => ({
      ...job.parts,
      read: async (id) =>
        ({
          ...(await job.parts.read("a")),
          ...(id === "b" ? { path: () => Promise.reject(new ApiError(status, { code: "internal" })) } : {}),
        }) as OtherLink,
    });
    expect(await findOneType(job.links, limits(), hardware(), failing(422))).toMatchObject({ passedOver: ["b"], links: 1 });
    await expect(findOneType(job.links, limits(), hardware(), failing(503))).rejects.toThrow();
    let reads = 0;
    const left = await findOneType(job.links, limits(), hardware(), {
      ...job.parts,
      read: (id) => {
        reads += 1;
        return job.parts.read(id);
      },
      isGone: () => true,
    });
    expect([left, reads]).toEqual([null, 1]);
  });
});

describe("one type in words", () => {
  const of = async (racks: Readonly<Record<string, readonly Found[]>>) => {
    const job = jobOf(racks, () => []);
    return (await findOneType(job.links, limits(), hardware(), job.parts))!;
  };

  test("it holds only where it serves all, at a known price, within what it may cost more", async () => {
    const dear = await of({ a: [found("small", 90), found("large", 200)], b: [found("large", 200)] });
    expect([0, 109, 110, 500].map((most) => oneTypeHolds(dear, most))).toEqual([false, false, true, true]);
    expect([oneTypeHolds(dear, null), oneTypeHolds(null, 500)]).toEqual([false, false]);
    expect(plain(oneTypeWords(dear, 100, names))).toBe(
      "large serves all 2 links, € 400 in all: € 110 more than the best of each, over the € 100 set. Each link keeps its own. 1 kind of unit on the van in place of 2.",
    );
    const lacking = await of({ a: [found("small", 90)], b: [found("large", 200)], c: [found("small", 90)], d: [] });
    expect(oneTypeHolds(lacking, 10_000)).toBe(false);
    expect(plain(oneTypeWords(lacking, 100, names))).toBe(
      "No one type serves all 3 links: small serves 2, not B. Nothing at all serves D.",
    );
    const unpriced = await of({ a: [found("small", null)] });
    expect(oneTypeHolds(unpriced, 10_000)).toBe(false);
    expect(oneTypeWords(unpriced, 100, names)).toContain("at a price that is not stated");
    expect(oneTypeWords(await of({ a: [] }), 100, names)).toBe("No type serves any link of this job. Nothing at all serves A.");
  });
});
