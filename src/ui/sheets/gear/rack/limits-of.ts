import { type Limits, NO_SITE_LIMITS, type SearchLimits, type SiteLimits } from "@/contract";
import type { RackLimits, School } from "@/core/rack";

/** What a link is searched by: what the job says, or where the link has its own, that. */
export const searchOf = ({ links, sites: _s, oneTypeMost: _o, ...job }: Limits, linkId: string): SearchLimits => ({
  ...job,
  ...Object.fromEntries(Object.entries(links[linkId] ?? {}).filter(([, v]) => v !== undefined)),
});

export const siteLimitsOf = (limits: Limits, siteId: string): SiteLimits => limits.sites[siteId] ?? NO_SITE_LIMITS;

/** Limits as the rack takes them, for one link between two sites. */
export const rackLimitsOf = (
  limits: Limits,
  linkId: string,
  nearSiteId: string,
  farSiteId: string,
  onlyType: string | null = null,
): RackLimits => {
  const { alike, keep, likeForLike, bands, family, priceMost, portLeastMbps, noRadar, stockOnly, coldestC, hottestC } = searchOf(
    limits,
    linkId,
  );
  return {
    alike,
    keep,
    likeForLike,
    bands,
    family,
    onlyType,
    priceMost,
    portLeastMbps,
    noRadar,
    stockOnly,
    coldestC,
    hottestC,
    near: siteLimitsOf(limits, nearSiteId),
    far: siteLimitsOf(limits, farSiteId),
  };
};

export const schoolOf = (limits: Limits, linkId: string): School => {
  const { power, targetDbm } = searchOf(limits, linkId);
  return { name: power, targetDbm };
};

/** A change of what a link is searched by: where the link has its own already, or is to have it, there; else in the job. */
export const withSearch = (limits: Limits, linkId: string, fields: Partial<SearchLimits>, own: boolean): Partial<Limits> => {
  const keys = Object.keys(fields) as (keyof SearchLimits)[];
  const before = limits.links[linkId] ?? {};
  if (own) return { links: { ...limits.links, [linkId]: { ...before, ...fields } } };
  const rest = Object.fromEntries(Object.entries(before).filter(([key]) => !keys.includes(key as keyof SearchLimits)));
  const { [linkId]: _own, ...others } = limits.links;
  return {
    ...fields,
    // What the whole job now says, the link says no longer for itself.
    ...(Object.keys(before).length === Object.keys(rest).length
      ? {}
      : { links: Object.keys(rest).length === 0 ? others : { ...limits.links, [linkId]: rest } }),
  };
};

/** Whether a link has its own value of some fields. */
export const hasOwn = (limits: Limits, linkId: string, keys: readonly (keyof SearchLimits)[]): boolean =>
  keys.some((key) => limits.links[linkId]?.[key] !== undefined);

export const withSite = (limits: Limits, siteId: string, fields: Partial<SiteLimits>): Partial<Limits> => ({
  sites: { ...limits.sites, [siteId]: { ...siteLimitsOf(limits, siteId), ...fields } },
});
