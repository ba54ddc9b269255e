import { designUnder, type HubFields, type HubSector, type JobBundle, type LinkDto } from "@/contract";
import type { Radio } from "@/core/radio";
import { hubIsNear, sharesOut } from "./hub-start";

/** A link whose design says otherwise than the sector that it hangs on. */
export interface Astray {
  readonly link: LinkDto;
  readonly name: string;
  /** What would set it as its sector is. */
  readonly fields: ReturnType<typeof designUnder>;
}

const otherEnd = (job: JobBundle, link: LinkDto, siteId: string): string =>
  job.sites.find((s) => s.id === (hubIsNear(link, siteId) ? link.farSiteId : link.nearSiteId))?.name ?? "a site that is gone";

/** Links of a hub whose designs were changed elsewhere since, each with what it would take. */
export const astrayOf = (job: JobBundle, siteId: string, hub: HubFields): readonly Astray[] =>
  hub.remotes.flatMap(({ linkId, sectorId }) => {
    const link = job.links.find((l) => l.id === linkId);
    const sector: HubSector | undefined = hub.sectors.find((s) => s.id === sectorId);
    if (link === undefined || sector === undefined) return [];
    const fields = designUnder(hub, sector, hubIsNear(link, siteId));
    const differs = Object.entries(fields).some(([key, v]) => link.design[key as keyof typeof link.design] !== v);
    return differs ? [{ link, name: otherEnd(job, link, siteId), fields }] : [];
  });

/** Links that end at the hub's site on a radio that others may share, and hang on none of its sectors. */
export const besideOf = (
  job: JobBundle,
  siteId: string,
  hub: HubFields,
  radios: readonly Pick<Radio, "id" | "roles">[],
): readonly { readonly link: LinkDto; readonly name: string }[] => {
  const on = new Set(hub.remotes.map((r) => r.linkId));
  return job.links
    .filter((l) => (l.nearSiteId === siteId || l.farSiteId === siteId) && !on.has(l.id) && sharesOut(l, siteId, radios))
    .map((link) => ({ link, name: otherEnd(job, link, siteId) }));
};
