/* What the wiring of two ends comes to for a link: the worse, what holds it up, and for all links of one radio. */
import { expect, test } from "vitest";
import type { WiringGraph } from "../core/wiring";
import { cleanEnd, PARTS } from "../core/wiring/testing/ends";
import { rfDistances } from "./kit-rf";
import { wiringSchema } from "./wiring";
import { judgeSites, type SiteWiring, unitAt, wiringTold } from "./wiring-job";

const [A, B] = ["11111111-1111-4111-8111-111111111111", "22222222-2222-4222-8222-222222222222"];
const JOB = { sites: [A, B].map((id) => ({ id: id!, latDeg: 47 })), links: [{ id: "one", nearSiteId: A!, farSiteId: B! }] };
const end = (siteId: string, linkId: string, more: (g: WiringGraph) => WiringGraph = (g) => g): SiteWiring => {
  const g = more(cleanEnd());
  return {
    ...wiringSchema.parse({}),
    ...(g as unknown as Pick<SiteWiring, "leads" | "earth">),
    places: g.places.map((p) => ({ ...p, linkId: p.kind === "radio" ? linkId : null })) as SiteWiring["places"],
    siteId,
  };
};
const link = { id: "one", nearSiteId: A!, farSiteId: B! };
const told = (ends: SiteWiring[], id = "one", mates = new Set<string>()) =>
  wiringTold({ ...link, id }, judgeSites(JOB, ends, PARTS), () => mates);
const dark = (g: WiringGraph): WiringGraph => ({ ...g, leads: g.leads.filter((l) => l.id !== "l4") });
const cameraDark = (g: WiringGraph): WiringGraph => ({ ...g, leads: g.leads.filter((l) => l.id !== "c1") });
const unseen = (g: WiringGraph): WiringGraph => ({ ...g, earth: { ...g.earth, bar: "unseen" } });

test("nothing is told of what nobody wired, and clear is both ends", () => {
  expect(told([])).toBeNull();
  expect(told([end(A!, "one")])).toBeNull();
  expect(told([end(A!, "one"), end(B!, "one")])).toMatchObject({ verdict: "clear", code: null, holdsUp: false });
  expect(told([end(A!, "one", unseen)])).toMatchObject({ verdict: "unknown", code: "bar-unseen", holdsUp: false });
});

test("a radio that stays dark holds its link up; a camera does not; the end that holds up is told first", () => {
  expect(told([end(A!, "one"), end(B!, "one", cameraDark)])).toMatchObject({ verdict: "short", code: "unfed", holdsUp: false, siteId: B });
  expect(told([end(A!, "one", cameraDark), end(B!, "one", dark)])).toMatchObject({ verdict: "short", holdsUp: true, siteId: B });
});

test("a stop holds up every link of its site; a dark hub radio every link of its sector, and no other", () => {
  const open = (g: WiringGraph): WiringGraph => ({ ...g, earth: { ...g.earth, bar: "open" } });
  expect(told([end(A!, "other", open), end(B!, "one")])).toMatchObject({ code: "bar-open", holdsUp: true, siteId: A });
  expect(told([end(A!, "first", dark), end(B!, "one")], "one", new Set(["first", "one"]))).toMatchObject({ holdsUp: true, siteId: A });
  expect(told([end(A!, "first", dark), end(B!, "one")], "one")).toMatchObject({ holdsUp: false });
});

test("the unit at a place is the last that lives there; dead, moved and spare ones are not", () => {
  const unit = (serial: string, state: "planned" | "fitted" | "dead" | "spare") => ({ placeId: "p", serial, state }) as never;
  const at = (list: never[]) => (unitAt(list, "p") as { serial: string } | null)?.serial ?? null;
  expect(at([unit("1", "dead"), unit("2", "fitted")])).toBe("2");
  expect(at([unit("1", "fitted"), unit("2", "spare")])).toBe("1");
  expect(at([unit("1", "dead")])).toBeNull();
});

test("the distance before a radio: 1 W into 30 dBi at 10 W/m2 is 2.8 m, and never less than as planned", () => {
  const radio = { id: "r", modulations: [{ maxTxPowerDbm: 30 }], antenna: { gainDbi: 30 } };
  const wiring = { siteId: A, places: [{ kind: "radio", name: "radio", linkId: "one", partId: "r" }] } as unknown as SiteWiring;
  const job = {
    links: [{ ...link, design: { nearPowerDbm: 20, farPowerDbm: 30, nearAntennaId: null, farAntennaId: null, centreMhz: 5500 } }],
  } as never;
  const [found] = rfDistances(job, wiring, { radios: [radio], antennas: [] } as never);
  expect(found!.mostM).toBeCloseTo(Math.sqrt(1000 / (4 * Math.PI * 10)), 9);
  expect(found!.plannedM).toBeCloseTo(found!.mostM / Math.sqrt(10), 9);
});
