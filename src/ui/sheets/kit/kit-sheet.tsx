"use client";
import { useRouter } from "next/navigation";
import { useBrief, useHardware, useJob, useKit, useParts, usePicks, useSafety, useVerdicts, useWirings } from "../../api/queries";
import { lazyCode, NotFetched } from "../../controls/lazy-part";
import { Sheet } from "../../frame/sheet";
import { Trouble } from "../../frame/trouble";
import { STILL_HISTORY } from "../../state/job-history";
import { useJobNews } from "../../state/job-news";
import { useJobIndex } from "../job-index";
import { waitingStrip } from "../job-strip";
import { SHEETS, wiringLink } from "../registry";

const useKitOpen = lazyCode(() => import("./kit-open").then((m) => m.KitOpen));

/** The kit of a link's two ends: it opens when their wiring and the sheets of all parts are here. */
export const KitSheet = ({ jobId, linkId }: { jobId: string; linkId: string | null }) => {
  useJobNews(jobId);
  const router = useRouter();
  const job = useJob(jobId);
  const brief = useBrief(jobId);
  const wirings = useWirings(jobId);
  const kit = useKit(jobId);
  const picks = usePicks(jobId);
  const safety = useSafety(jobId);
  const parts = useParts();
  const hardware = useHardware();
  const verdicts = useVerdicts(jobId);
  const rows = useJobIndex(jobId, verdicts.data, linkId);
  const { Here: KitOpen, failed, again } = useKitOpen();
  const links = job.data?.links;
  // Without a link of its own the page is of the one whose wiring is worst.
  const wanted = linkId ?? (verdicts.data === undefined ? null : wiringLink(verdicts.data)) ?? links?.[0]?.id ?? null;
  const link = links?.find((l) => l.id === wanted);
  if (
    KitOpen !== null &&
    job.data !== undefined &&
    link !== undefined &&
    brief.data !== undefined &&
    wirings.data !== undefined &&
    kit.data !== undefined &&
    picks.data !== undefined &&
    safety.data !== undefined &&
    parts.data !== undefined &&
    hardware.data !== undefined
  ) {
    const has = (siteId: string): string => (safety.data.some((s) => s.siteId === siteId) ? "s" : "");
    return (
      <KitOpen
        // A risk screen that comes to be begun is another record.
        key={`${link.id}${has(link.nearSiteId)}|${has(link.farSiteId)}`}
        job={job.data}
        linkId={link.id}
        brief={brief.data}
        wirings={wirings.data}
        kit={kit.data}
        picks={picks.data}
        safety={safety.data}
        parts={parts.data}
        hardware={hardware.data}
        choose={(id: string) => router.push(`/jobs/${jobId}/kit/${id}`)}
      />
    );
  }
  const error = [job, brief, wirings, kit, picks, safety, parts, hardware].map((q) => q.error ?? q.failureReason).find((e) => e !== null);
  const none = links !== undefined && links.length === 0;
  const gone = linkId !== null && links !== undefined && link === undefined;
  return (
    <Sheet
      rows={rows}
      jobId={jobId}
      of={SHEETS.kit}
      undo={STILL_HISTORY}
      actions={[]}
      strip={waitingStrip(job.data?.job, { label: "Link", value: "", grow: 2.5 })}
    >
      {failed ? (
        <div className="p-6">
          <NotFetched again={again} />
        </div>
      ) : none || gone ? (
        <p className="p-6 text-body" data-testid="empty">
          {none
            ? "What to buy and bring? Join two sites under 02 Ground first: what is needed follows from the plan."
            : "This link is not there any more. The list of links is under 02 Ground."}
        </p>
      ) : (
        <Trouble error={error} waiting="Reading the kit of the job." />
      )}
    </Sheet>
  );
};
