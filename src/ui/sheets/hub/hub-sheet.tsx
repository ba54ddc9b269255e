"use client";
import { useQueries } from "@tanstack/react-query";
import { useMemo } from "react";
import type { ProfileDto } from "@/contract";
import { getJson } from "../../api/client";
import { keys, useHardware, useHubs, useJob, useVerdicts } from "../../api/queries";
import { lazyCode, NotFetched } from "../../controls/lazy-part";
import { Sheet } from "../../frame/sheet";
import { Trouble } from "../../frame/trouble";
import { STILL_HISTORY } from "../../state/job-history";
import { useJobNews } from "../../state/job-news";
import { useJobIndex } from "../job-index";
import { waitingStrip } from "../job-strip";
import { SHEETS } from "../registry";
import { HubStart } from "./hub-start-page";

const useHubOpen = lazyCode(() => import("./hub-open").then((m) => m.HubOpen));
const useMovingOpen = lazyCode(() => import("./moving-open").then((m) => m.MovingOpen));

/** The hubs of a job, or one of them: it opens when the paths of its remotes are here. */
export const HubSheet = ({ jobId, hubId, moving = false }: { jobId: string; hubId: string | null; moving?: boolean }) => {
  useJobNews(jobId, "hub");
  const job = useJob(jobId);
  const hubs = useHubs(jobId);
  const hardware = useHardware();
  const verdicts = useVerdicts(jobId);
  const rows = useJobIndex(jobId, verdicts.data, null);
  const hub = hubs.data?.find((h) => h.id === hubId);
  const there = new Set(job.data?.links.map((l) => l.id) ?? []);
  const linkIds = (hub?.remotes ?? []).map((r) => r.linkId).filter((id) => there.has(id));
  const paths = useQueries({
    queries: linkIds.map((id) => ({
      queryKey: keys.profile(id),
      queryFn: ({ signal }: { signal: AbortSignal }) => getJson<ProfileDto>(`/api/jobs/${jobId}/links/${id}/profile`, signal),
      refetchOnWindowFocus: false,
    })),
    combine: (all) => ({
      list: all.map((q) => q.data),
      done: all.filter((q) => q.data !== undefined || q.isError).length,
    }),
  });
  const { list } = paths;
  const named = linkIds.join();
  const profiles = useMemo(
    () => new Map(named.split(",").flatMap((id, i): [string, ProfileDto][] => (list[i] === undefined ? [] : [[id, list[i]]]))),
    [named, list],
  );
  const hubCode = useHubOpen();
  const movingCode = useMovingOpen();
  const { Here: HubOpen, failed, again } = moving ? movingCode : hubCode;
  const ready = hub !== undefined && paths.done === linkIds.length;
  if (HubOpen !== null && ready && job.data !== undefined && hardware.data !== undefined)
    return <HubOpen key={hub.id} job={job.data} hub={hub} hardware={hardware.data} profiles={profiles} />;
  const error = [job, hubs, hardware].map((q) => q.error ?? q.failureReason).find((e) => e !== null);
  return (
    <Sheet
      rows={rows}
      jobId={jobId}
      of={SHEETS.hub}
      undo={STILL_HISTORY}
      actions={[]}
      strip={waitingStrip(job.data?.job, { label: "Hub", value: "", grow: 2.5 })}
    >
      {failed ? (
        <div className="p-6">
          <NotFetched again={again} />
        </div>
      ) : hubId === null && job.data !== undefined && hubs.data !== undefined && hardware.data !== undefined ? (
        <HubStart job={job.data} hubs={hubs.data} radios={hardware.data.radios} />
      ) : hubId !== null && hubs.data !== undefined && hub === undefined ? (
        <p className="p-6 text-body">This hub is not there any more. The list of hubs is under 05 Hub.</p>
      ) : (
        <Trouble error={error} waiting="Reading the hub and the paths to its remotes." />
      )}
    </Sheet>
  );
};
