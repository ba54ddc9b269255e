"use client";
import { useRef } from "react";
import { useAir, useBrief, useHardware, useHeldUp, useHubs, useJob, useLosses, useNetwork, useScans, useVerdicts } from "../../api/queries";
import { lazyCode, NotFetched } from "../../controls/lazy-part";
import { Sheet } from "../../frame/sheet";
import { Trouble } from "../../frame/trouble";
import { STILL_HISTORY } from "../../state/job-history";
import { useJobNews } from "../../state/job-news";
import { useJobIndex } from "../job-index";
import { waitingStrip } from "../job-strip";
import { SHEETS } from "../registry";

const useAirOpen = lazyCode(() => import("./air-open").then((m) => m.AirOpen));

/** The air of a job: it opens when the plan and what its paths are to its radios are here. */
export const AirSheet = ({ jobId }: { jobId: string }) => {
  useJobNews(jobId, "air");
  const job = useJob(jobId);
  const brief = useBrief(jobId);
  const network = useNetwork(jobId);
  const hubs = useHubs(jobId);
  const air = useAir(jobId);
  const scans = useScans(jobId);
  const hardware = useHardware();
  const verdicts = useVerdicts(jobId);
  const losses = useLosses(jobId);
  const rows = useJobIndex(jobId, verdicts.data, null);
  const { Here: AirOpen, failed, again } = useAirOpen();
  // Once it is open it stays open: what is worked out anew after an edit stands as it was until then.
  const opened = useRef(false);
  const waits = !opened.current && verdicts.data?.some((v) => !v.fresh && v.air === null) === true;
  const held = useHeldUp(waits);
  if (
    AirOpen !== null &&
    job.data !== undefined &&
    brief.data !== undefined &&
    network.data !== undefined &&
    hubs.data !== undefined &&
    air.data !== undefined &&
    scans.data !== undefined &&
    hardware.data !== undefined &&
    verdicts.data !== undefined &&
    losses.data !== undefined &&
    !waits
  ) {
    opened.current = true;
    return (
      <AirOpen
        job={job.data}
        brief={brief.data}
        network={network.data}
        hubs={hubs.data}
        air={air.data}
        scans={scans.data}
        hardware={hardware.data}
        verdicts={verdicts.data}
        losses={losses.data.losses}
      />
    );
  }
  const error = [job, brief, network, hubs, air, scans, hardware, verdicts, losses]
    .map((q) => q.error ?? q.failureReason)
    .find((e) => e !== null);
  return (
    <Sheet
      rows={rows}
      jobId={jobId}
      of={SHEETS.air}
      undo={STILL_HISTORY}
      actions={[]}
      strip={waitingStrip(job.data?.job, { label: "Noise", value: "", grow: 2.5 })}
    >
      {failed ? (
        <div className="p-6">
          <NotFetched again={again} />
        </div>
      ) : (
        <Trouble error={error} waiting={waits ? (held ?? "Working out the paths of the job.") : "Reading the air of the job."} />
      )}
    </Sheet>
  );
};
