/* What the sheet makes of an end: where things stand, which sockets may be joined, which end of a lead goes, what is said. */
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { judgeSites, leadSchema, type SiteWiring, wiringSchema } from "@/contract";
import { portKey, proposeWiring, WIRING_CODES, type WiringGraph, wire } from "@/core/wiring";
import { cleanEnd, EARTH_DONE, lead, PARTS, place } from "@/core/wiring/testing/ends";
import { findingText, supplyText } from "../../wording/wiring";
import { foldsOf, heightsFor, type LayoutAsk, layoutEnd, radioNeeds, wallNeeds } from "./end-layout";
import { leadEnds, led, mayJoin, newLead, suits } from "./joins";
import { decidesOver, missingOf, placesOfLink, unitRows, verdictOver, worstOf } from "./wiring-view";

const SITE = "11111111-1111-4111-8111-111111111111";
const siteOf = (g: WiringGraph, siteId = SITE): SiteWiring => ({
  ...wiringSchema.parse({}),
  ...(g as unknown as Pick<SiteWiring, "places" | "leads" | "earth">),
  siteId,
});
const judged = (g: WiringGraph) => judgeSites({ sites: [{ id: SITE, latDeg: 47 }], links: [] }, [siteOf(g)], PARTS)[0]!;
const askOf = (g: WiringGraph, width = 460, mastSide: "left" | "right" = "left"): LayoutAsk => {
  const w = wire(g, PARTS);
  const shown = new Set(g.places.map((p) => p.id));
  const folds = foldsOf(w, shown, new Set());
  const needs = radioNeeds({ w, shown, folds, width });
  return {
    w,
    shown,
    folds,
    linkId: "l",
    x0: 0,
    width,
    mastSide,
    height: needs + 120,
    radioPx: needs,
    roofPx: 0,
    broken: false,
    powered: new Set(),
  };
};

