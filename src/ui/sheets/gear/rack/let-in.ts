import type { Limits, SearchLimits, SiteLimits } from "@/contract";
import type { Candidate, LimitCode } from "@/core/rack";
import { hasOwn, withSearch, withSite } from "./limits-of";

/** What each limit is when it is off. */
const SEARCH_OFF: Partial<Readonly<Record<LimitCode, Partial<SearchLimits>>>> = {
  price: { priceMost: null },
  "port-speed": { portLeastMbps: null },
  cold: { coldestC: null },
  heat: { hottestC: null },
  radar: { noRadar: false },
  stock: { stockOnly: false },
  like: { likeForLike: false },
  "kept-end": { keep: null },
  band: { bands: null },
  family: { family: null },
  unlike: { alike: false },
};
const SITE_OFF: Partial<Readonly<Record<LimitCode, Partial<SiteLimits>>>> = {
  face: { faceMostCm: null },
  pole: { poleMm: null },
  supply: { supplies: null },
};

/**
 * The change that loosens the one limit which keeps a candidate out: of the link where the link has its own, else of the job; at
 * the end in question where it is a site's.
 * @returns null when no limit of ours keeps it out.
 */
export const lettingIn = (
  limits: Limits,
  linkId: string,
  ends: { readonly nearSiteId: string; readonly farSiteId: string },
  { refusal }: Pick<Candidate, "refusal">,
): Partial<Limits> | null => {
  if (refusal === null) return null;
  const code = refusal.code as LimitCode;
  const search = SEARCH_OFF[code];
  if (search !== undefined)
    return withSearch(limits, linkId, search, hasOwn(limits, linkId, Object.keys(search) as (keyof SearchLimits)[]));
  const site = SITE_OFF[code];
  if (code === "one-type") return { oneTypeMost: null };
  if (site === undefined) return null;
  return withSite(limits, "end" in refusal && refusal.end === "near" ? ends.nearSiteId : ends.farSiteId, site);
};
