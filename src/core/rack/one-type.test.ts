import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { radio } from "../testing/scene";
import { oneTypeFor, type ServedLink, type Serving, typeKeyOf } from "./one-type";
import type { Unit } from "./types";

const unit = (key: string): Unit => ({
  key,
  name: key,
  radio: radio({ id: key }),
  antenna: null,
  faceCm: 20,
  priceEur: null,
  poleMm: null,
});
const serving = (near: string, far: string, priceEur: number | null, faceCm: number | null = 20): Serving => ({
  pair: { key: `${near}|${far}`, near: unit(near), far: unit(far) },
  priceEur,
  faceCm,
});
const link = (linkId: string, ...list: Serving[]): ServedLink => ({ linkId, serving: list });

describe("one type for all links", () => {
  test("the cheapest that serves all, beside what the best of each would cost, and the kinds that it saves", () => {
    const answer = oneTypeFor([
      link("a", serving("small", "small", 90), serving("large", "large", 200)),
      link("b", serving("large", "large", 200)),
      link("c", serving("small", "small", 90), serving("grand", "grand", 150), serving("large", "large", 200)),
    ]);
    expect(answer).toMatchObject({ links: 3, unserved: [], ownPriceEur: 380, ownKinds: 2, oneKinds: 1 });
    expect(answer.best).toMatchObject({ key: "large|large", serves: 3, lacks: [], priceEur: 600, dearerEur: 220 });
  });

  test("a pair is the same type whichever of its units stands near", () => {
    const answer = oneTypeFor([link("a", serving("hub", "leaf", 300)), link("b", serving("leaf", "hub", 300))]);
    expect(answer.best).toMatchObject({ key: "hub|leaf", serves: 2, dearerEur: 0 });
    expect(answer.oneKinds).toBe(2);
  });

  test("where none serves all, the one that serves most is named with what it lacks; what nothing serves is apart", () => {
    const answer = oneTypeFor([
      link("a", serving("x", "x", 1)),
      link("b", serving("x", "x", 1)),
      link("c", serving("y", "y", 5)),
      link("d"),
    ]);
    expect(answer.best).toMatchObject({ key: "x|x", serves: 2, lacks: ["c"] });
    expect(answer.unserved).toEqual(["d"]);
    expect(oneTypeFor([link("d")]).best).toBeNull();
    expect(oneTypeFor([]).best).toBeNull();
  });

  test("a price that no sheet states is not taken for nothing: it comes last, and what it costs more is not known", () => {
    const answer = oneTypeFor([link("a", serving("free", "free", null), serving("paid", "paid", 900))]);
    expect(answer.best).toMatchObject({ key: "paid|paid", dearerEur: null });
    expect(answer.ownPriceEur).toBeNull();
  });

  test("against every type by itself: none serves more links, none that serves as many is cheaper; the order of links is nothing", () => {
    const names = fc.constantFrom("k", "l", "m", "n");
    const list = fc.array(
      fc.tuple(names, names, fc.integer({ min: 1, max: 9 })).map(([a, b, face]) => serving(a, b, a.charCodeAt(0) + b.charCodeAt(0), face)),
      { maxLength: 6 },
    );
    fc.assert(
      fc.property(fc.array(list, { maxLength: 6 }), (lists) => {
        const links = lists.map((l, i) => link(`l${i}`, ...l));
        const answer = oneTypeFor(links);
        const keys = new Set(links.flatMap((l) => l.serving.map((s) => typeKeyOf(s.pair))));
        const plain = [...keys].map((key) => {
          const by = links.flatMap((l) => l.serving.find((s) => typeKeyOf(s.pair) === key) ?? []);
          return { count: by.length, priceEur: by.reduce((n, s) => n + s.priceEur!, 0) };
        });
        expect(answer.best === null).toBe(plain.length === 0);
        for (const p of plain) {
          expect(p.count).toBeLessThanOrEqual(answer.best!.serves);
          if (p.count === answer.best!.serves) expect(p.priceEur).toBeGreaterThanOrEqual(answer.best!.priceEur!);
        }
        const turned = oneTypeFor([...links].reverse());
        expect([turned.best?.serves, turned.best?.priceEur, turned.ownPriceEur]).toEqual([
          answer.best?.serves,
          answer.best?.priceEur,
          answer.ownPriceEur,
        ]);
        expect(answer.links + answer.unserved.length).toBe(links.length);
      }),
    );
  });
});