describe("where things stand in the drawing", () => {
  const overlaps = (g: WiringGraph, width: number, mastSide: "left" | "right"): string[] => {
    const { boxes } = layoutEnd(askOf(g, width, mastSide));
    return boxes.flatMap((a, i) =>
      boxes
        .slice(i + 1)
        .flatMap((b) =>
          a.x < b.x + b.w - 0.5 && b.x < a.x + a.w - 0.5 && a.y < b.y + b.h - 0.5 && b.y < a.y + a.h - 0.5
            ? [`${a.place.name} over ${b.place.name}`]
            : [],
        ),
    );
  };

  test("no two things lie over one another, all within the drawing, whatever is wired and however wide it is", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            kind: fc.constantFrom("camera" as const, "phone" as const, "access-point" as const, "control" as const),
            count: fc.integer({ min: 1, max: 6 }),
          }),
          { maxLength: 4 },
        ),
        fc.integer({ min: 360, max: 900 }),
        fc.constantFrom("left" as const, "right" as const),
        fc.boolean(),
        (rows, width, mastSide, feed) => {
          let n = 0;
          const g = proposeWiring({
            radios: [
              {
                placeId: "radio",
                name: "radio",
                partId: "kittiwake-panel",
                injectorId: "injector-of:kittiwake-panel",
                linkId: "l",
                aglM: 9,
              },
            ],
            devices: rows.map((r, i) => ({ ...r, id: `d${i}`, name: r.kind })),
            supply: "mains",
            feed,
            recorder: feed,
            parts: PARTS,
            newId: () => `n${++n}`,
          });
          expect(overlaps(g, width, mastSide)).toEqual([]);
          const { boxes, groundY } = layoutEnd(askOf(g, width, mastSide));
          for (const b of boxes) {
            expect(b.x).toBeGreaterThanOrEqual(0);
            expect(b.x + b.w).toBeLessThanOrEqual(width + 1);
            expect(b.y).toBeGreaterThan(0);
            expect(b.y + b.h).toBeLessThan(groundY);
            // Every socket is at its box.
            for (const s of b.sockets) expect(s.x >= b.x - 1 && s.x <= b.x + b.w + 1 && s.y >= b.y && s.y <= b.y + b.h + 1).toBe(true);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  test("every lead is drawn from its socket to its socket, those of folded devices too", () => {
    const g = cleanEnd();
    const many: WiringGraph = {
      ...g,
      places: [...g.places, ...[4, 5, 6].map((i) => place(`camera-${i}`, "camera", "capstan"))],
      leads: [...g.leads, ...[4, 5, 6].map((i) => lead(`x${i}`, `switch/${i + 1}`, `camera-${i}/1`, "kelp-indoor", 9))],
    };
    const layout = layoutEnd(askOf(many));
    expect(layout.leads.map((l) => l.lead.id).sort()).toEqual(many.leads.map((l) => l.id).sort());
    const folded = layout.boxes.find((b) => b.folded.length > 0)!;
    expect(folded.folded.length).toBe(4);
    expect(layout.boxes.some((b) => folded.folded.some((p) => p.id === b.place.id))).toBe(false);
    for (const l of layout.leads) for (const p of l.points) expect(Number.isFinite(p.x) && Number.isFinite(p.y)).toBe(true);
  });

  test("a device that something is to be said of is never folded away", () => {
    const g = cleanEnd();
    const many: WiringGraph = { ...g, places: [...g.places, ...[4, 5, 6, 7].map((i) => place(`camera-${i}`, "camera", "capstan"))] };
    const w = wire(many, PARTS);
    const shown = new Set(many.places.map((p) => p.id));
    const folds = foldsOf(w, shown, new Set(["camera-5"]));
    expect([...folds.values()].flat().map((p) => p.id)).not.toContain("camera-5");
    expect(folds.has("camera-5")).toBe(false);
    expect(foldsOf(w, new Set(["camera-1", "camera-2"]), new Set()).size).toBe(0);
  });

  test("both radios stand at one scale where that can be drawn; else the higher one stands higher", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 80, noNaN: true }),
        fc.double({ min: 1, max: 80, noNaN: true }),
        fc.integer({ min: 180, max: 480 }),
        fc.integer({ min: 180, max: 480 }),
        (a, b, needsA, needsB) => {
          const { px, pxPerM } = heightsFor([
            { needs: needsA, aglM: a },
            { needs: needsB, aglM: b },
          ]);
          expect(px[0]!).toBeGreaterThanOrEqual(needsA - 1e-6);
          expect(px[1]!).toBeGreaterThanOrEqual(needsB - 1e-6);
          if (pxPerM !== null) {
            expect(px[0]! / a).toBeCloseTo(pxPerM, 6);
            expect(px[1]! / b).toBeCloseTo(pxPerM, 6);
          } else if (Math.abs(a - b) > 1e-9) expect(px[0]! > px[1]!).toBe(a > b);
        },
      ),
    );
    const ask = askOf(cleanEnd());
    expect(radioNeeds(ask)).toBeGreaterThan(wallNeeds(ask));
  });
});

