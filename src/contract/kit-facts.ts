import { type KitFact, ladderFor } from "../core/kit";
import type { PartSheet, Parts } from "../core/wiring";
import { type KitFields, type KitSite, kitSiteSchema } from "./kit";
import { HARNESS_FROM_M, type MountOf, NO_LADDER_BELOW_M, piecesOf } from "./kit-mount";
import { byPrice } from "./prices";
import type { PlaceFields } from "./wiring";
import type { SiteWiring } from "./wiring-job";

/* Facts of a site's wiring, and of what was told beside it, that the rows of the kit ask for. */

export const kitSiteOf = (kit: Pick<KitFields, "sites">, siteId: string): KitSite => kit.sites[siteId] ?? kitSiteSchema.parse({});

const FIXINGS: Readonly<Record<KitSite["wall"], readonly [fixing: string, bit: string]>> = {
  brick: ["frame plug 10 × 100 with screw, into brick, not joint", "masonry bit 10 mm"],
  block: ["injection anchor M10 for hollow block", "masonry bit 16 mm, no hammer"],
  concrete: ["anchor M10 for concrete", "masonry bit 10 mm, hammer"],
  "render over insulation": ["stand-off anchor through the insulation into the wall", "masonry bit 18 mm, long"],
  timber: ["coach screw 10 × 80 into a stud", "wood bit 7 mm"],
  "sheet on rails": ["through-bolt M10 to the rail behind, with a spreader plate", "steel bit 11 mm"],
  steel: ["clamp or bolt M10, galvanised", "steel bit 11 mm"],
  unknown: ["fixings for a wall that nobody named yet", "bits for a wall that nobody named yet"],
};

const LOOPS: Readonly<Record<string, number>> = { both: 3, outside: 1, inside: 0.5 };
/** A thick or armoured cable goes through the greater gland: holes in mm (ours). */
const THICK_AWG = 23;
const GLAND_MM = { plain: 20, thick: 25 } as const;

const cheapestOf = (parts: Parts, fits: (p: PartSheet) => boolean): PartSheet | null =>
  [...parts.values()].filter((p) => p.retired !== true && fits(p)).sort((a, b) => byPrice(a, b))[0] ?? null;
const plugFor = (parts: Parts, shield: boolean): PartSheet | null =>
  cheapestOf(parts, (p) => p.kind === "plug" && (p.shielded ?? false) === shield);
/** The gland of that hole, or the next greater; of two alike the cheaper, one without a price last. */
const glandFor = (parts: Parts, holeMm: number): PartSheet | null =>
  [...parts.values()]
    .filter((p) => p.kind === "gland" && p.retired !== true && (p.holeMm ?? 0) >= holeMm)
    .sort((a, b) => a.holeMm! - b.holeMm! || byPrice(a, b))[0] ?? null;

const whereOf = (p: PlaceFields): string => (p.where === "mast" ? "mast" : p.where === "outside" ? "wall" : "inside");

