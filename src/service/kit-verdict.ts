import { judgedDays } from "../contract";
import { type Verdict, worseVerdict } from "../core/link";
import { NotFound } from "../data/clash";
import type { Db } from "../data/client";
import type { JobRow } from "../data/jobs";
import { readKit } from "./kit-read";

/**
 * What the kit of a link's ends comes to with the days of the job, or of all its sites; null where nothing is wired.
 * @throws NotFound when the job has no such link.
 */
export const kitVerdict = async (db: Db, row: JobRow, linkId: string | null): Promise<Verdict | null> => {
  const { job, days, brief, kitsOf } = await readKit(db, row);
  const link = job.links.find((l) => l.id === linkId) ?? null;
  if (link === null && linkId !== null) throw new NotFound("link");
  const siteIds = link === null ? [...new Set(job.links.flatMap((l) => [l.nearSiteId, l.farSiteId]))] : [link.nearSiteId, link.farSiteId];
  const kits = kitsOf(siteIds);
  if (kits.length === 0) return null;
  const clashes = judgedDays(job, brief, days);
  return [...kits.flatMap((k) => k.findings), ...clashes].reduce<Verdict>(
    (v, f) => worseVerdict(v, f.verdict),
    kits.length < siteIds.length ? "unknown" : "clear",
  );
};
