import {
  type AirBridge,
  EARTH_UNASKED,
  injectorIdOf,
  type JobFinding,
  type JudgedWiring,
  jobNetworkFindings,
  judgeWiring,
  keptFrom,
  type Parts,
  type ProposedDevice,
  proposeWiring,
  type UnitRole,
  worstFirst,
} from "../core/wiring";
import type { Brief } from "./brief";
import { feedSiteOf } from "./load";
import type { NetworkFields } from "./network";
import type { DesignFields } from "./schemas";
import type { JobBundle } from "./types";
import {
  type AddressesFields,
  leadSchema,
  type NetFields,
  type PlaceFields,
  placeSchema,
  type UnitFields,
  type WiringFields,
} from "./wiring";

/* The wiring of a job's sites: proposed from its plan, judged, and what of it each link and each unit is told. */

export interface SiteWiring extends WiringFields {
  readonly siteId: string;
}

/** Radios of a site, by link: their sheet, their name and their height. */
export const radiosAt = (
  job: Pick<JobBundle, "links" | "sites">,
  siteId: string,
  sectorOf: (linkId: string) => string | null = () => null,
) => {
  const seen = new Set<string>();
  return job.links.flatMap((l) => {
    const end = l.nearSiteId === siteId ? "near" : l.farSiteId === siteId ? "far" : null;
    if (end === null) return [];
    // Remotes of one sector hang on one radio.
    const sector = sectorOf(l.id);
    if (sector !== null && seen.has(sector)) return [];
    if (sector !== null) seen.add(sector);
    const other = job.sites.find((s) => s.id === (end === "near" ? l.farSiteId : l.nearSiteId))?.name ?? "?";
    const d: DesignFields = l.design;
    return [
      {
        linkId: l.id,
        end,
        partId: end === "near" ? d.nearRadioId : d.farRadioId,
        aglM: end === "near" ? d.nearMountAglM : d.farMountAglM,
        name: sector === null ? `${other} radio` : "sector radio",
      },
    ] as const;
  });
};

const KINDS = { camera: "camera", "access-point": "access-point", phone: "phone", control: "control" } as const;

const isBattery = (power: string): boolean => /batter|solar|sun/i.test(power) && !/mains/i.test(power);

/** A first wiring of a site from the plan of its job; over one that is there, the same things keep who they are and its earth stays. */
export const proposedFor = (
  job: JobBundle,
  brief: Pick<Brief, "devices" | "recorder">,
  network: Pick<NetworkFields, "feedSiteId">,
  siteId: string,
  parts: Parts,
  newId: () => string,
  sectorOf: (linkId: string) => string | null = () => null,
  before: WiringFields | null = null,
): Pick<WiringFields, "places" | "leads" | "earth" | "sun"> => {
  const site = job.sites.find((s) => s.id === siteId);
  const feed = feedSiteOf(job, network) === siteId;
  const battery = isBattery(site?.power ?? "");
  const first = proposeWiring({
    radios: radiosAt(job, siteId, sectorOf).map((r) => ({
      placeId: newId(),
      name: r.name,
      partId: r.partId,
      injectorId: parts.has(injectorIdOf(r.partId)) ? injectorIdOf(r.partId) : null,
      linkId: r.linkId,
      aglM: r.aglM,
    })),
    devices: brief.devices
      .filter((d) => d.siteId === siteId && d.kind !== "internet" && d.kind !== "recorder")
      .map((d): ProposedDevice => {
        const kind = Object.hasOwn(KINDS, d.kind) ? KINDS[d.kind as keyof typeof KINDS] : "other";
        return { id: d.id, name: d.name === "" ? d.kind.replace("-", " ") : d.name, kind, count: d.count };
      }),
    supply: battery ? "battery" : "mains",
    feed,
    recorder: feed && brief.recorder === "near" && brief.devices.some((d) => d.kind === "camera"),
    parts,
    newId,
  });
  const g = before === null ? first : keptFrom(first, before, parts);
  return {
    places: g.places.map((p) => placeSchema.parse(p)),
    leads: g.leads.map((l) => leadSchema.parse(l)),
    earth: before?.earth ?? { ...EARTH_UNASKED, mains: battery ? "none" : null },
    sun: before?.sun ?? null,
  };
};

export interface JudgedSite {
  readonly siteId: string;
  readonly judged: JudgedWiring;
  /** Its own findings and those of the job's network that lie there, the worst first. */
  readonly findings: readonly JobFinding[];
}

