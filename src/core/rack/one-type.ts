/*
 * One type for all links of a job: what it would cost beside the best of each link, and how many kinds of unit fewer the van
 * carries. A type is the two units of a pair, whichever of them stands at which end.
 */
import type { Unit, UnitPair } from "./types";

/** The same for a pair and for the pair turned round. */
export const typeKeyOf = ({ near, far }: { readonly near: Pick<Unit, "key">; readonly far: Pick<Unit, "key"> }): string =>
  near.key <= far.key ? `${near.key}|${far.key}` : `${far.key}|${near.key}`;

/** One pair that serves a link, at its best width there. */
export interface Serving {
  readonly pair: UnitPair;
  /** Both ends; null where a sheet states no price. */
  readonly priceEur: number | null;
  /** The larger face, cm. */
  readonly faceCm: number | null;
}

/** What serves one link, in the order of its rack. */
export interface ServedLink {
  readonly linkId: string;
  readonly serving: readonly Serving[];
}

export interface OneType {
  readonly key: string;
  readonly pair: UnitPair;
  /** Links that it serves; the others are named in what it lacks. */
  readonly serves: number;
  readonly lacks: readonly string[];
  /** On all links that it serves; null where a sheet states no price. */
  readonly priceEur: number | null;
  /** More than the best of each of those links; below zero where those are chosen over a path that only they clear. */
  readonly dearerEur: number | null;
}

export interface OneTypeAnswer {
  /** The type that serves most links, of those the cheapest; null where nothing serves any. */
  readonly best: OneType | null;
  /** Links that something serves. */
  readonly links: number;
  /** Links that nothing serves: no type can be held against that. */
  readonly unserved: readonly string[];
  /** Of the best of each link together. */
  readonly ownPriceEur: number | null;
  /** Kinds of radio and antenna: of the best of each, and of the one type. */
  readonly ownKinds: number;
  readonly oneKinds: number;
}

const sum = (prices: readonly (number | null)[]): number | null =>
  prices.reduce<number | null>((all, p) => (all === null || p === null ? null : all + p), 0);

const kindsOf = (pairs: readonly UnitPair[]): number =>
  new Set(pairs.flatMap(({ near, far }) => [near, far].flatMap((u) => [u.radio.id, ...(u.antenna === null ? [] : [u.antenna.id])]))).size;

const ascending = (a: number | null, b: number | null): number => {
  const [x, y] = [a ?? Number.POSITIVE_INFINITY, b ?? Number.POSITIVE_INFINITY];
  return x === y ? 0 : x < y ? -1 : 1;
};

/** @returns the best single type over all links that anything serves, and what the best of each would be. */
export const oneTypeFor = (links: readonly ServedLink[]): OneTypeAnswer => {
  const served = links.filter((l) => l.serving.length > 0);
  const first = served.map((l) => l.serving[0]!);
  const types = new Map<string, { readonly pair: UnitPair; readonly faceCm: number | null; readonly by: Map<string, Serving> }>();
  for (const { linkId, serving } of served)
    for (const s of serving) {
      const key = typeKeyOf(s.pair);
      const type = types.get(key) ?? { pair: s.pair, faceCm: s.faceCm, by: new Map<string, Serving>() };
      types.set(key, type);
      if (!type.by.has(linkId)) type.by.set(linkId, s);
    }
  const ordered = [...types]
    .map(([key, t]) => ({ key, ...t, priceEur: sum([...t.by.values()].map((s) => s.priceEur)) }))
    .sort(
      (a, b) => b.by.size - a.by.size || ascending(a.priceEur, b.priceEur) || ascending(a.faceCm, b.faceCm) || (a.key < b.key ? -1 : 1),
    );
  const best = ordered[0];
  const unserved = links.filter((l) => l.serving.length === 0).map((l) => l.linkId);
  const ownPriceEur = sum(first.map((s) => s.priceEur));
  const ownKinds = kindsOf(first.map((s) => s.pair));
  if (best === undefined) return { best: null, links: 0, unserved, ownPriceEur, ownKinds, oneKinds: 0 };
  const ownThere = sum(served.flatMap((l) => (best.by.has(l.linkId) ? [l.serving[0]!.priceEur] : [])));
  return {
    best: {
      key: best.key,
      pair: best.pair,
      serves: best.by.size,
      lacks: served.flatMap((l) => (best.by.has(l.linkId) ? [] : [l.linkId])),
      priceEur: best.priceEur,
      dearerEur: best.priceEur === null || ownThere === null ? null : best.priceEur - ownThere,
    },
    links: served.length,
    unserved,
    ownPriceEur,
    ownKinds,
    oneKinds: kindsOf([best.pair]),
  };
};
