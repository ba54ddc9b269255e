"use client";
import { useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useJob, useVerdicts } from "../../api/queries";
import { lazyCode } from "../../controls/lazy-part";
import { useJobNews } from "../../state/job-news";
import { linkOfPage, WaitingLinkSheet } from "../link-sheet";
import { SHEETS } from "../registry";
import { packKey } from "./pack-key";

const usePackOpen = lazyCode(() => import("./pack-open").then((m) => m.PackOpen));

/** The pages that go on site with somebody: what is on paper, before it is printed. */
export const PackSheet = ({ jobId, linkId }: { jobId: string; linkId: string | null }) => {
  const client = useQueryClient();
  // The pages rest on many records: whatever somebody else changes, they are made anew.
  useJobNews(jobId, "pack", () => void client.invalidateQueries({ queryKey: packKey(jobId) }));
  const router = useRouter();
  const job = useJob(jobId);
  const verdicts = useVerdicts(jobId);
  const { Here: PackOpen, failed, again } = usePackOpen();
  const link = linkOfPage(linkId, job.data, verdicts.data);
  if (PackOpen !== null && job.data !== undefined && link !== undefined)
    return <PackOpen key={link.id} job={job.data} link={link} choose={(id: string) => router.push(`/jobs/${jobId}/pack/${id}`)} />;
  return (
    <WaitingLinkSheet
      jobId={jobId}
      linkId={linkId}
      of={SHEETS.pack}
      job={job.data}
      verdicts={verdicts.data}
      failed={failed}
      again={again}
      reads={[job, verdicts]}
      noLinks="What goes on paper? Join two sites under 02 Ground first: the pages follow from the plan."
      waiting="Reading the job."
    />
  );
};
