"use client";
import { useHardware, useLimits, useLink, useProfile, useVerdicts } from "../../../api/queries";
import { lazyCode, NotFetched } from "../../../controls/lazy-part";
import { Trouble } from "../../../frame/trouble";
import { useJobNews } from "../../../state/job-news";
import { Headline } from "../../section/headline";

const useRackOpen = lazyCode(() => import("./rack-open").then((m) => m.RackOpen));

/** Reads what the rack needs; it opens when all of it is here, under the verdict that is known meanwhile. */
export const RackSheet = ({ jobId, linkId }: { jobId: string; linkId: string }) => {
  useJobNews(jobId);
  const link = useLink(jobId, linkId);
  const profile = useProfile(jobId, linkId);
  const hardware = useHardware();
  const limits = useLimits(jobId);
  const known = useVerdicts(jobId).data?.find((l) => l.linkId === linkId);
  const { Here: RackOpen, failed, again } = useRackOpen();
  const [bundle, path, gear, kept] = [link.data, profile.data, hardware.data, limits.data];
  if (RackOpen !== null && bundle !== undefined && path !== undefined && gear !== undefined && kept !== undefined)
    return <RackOpen key={bundle.link.design.id} jobId={jobId} bundle={bundle} profile={path} hardware={gear} kept={kept} />;
  const trouble = [link, profile, hardware, limits].map((q) => q.error ?? q.failureReason).find((e) => e !== null);
  return (
    <div className="h-dvh p-2">
      <div className="h-full border-[1.6px] border-ink">
        {known !== undefined && (
          <Headline
            verdict={known.fresh ? known.verdict : null}
            nearName={known.nearName}
            farName={known.farName}
            label={known.label}
            narrow={false}
          >
            {null}
          </Headline>
        )}
        {failed ? (
          <div className="p-6">
            <NotFetched again={again} />
          </div>
        ) : (
          <Trouble error={trouble} waiting="Reading the link, its ground and the catalogue." />
        )}
      </div>
    </div>
  );
};
