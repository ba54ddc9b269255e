"use client";
import { useRouter } from "next/navigation";
import {
  useAddresses,
  useBrief,
  useHardware,
  useHubs,
  useJob,
  useNetwork,
  useParts,
  useUnits,
  useVerdicts,
  useWirings,
} from "../../api/queries";
import { lazyCode, NotFetched } from "../../controls/lazy-part";
import { Sheet } from "../../frame/sheet";
import { Trouble } from "../../frame/trouble";
import { STILL_HISTORY } from "../../state/job-history";
import { useJobNews } from "../../state/job-news";
import { useJobIndex } from "../job-index";
import { waitingStrip } from "../job-strip";
import { SHEETS, wiringLink } from "../registry";

const useWiringOpen = lazyCode(() => import("./wiring-open").then((m) => m.WiringOpen));

/** The wiring of a link's two ends: it opens when the plan and the sheets of all parts are here. */
export const WiringSheet = ({ jobId, linkId }: { jobId: string; linkId: string | null }) => {
  useJobNews(jobId);
  const router = useRouter();
  const job = useJob(jobId);
  const brief = useBrief(jobId);
  const network = useNetwork(jobId);
  const hubs = useHubs(jobId);
  const wirings = useWirings(jobId);
  const units = useUnits(jobId);
  const addresses = useAddresses(jobId);
  const parts = useParts();
  const hardware = useHardware();
  const verdicts = useVerdicts(jobId);
  const rows = useJobIndex(jobId, verdicts.data, linkId);
  const { Here: WiringOpen, failed, again } = useWiringOpen();
  const links = job.data?.links;
  // Without a link of its own the page is of the one whose wiring is worst.
  const wanted = linkId ?? (verdicts.data === undefined ? null : wiringLink(verdicts.data)) ?? links?.[0]?.id ?? null;
  const link = links?.find((l) => l.id === wanted);
  if (
    WiringOpen !== null &&
    job.data !== undefined &&
    link !== undefined &&
    brief.data !== undefined &&
    network.data !== undefined &&
    hubs.data !== undefined &&
    wirings.data !== undefined &&
    units.data !== undefined &&
    addresses.data !== undefined &&
    parts.data !== undefined &&
    hardware.data !== undefined
  ) {
    const has = (siteId: string): string => (wirings.data.some((w) => w.siteId === siteId) ? "w" : "");
    return (
      <WiringOpen
        // An end that comes to be wired is another record.
        key={`${link.id}${has(link.nearSiteId)}|${has(link.farSiteId)}`}
        job={job.data}
        linkId={link.id}
        brief={brief.data}
        network={network.data}
        hubs={hubs.data}
        wirings={wirings.data}
        units={units.data}
        addresses={addresses.data}
        parts={parts.data}
        hardware={hardware.data}
        choose={(id: string) => router.push(`/jobs/${jobId}/wiring/${id}`)}
      />
    );
  }
  const error = [job, brief, network, hubs, wirings, units, addresses, parts, hardware]
    .map((q) => q.error ?? q.failureReason)
    .find((e) => e !== null);
  const none = links !== undefined && links.length === 0;
  const gone = linkId !== null && links !== undefined && link === undefined;
  return (
    <Sheet
      rows={rows}
      jobId={jobId}
      of={SHEETS.wiring}
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
            ? "What is plugged into what? Join two sites under 02 Ground first: each end of a link is wired."
            : "This link is not there any more. The list of links is under 02 Ground."}
        </p>
      ) : (
        <Trouble error={error} waiting="Reading the wiring of the job." />
      )}
    </Sheet>
  );
};