export const kitFacts = (wiring: SiteWiring, site: KitSite, parts: Parts, mountOf: MountOf): KitFact[] => {
  const facts: KitFact[] = [];
  const add = (kind: KitFact["kind"], name: string, values: KitFact["values"]): void => void facts.push({ kind, name, values });
  const nameOf = (id: string): string => wiring.places.find((p) => p.id === id)?.name ?? "?";
  const flags = {
    hasPlugs: false,
    hasShieldedPlugs: false,
    hasAnyPlugs: false,
    hasEntry: false,
    hasBond: false,
    hasLeads: false,
    hasRadio: false,
    hasPower: false,
  };
  for (const p of wiring.places) {
    const sheet = parts.get(p.partId ?? "");
    const isTheirs = p.kind === "mains" || p.kind === "other";
    add("place", p.name, {
      bought: sheet !== undefined && !isTheirs,
      unknown: sheet === undefined && !isTheirs,
      kindWords: p.kind.replace("-", " "),
      partId: p.partId,
      where: whereOf(p),
      labelled: p.kind === "radio" || p.kind === "injector" || p.kind === "switch",
    });
    if (p.kind === "radio") {
      const mounted = mountOf(p);
      const { antenna } = mounted;
      const feeders = antenna === null ? 0 : (mounted.radio?.antenna?.connectorCount ?? 1);
      const agl = p.aglM ?? 0;
      const step = site.stepOffM ?? agl;
      const ladder = ladderFor(step);
      add("mount", p.name, {
        newBracket: site.newBracket,
        // Radios on one pole hang on one pair of brackets.
        screws: site.poles === "one" && flags.hasRadio ? 0 : 2 * site.screwsPerBracket,
        fixingWords: FIXINGS[site.wall][0],
        bitWords: FIXINGS[site.wall][1],
        wallWords: site.wall === "unknown" ? "a wall that nobody named" : site.wall,
        strapFits: piecesOf(mounted).every(
          ({ poleDiameterMm: s }) => site.poleMm === null || s === undefined || (site.poleMm >= s.low && site.poleMm <= s.high),
        ),
        antenna: antenna === null ? "none" : antenna === "missing" ? "missing" : "chosen",
        antennaWords: antenna === null || antenna === "missing" ? "" : antenna.name,
        antennaPrice: antenna === null || antenna === "missing" ? null : (antenna.priceEur ?? null),
        hasFeeders: feeders > 0,
        feeders,
        feederWords: "feeder from radio to antenna, by their connectors",
        strapWords: `strap for a pole of ${site.poleMm ?? "?"} mm`,
        needsLadder: agl > NO_LADDER_BELOW_M && ladder !== null,
        needsLift: ladder === null,
        needsHarness: agl > HARNESS_FROM_M,
        ladderWords: `ladder of ${ladder ?? "?"} m or longer, foot and tie`,
        heightWords: `${agl} m up`,
      });
      flags.hasRadio = true;
    }
    if (p.kind === "surge" && p.bond !== "none") {
      flags.hasBond = true;
      add("bond", p.name, { lengthM: p.where === "inside" ? 3 : (p.aglM ?? 3) + 2 });
    }
  }
  for (const l of wiring.leads) {
    const cable = parts.get(l.cableId ?? "")?.cable;
    const port = parts.get(wiring.places.find((p) => p.id === l.from.placeId)?.partId ?? "")?.ports.find((p) => p.id === l.from.port);
    if (port?.medium === "mains") continue;
    flags.hasLeads = true;
    const name = `${nameOf(l.from.placeId)} to ${nameOf(l.to.placeId)}`;
    const plugs = cable !== undefined && !cable.cord && cable.material !== "glass" && (cable.pairs ?? 4) > 1;
    if (plugs) flags[cable.shield ? "hasShieldedPlugs" : "hasPlugs"] = true;
    flags.hasAnyPlugs ||= plugs;
    add("lead", name, {
      form: cable === undefined ? "unknown" : cable.cord ? "cord" : "cable",
      cableId: l.cableId,
      lengthM: l.lengthM,
      lengthWords: `${l.lengthM} m`,
      loopsM: LOOPS[l.way] ?? 0,
      plugs,
      plugId: plugs ? (plugFor(parts, cable.shield)?.id ?? null) : null,
      shield: cable?.shield ?? false,
      outside: l.way !== "inside",
      way: l.way,
    });
    if (l.way === "both") {
      flags.hasEntry = true;
      const holeMm = GLAND_MM[cable?.metal === true || (cable?.awg ?? 99) < THICK_AWG ? "thick" : "plain"];
      const gland = glandFor(parts, holeMm);
      add("entry", name, {
        glandId: gland?.id ?? null,
        holeMm: gland?.holeMm ?? holeMm,
        through: l.through === "" ? "the wall" : l.through,
      });
    }
  }
  flags.hasPower = wiring.leads.length > 0;
  add("site", "the site", {
    ...flags,
    plugId: plugFor(parts, false)?.id ?? null,
    shieldedPlugId: plugFor(parts, true)?.id ?? null,
  });
  return facts;
};
