"use client";
import { useRef } from "react";
import { useBrief, useHeldUp, useHubs, useJob, useNetwork, useVerdicts } from "../../api/queries";
import { lazyCode, NotFetched } from "../../controls/lazy-part";
import { Sheet } from "../../frame/sheet";
import { Trouble } from "../../frame/trouble";
import { STILL_HISTORY } from "../../state/job-history";
import { useJobNews } from "../../state/job-news";
import { useJobIndex } from "../job-index";
import { waitingStrip } from "../job-strip";
import { SHEETS } from "../registry";

const useLoadOpen = lazyCode(() => import("./load-open").then((m) => m.LoadOpen));

/** The load of a job: it opens when the plan and what its links carry are here. */
export const LoadSheet = ({ jobId }: { jobId: string }) => {
  useJobNews(jobId, "load");
  const job = useJob(jobId);
  const brief = useBrief(jobId);
  const network = useNetwork(jobId);
  const hubs = useHubs(jobId);
  const verdicts = useVerdicts(jobId);
  const rows = useJobIndex(jobId, verdicts.data, null);
  const { Here: LoadOpen, failed, again } = useLoadOpen();
  // Once it is open it stays open: what is worked out anew after an edit stands as it was until then.
  const opened = useRef(false);
  const waits = !opened.current && verdicts.data?.some((v) => !v.fresh && v.carries === null) === true;
  const held = useHeldUp(waits);
  if (
    LoadOpen !== null &&
    job.data !== undefined &&
    brief.data !== undefined &&
    network.data !== undefined &&
    hubs.data !== undefined &&
    verdicts.data !== undefined &&
    !waits
  ) {
    opened.current = true;
    return <LoadOpen job={job.data} brief={brief.data} network={network.data} hubs={hubs.data} verdicts={verdicts.data} />;
  }
  const error = [job, brief, network, hubs, verdicts].map((q) => q.error ?? q.failureReason).find((e) => e !== null);
  return (
    <Sheet
      rows={rows}
      jobId={jobId}
      of={SHEETS.load}
      undo={STILL_HISTORY}
      actions={[]}
      strip={waitingStrip(job.data?.job, { label: "Narrowest", value: "", grow: 2.5 })}
    >
      {failed ? (
        <div className="p-6">
          <NotFetched again={again} />
        </div>
      ) : (
        <Trouble error={error} waiting={waits ? (held ?? "Working out what each link carries.") : "Reading the network of the job."} />
      )}
    </Sheet>
  );
};
