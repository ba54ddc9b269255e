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
import { lazyCode } from "../../controls/lazy-part";
import { useJobNews } from "../../state/job-news";
import { linkOfPage, WaitingLinkSheet } from "../link-sheet";
import { SHEETS } from "../registry";

const useWiringOpen = lazyCode(() => import("./wiring-open").then((m) => m.WiringOpen));

/** The wiring of a link's two ends: it opens when the plan and the sheets of all parts are here. */
export const WiringSheet = ({ jobId, linkId }: { jobId: string; linkId: string | null }) => {
  useJobNews(jobId, "wiring");
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
  const { Here: WiringOpen, failed, again } = useWiringOpen();
  const link = linkOfPage(linkId, job.data, verdicts.data);
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
  return (
    <WaitingLinkSheet
      jobId={jobId}
      linkId={linkId}
      of={SHEETS.wiring}
      job={job.data}
      verdicts={verdicts.data}
      failed={failed}
      again={again}
      reads={[job, brief, network, hubs, wirings, units, addresses, parts, hardware]}
      noLinks="What is plugged into what? Join two sites under 02 Ground first: each end of a link is wired."
      waiting="Reading the wiring of the job."
    />
  );
};
