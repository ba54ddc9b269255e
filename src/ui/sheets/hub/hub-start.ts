import { type DesignDto, type HubFields, type HubSector, type LinkDto, MOST_REMOTES, MOST_SECTORS, otherShare } from "@/contract";
import { type Radio, usesOf } from "@/core/radio";

/* A hub out of links that are there: what hangs on one site, and which of it is set alike. */

export const hubIsNear = (link: Pick<LinkDto, "nearSiteId">, siteId: string): boolean => link.nearSiteId === siteId;

/** Sites at which two links or more end, most links first. */
export const sitesWithLinks = (links: readonly Pick<LinkDto, "nearSiteId" | "farSiteId">[]): { siteId: string; links: number }[] => {
  const counts = new Map<string, number>();
  for (const l of links) for (const id of [l.nearSiteId, l.farSiteId]) counts.set(id, (counts.get(id) ?? 0) + 1);
  return [...counts]
    .filter(([, n]) => n > 1)
    .map(([siteId, n]) => ({ siteId, links: n }))
    .sort((a, b) => b.links - a.links || (a.siteId < b.siteId ? -1 : 1));
};

/** What the hub's end of a design is set to, as a sector without a name. */
const sectorIn = (d: DesignDto, isNear: boolean): Omit<HubSector, "id"> => {
  const end = isNear ? "near" : "far";
  const share = d.frameShareToFar;
  return {
    radioId: d[`${end}RadioId`],
    antennaId: d[`${end}AntennaId`],
    azimuthDeg: d[`${end}AimAzimuthDeg`],
    tiltDeg: d[`${end}AimTiltDeg`],
    centreMhz: d.centreMhz,
    widthMhz: d.widthMhz,
    powerDbm: d[`${end}PowerDbm`],
    frameShareToRemotes: share === null ? null : isNear ? share : otherShare(share),
  };
};

/** Set alike but for the power: one unit on the mast. */
const isOneUnit = (a: Omit<HubSector, "id">, b: Omit<HubSector, "id">): boolean =>
  a.azimuthDeg !== null &&
  a.radioId === b.radioId &&
  a.antennaId === b.antennaId &&
  a.azimuthDeg === b.azimuthDeg &&
  a.tiltDeg === b.tiltDeg &&
  a.centreMhz === b.centreMhz &&
  a.widthMhz === b.widthMhz;

/** Whether the end of a link at a site is one that several remotes may hang on. */
export const sharesOut = ({ nearSiteId, design: d }: LinkDto, siteId: string, radios: readonly Pick<Radio, "id" | "roles">[]): boolean => {
  const [near, far] = [d.nearRadioId, d.farRadioId].map((id) => radios.find((r) => r.id === id));
  return near !== undefined && far !== undefined && usesOf(near, far)[nearSiteId === siteId ? 0 : 1] === "hub";
};

/**
 * The hub that stands in the designs of a site's links: links whose end there has one setting hang on one sector. What is set to
 * no aim of its own looks at its one remote, as a pair does.
 */
export const hubOf = (
  siteId: string,
  links: readonly LinkDto[],
  radios: readonly Pick<Radio, "id" | "roles">[],
): Pick<HubFields, "mountId" | "mountAglM" | "sectors" | "remotes"> => {
  const there = links.filter((l) => l.nearSiteId === siteId || l.farSiteId === siteId);
  // Where some of its radios share themselves out, the pairs beside them are no part of the hub.
  const shared = there.filter((l) => sharesOut(l, siteId, radios));
  const own = (shared.length > 0 ? shared : there).slice(0, MOST_REMOTES);
  const sectors: HubSector[] = [];
  const remotes: { linkId: string; sectorId: string }[] = [];
  for (const l of own) {
    const set = sectorIn(l.design, hubIsNear(l, siteId));
    let sector = sectors.find((s) => isOneUnit(s, set));
    if (sector === undefined) {
      if (sectors.length === MOST_SECTORS) continue;
      sector = { id: `s${sectors.length + 1}`, ...set };
      sectors.push(sector);
    }
    remotes.push({ linkId: l.id, sectorId: sector.id });
  }
  const [first] = own;
  const end = first !== undefined && hubIsNear(first, siteId) ? "near" : "far";
  return { mountId: first?.design[`${end}MountId`] ?? null, mountAglM: first?.design[`${end}MountAglM`] ?? 6, sectors, remotes };
};

const WINDS = ["north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"] as const;
/** A sector by where it looks: "south-west". */
export const windOf = (azimuthDeg: number): string => WINDS[Math.round((((azimuthDeg % 360) + 360) % 360) / 45) % 8]!;
export const sectorName = (s: Pick<HubSector, "id" | "azimuthDeg">, all: readonly Pick<HubSector, "id" | "azimuthDeg">[]): string => {
  if (s.azimuthDeg === null) return `aimed ${all.filter((x) => x.azimuthDeg === null).findIndex((x) => x.id === s.id) + 1}`;
  const wind = windOf(s.azimuthDeg);
  const same = all.filter((x) => x.azimuthDeg !== null && windOf(x.azimuthDeg) === wind);
  return same.length < 2 ? wind : `${wind} ${same.findIndex((x) => x.id === s.id) + 1}`;
};