describe("a lead in the hand", () => {
  const w = wire(cleanEnd(), PARTS);
  const end = (text: string) => ({ placeId: text.split("/")[0]!, port: text.split("/")[1]! });

  test("it may go where the medium is the same, the port free, and the thing another", () => {
    expect(mayJoin(w, end("switch/5"), end("camera-1/1"), null)).toBe(false);
    expect(mayJoin(w, end("switch/5"), end("camera-1/1"), "c1")).toBe(true);
    expect(mayJoin(w, end("camera-1/1"), end("switch/5"), null)).toBe(true);
    expect(mayJoin(w, end("camera-1/1"), end("mains/ac"), null)).toBe(false);
    expect(mayJoin(w, end("switch/ac"), end("mains/ac"), null)).toBe(true);
    expect(mayJoin(w, end("switch/5"), end("switch/6"), null)).toBe(false);
    expect(mayJoin(w, end("switch/5"), end("camera-1/no"), null)).toBe(false);
  });

  test("supplies that suit are told from those that do not, through protectors too", () => {
    expect(suits(w, end("switch/5"), end("camera-1/1"))).toBe("fits");
    expect(suits(w, end("radio/2"), end("camera-1/1"))).toBe("no");
    expect(suits(w, end("injector/fed"), end("entry/1"))).toBe("fits");
    // The protector is what is beyond it: the radio, which a port of 802.3af does not feed in its four-pair way.
    expect(suits(w, end("radio/2"), end("switch/9"))).toBe("no");
  });

  test("picked up at a device and led to another giver the device is fed from there; at a giver it hands its lead over", () => {
    const from = (start: string, other: string, to: string) => {
      const { stays, goes } = leadEnds(w, end(start), end(other), end(to));
      return [portKey(stays), portKey(goes)];
    };
    expect(from("camera-1/1", "switch/1", "switch/6")).toEqual(["camera-1/1", "switch/1"]);
    expect(from("switch/1", "camera-1/1", "switch/6")).toEqual(["camera-1/1", "switch/1"]);
    expect(from("camera-1/1", "switch/1", "camera-2/1")).toEqual(["switch/1", "camera-1/1"]);
    expect(leadEnds(w, end("switch/6"), null, end("phone/1"))).toEqual({ stays: end("switch/6"), goes: end("switch/6") });
  });

  test("whatever end goes, the other end of the lead stays where it is, and a new lead is whole", () => {
    const leads = w.graph.leads.map((l) =>
      leadSchema.parse({
        ...l,
        id: "5f0f6f2a-3a3e-4f6e-9d55-0c1a2b3c4d5e",
        from: { ...l.from, placeId: "5f0f6f2a-3a3e-4f6e-9d55-0c1a2b3c4d5a" },
        to: { ...l.to, placeId: "5f0f6f2a-3a3e-4f6e-9d55-0c1a2b3c4d5b" },
      }),
    );
    for (const l of leads) {
      const moved = led(l, l.to, end("switch/8"));
      expect(moved.from).toEqual(l.from);
      expect(moved.to).toEqual(end("switch/8"));
      expect(led(l, l.from, end("switch/8")).to).toEqual(l.to);
    }
    const fresh = newLead(w, PARTS, end("switch/6"), end("radio/2"), "x");
    expect(fresh).toMatchObject({ way: "both", dripLoop: true, cableId: "kelp-outdoor", temperatureC: 60 });
    expect(newLead(w, PARTS, end("switch/6"), end("phone/1"), "x")).toMatchObject({ way: "inside", cableId: "kelp-indoor" });
    expect(newLead(w, PARTS, end("mains/ac"), end("switch/ac"), "x").cableId).toBeNull();
  });
});