/** All wired sites of a job judged, with what only the whole network shows. */
export const judgeSites = (
  job: {
    readonly links: readonly AirBridge[];
    readonly sites: readonly { readonly id: string; readonly latDeg: number }[];
  },
  wirings: readonly SiteWiring[],
  parts: Parts,
): JudgedSite[] => {
  const judged = wirings.map((w) => ({
    siteId: w.siteId,
    judged: judgeWiring(w, parts, w.sun, job.sites.find((s) => s.id === w.siteId)?.latDeg ?? 0),
  }));
  const network = jobNetworkFindings(
    judged.map((j) => ({ siteId: j.siteId, wired: j.judged.wired })),
    job.links,
  );
  return judged.map((j) => ({
    ...j,
    findings: worstFirst([...j.judged.findings.map((f) => ({ ...f, siteId: j.siteId })), ...network.filter((f) => f.siteId === j.siteId)]),
  }));
};

/** What the wiring of a link's ends comes to: the worse, by its first finding. */
export const wiringTold = (
  link: { readonly id: string; readonly nearSiteId: string; readonly farSiteId: string },
  sites: readonly JudgedSite[],
  /** Links that hang on the same radio at a site: those of its sector there. */
  matesAt: (siteId: string) => ReadonlySet<string> = () => new Set(),
) => {
  const RANK = { short: 0, unknown: 1, tight: 2, clear: 3 } as const;
  const ends = sites.filter((s) => s.siteId === link.nearSiteId || s.siteId === link.farSiteId);
  const told = ends.map((s) => {
    const [first] = s.findings;
    const mates = matesAt(s.siteId);
    const { places } = s.judged.wired.graph;
    const radio = (places.find((p) => p.linkId === link.id) ?? places.find((p) => p.linkId !== null && mates.has(p.linkId)))?.id;
    // What keeps the radio dark, or stops the plan.
    const holdsUp = s.findings.some((f) => f.stop || (f.verdict === "short" && f.placeId !== null && f.placeId === radio));
    return { verdict: first?.verdict ?? ("clear" as const), code: first?.code ?? null, siteId: s.siteId, holdsUp };
  });
  // Of an end that nobody wired yet nothing is clear.
  if (ends.length < 2 && told.every((t) => t.verdict === "clear")) return null;
  return told.sort((a, b) => Number(b.holdsUp) - Number(a.holdsUp) || RANK[a.verdict] - RANK[b.verdict])[0] ?? null;
};

const ROLES: Partial<Record<PlaceFields["kind"], UnitRole>> = {
  router: "router",
  switch: "switch",
  recorder: "recorder",
  radio: "radio",
  "access-point": "access-point",
  camera: "camera",
  phone: "phone",
  control: "control",
};
/** The kind of address that a place asks for; null where it has none. */
export const roleOfPlace = (kind: PlaceFields["kind"]): UnitRole | null => ROLES[kind] ?? null;

/** The network of a kind, by name where there are several: cameras, guests and management apart. */
export const netOfPlace = (kind: PlaceFields["kind"], nets: readonly NetFields[]): string => {
  const wanted =
    kind === "camera" || kind === "recorder" ? "cameras" : kind === "access-point" ? "guests" : kind === "phone" ? "voice" : "manage";
  return (nets.find((n) => n.key === wanted) ?? nets.find((n) => n.key === "manage") ?? nets[0])?.key ?? "all";
};

export interface AddressedPlace {
  readonly siteId: string;
  readonly place: PlaceFields;
  readonly role: UnitRole;
  readonly net: string;
  readonly address: string | null;
}

/** Every place of a job that asks for an address, in the order in which they are given. */
export const addressedPlaces = (wirings: readonly SiteWiring[], addresses: Pick<AddressesFields, "nets" | "given">): AddressedPlace[] =>
  wirings.flatMap((w) =>
    w.places.flatMap((place): AddressedPlace[] => {
      const role = roleOfPlace(place.kind);
      if (role === null) return [];
      const given = addresses.given[place.id];
      const known = addresses.nets.some((n) => n.key === given?.net);
      return [
        {
          siteId: w.siteId,
          place,
          role,
          net: known ? given!.net : netOfPlace(place.kind, addresses.nets),
          address: given?.address ?? null,
        },
      ];
    }),
  );

const LIVES = new Set<UnitFields["state"]>(["planned", "stock", "fitted"]);

/** The unit that stands at a place now: the last that lives there; null where only the plan does. */
export const unitAt = <U extends UnitFields & { readonly placeId: string }>(units: readonly U[], placeId: string): U | null =>
  units.filter((u) => u.placeId === placeId && LIVES.has(u.state)).at(-1) ?? null;
