import { kinds } from "@/contract";
import type { Asker } from "@/data/actor";
import { getJob, linksOf, sitesOf } from "@/data/jobs";
import { listRecords } from "@/data/records";
import { veiling } from "@/service/people/veil";
import { db } from "./db";

/** Whether an answer is a line of news. */
export const isNews = (answer: Response): boolean => (answer.headers.get("content-type") ?? "").startsWith("text/event-stream");

/** Answers that hold nothing of a job: sheets of hardware. */
const OF_NO_JOB = /^\/api\/(hardware|systems|openapi)(\/|$)/;

/** The kind of the records that an address answers with; null where it answers with something else. */
const kindAt = (path: string): string | null => {
  const route = /^\/api\/jobs\/[^/]+\/([^/]+)(?:\/[^/]+)?$/.exec(path)?.[1];
  return kinds().find(([, k]) => k.parent !== "none" && k.route === route)?.[0] ?? null;
};

/** An answer without who and where, for somebody who came by a link that leaves it out. */
export const veiled = async (request: Request, who: Asker, told: readonly string[], answer: unknown): Promise<unknown> => {
  const { pathname } = new URL(request.url);
  const [jobId] = who.jobIds ?? [];
  if (OF_NO_JOB.test(pathname) || jobId === undefined) return answer;
  const [job, sites, links, hubs] = await Promise.all([
    getJob(db(), jobId),
    sitesOf(db(), jobId),
    linksOf(db(), jobId),
    // Whoever sees no hub is told none of its name.
    listRecords(db(), jobId, "hub").catch(() => []),
  ]);
  const veil = veiling({
    centre: { latDeg: job.centreLatDeg, lonDeg: job.centreLonDeg },
    jobName: job.name,
    sites: sites.map(({ id, name }) => ({ id, name })),
    labels: [...links.map((l) => l.label), ...hubs.map((h) => (h as { readonly name?: string }).name ?? "")],
    told: new Set(told),
  });
  // A link that is opened comes with its sites and designs: each is known by what it has.
  return veil.answer(answer, /\/links\/[^/]+$/.test(pathname) ? null : kindAt(pathname));
};