describe("what the page shows", () => {
  const withSecond: WiringGraph = {
    ...cleanEnd(),
    places: [
      ...cleanEnd().places.map((p) => (p.kind === "radio" ? { ...p, linkId: "one" } : p)),
      place("injector-2", "injector", "samphire-24-four"),
      place("top-2", "surge", "limpet-60", { where: "mast", bond: "joined" }),
      place("radio-2", "radio", "kittiwake-panel", { where: "mast", linkId: "two" }),
    ],
    leads: [
      ...cleanEnd().leads,
      lead("m3", "mains/ac", "injector-2/ac", null, 1),
      lead("s1", "switch/10", "injector-2/lan", "kelp-cord", 1),
      lead("s2", "injector-2/fed", "top-2/1", "kelp-outdoor", 9, { way: "both", dripLoop: true }),
      lead("s3", "top-2/2", "radio-2/1", "kelp-outdoor", 1, { way: "outside" }),
    ],
  };

  test("of a site with two radios the page of a link shows its own, and all that both share", () => {
    const { shown, others } = placesOfLink(wire(withSecond, PARTS), "one");
    expect(others).toBe(1);
    expect([...shown]).toEqual(expect.arrayContaining(["radio", "injector", "switch", "camera-1"]));
    for (const id of ["radio-2", "injector-2", "top-2"]) expect(shown.has(id)).toBe(false);
  });

  test("rows tell what each unit is plugged into, over how many metres, and what reaches it", () => {
    const site = judged(cleanEnd());
    const rows = unitRows(site, new Set(cleanEnd().places.map((p) => p.id)));
    const row = (name: string) => rows.find((r) => r.place.name === name)!;
    expect(row("radio")).toMatchObject({ into: { name: "injector", port: "out" }, metres: 24, mbps: 1000 });
    expect(row("camera-3")).toMatchObject({ into: { name: "switch", port: "3" }, metres: 35, watts: 11.5, mbps: 100 });
    expect(row("switch").into?.name).toBe("injector");
    expect(rows.some((r) => r.place.kind === "surge" || r.place.kind === "mains")).toBe(false);
  });

  test("the worst is told first, and the supply that decides is the one that does not fit", () => {
    const broken: WiringGraph = {
      ...cleanEnd(),
      places: [...cleanEnd().places.map((p) => (p.id === "camera-1" ? { ...p, partId: "capstan-24" } : p))],
      earth: { ...EARTH_DONE, bar: "unseen" },
    };
    const site = judged(broken);
    expect(verdictOver([site])).toBe("short");
    expect(worstOf([site])!.finding.code).toBe("dark");
    expect(decidesOver([site], "one")!.arrival.end.placeId).toBe("camera-1");
    expect(worstOf([judged(cleanEnd())])).toBeNull();
    // Without a fault it is the one with least to spare.
    expect(decidesOver([judged(cleanEnd())], "one")!.arrival.fit).toBe("fits");
  });

  test("a radio that the plan has otherwise, or no more, is told", () => {
    const job = {
      sites: [
        { id: SITE, name: "Here" },
        { id: "far", name: "Far" },
      ],
      links: [
        {
          id: "one",
          nearSiteId: SITE,
          farSiteId: "far",
          design: { nearRadioId: "kittiwake-dish", farRadioId: "kittiwake-dish", nearMountAglM: 9, farMountAglM: 9 },
        },
      ],
    } as never;
    const found = missingOf(job, siteOf(withSecond), PARTS, () => null);
    expect(found.map((m) => [m.what, m.linkId])).toEqual([
      ["other-type", "one"],
      ["link-gone", "two"],
    ]);
    expect(missingOf(job, siteOf({ ...withSecond, places: [] }), PARTS, () => null).map((m) => m.what)).toEqual(["not-wired"]);
  });

  test("every code has its sentence, in metres or feet, and no figure of it is left out", () => {
    const w = wire(cleanEnd(), PARTS);
    for (const code of WIRING_CODES) {
      const figures = new Proxy(
        {},
        {
          get: (_t, key) =>
            key === "gives" || key === "takes" || key === "asks" || key === "has" || key === "kind" ? "802.3af" : key === "month" ? 11 : 7,
        },
      ) as Record<string, number>;
      const text = findingText(
        w,
        { code, verdict: "short", stop: false, placeId: "camera-1", leadId: "c1", figures, siteId: SITE },
        "metric",
      );
      expect(text, code).toMatch(/^[A-Z0-9].*[.?]$/);
      expect(text, code).not.toMatch(/undefined|NaN|null|\$\{/);
    }
    const long = {
      code: "too-long" as const,
      verdict: "short" as const,
      stop: false,
      placeId: null,
      leadId: "c1",
      figures: { metres: 101, most: 100 },
      siteId: SITE,
    };
    expect(findingText(w, long, "metric")).toContain("101.0");
    expect(findingText(w, long, "imperial")).toContain("331.4");
    expect(supplyText("passive24-2pair-reversed")).toBe("passive 24 V on 2 pairs, plus and minus exchanged");
    expect(supplyText("own56-4pair:Skerry")).toBe("Skerry's own 56 V");
  });
});
