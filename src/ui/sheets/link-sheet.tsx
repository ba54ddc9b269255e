"use client";
import type { JobBundle, LinkVerdict } from "@/contract";
import { NotFetched } from "../controls/lazy-part";
import { Sheet } from "../frame/sheet";
import { Trouble } from "../frame/trouble";
import { STILL_HISTORY } from "../state/job-history";
import { useJobIndex } from "./job-index";
import { waitingStrip } from "./job-strip";
import { type SheetDef, wiringLink } from "./registry";

/* What sheets of one link have in common: which link, and what stands there until it is open. */

/** The link that a page is of: as its address says, else the one whose wiring is worst. */
export const linkOfPage = (linkId: string | null, job: JobBundle | undefined, verdicts: readonly LinkVerdict[] | undefined) => {
  const links = job?.links;
  const wanted = linkId ?? (verdicts === undefined ? null : wiringLink(verdicts)) ?? links?.[0]?.id ?? null;
  return links?.find((l) => l.id === wanted);
};

/** A sheet of a link that is not open: on its way, without a link to show, or in trouble. */
export const WaitingLinkSheet = ({
  jobId,
  linkId,
  of,
  job,
  verdicts,
  failed,
  again,
  reads,
  noLinks,
  waiting,
}: {
  jobId: string;
  linkId: string | null;
  of: SheetDef;
  job: JobBundle | undefined;
  verdicts: readonly LinkVerdict[] | undefined;
  /** Its code did not come. */
  failed: boolean;
  again: () => void;
  reads: readonly { readonly error: unknown; readonly failureReason: unknown }[];
  noLinks: string;
  waiting: string;
}) => {
  const rows = useJobIndex(jobId, verdicts, linkId);
  const links = job?.links;
  const none = links !== undefined && links.length === 0;
  const gone = linkId !== null && links !== undefined && !links.some((l) => l.id === linkId);
  return (
    <Sheet
      rows={rows}
      jobId={jobId}
      of={of}
      undo={STILL_HISTORY}
      actions={[]}
      strip={waitingStrip(job?.job, { label: "Link", value: "", grow: 2.5 })}
    >
      {failed ? (
        <div className="p-6">
          <NotFetched again={again} />
        </div>
      ) : none || gone ? (
        <p className="p-6 text-body" data-testid="empty">
          {none ? noLinks : "This link is not there any more. The list of links is under 02 Ground."}
        </p>
      ) : (
        <Trouble error={reads.map((q) => q.error ?? q.failureReason).find((e) => e !== null)} waiting={waiting} />
      )}
    </Sheet>
  );
};

/** Both ends by name, and another link to look at. */
export const LinkChoice = ({ job, linkId, choose }: { job: JobBundle; linkId: string; choose: (linkId: string) => void }) => {
  const nameOf = (siteId: string): string => job.sites.find((s) => s.id === siteId)?.name ?? "?";
  return (
    <label className="flex items-baseline gap-1.5 text-line">
      <span className="text-ink-2">Link</span>
      <select className="typed max-w-[260px]" value={linkId} onChange={(e) => choose(e.target.value)} aria-label="Link">
        {job.links.map((l) => (
          <option key={l.id} value={l.id}>
            {l.number}, {nameOf(l.nearSiteId)} to {nameOf(l.farSiteId)}
          </option>
        ))}
      </select>
    </label>
  );
};
