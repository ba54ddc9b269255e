"use client";
import { useHardware, useJob, useLimits, useLink, useProfile, useVerdicts } from "../../../api/queries";
import { lazyCode, NotFetched } from "../../../controls/lazy-part";
import { useSize } from "../../../drawing/use-size";
import { linkCell } from "../../../frame/link-cell";
import { Sheet } from "../../../frame/sheet";
import { Trouble } from "../../../frame/trouble";
import { STILL_HISTORY } from "../../../state/job-history";
import { useJobNews } from "../../../state/job-news";
import { usePreferences } from "../../../state/preferences";
import { distanceText } from "../../../wording/numbers";
import { useJobIndex } from "../../job-index";
import { waitingStrip } from "../../job-strip";
import { SHEETS } from "../../registry";
import { Headline } from "../../section/headline";
import { NARROW_PX } from "../../section/narrow";

const useRackOpen = lazyCode(() => import("./rack-open").then((m) => m.RackOpen));

/** Reads what the rack needs; it opens when all of it is here, under the verdict that is known meanwhile. */
export const RackSheet = ({ jobId, linkId }: { jobId: string; linkId: string }) => {
  useJobNews(jobId, "gear");
  const link = useLink(jobId, linkId);
  const profile = useProfile(jobId, linkId);
  const hardware = useHardware();
  const limits = useLimits(jobId);
  const { units } = usePreferences();
  const job = useJob(jobId).data?.job;
  const verdicts = useVerdicts(jobId).data;
  const known = verdicts?.find((l) => l.linkId === linkId);
  const rows = useJobIndex(jobId, verdicts, linkId);
  const [ref, area] = useSize<HTMLDivElement>();
  const narrow = area.width > 0 && area.width < NARROW_PX;
  const { Here: RackOpen, failed, again } = useRackOpen();
  const [bundle, path, gear, kept] = [link.data, profile.data, hardware.data, limits.data];
  if (RackOpen !== null && bundle !== undefined && path !== undefined && gear !== undefined && kept !== undefined)
    return <RackOpen key={bundle.link.design.id} jobId={jobId} bundle={bundle} profile={path} hardware={gear} kept={kept} />;
  const trouble = [link, profile, hardware, limits].map((q) => q.error ?? q.failureReason).find((e) => e !== null);
  return (
    <Sheet
      rows={rows}
      jobId={jobId}
      of={SHEETS.gear}
      undo={STILL_HISTORY}
      actions={[]}
      strip={waitingStrip(
        job,
        known?.fresh === true
          ? linkCell(known)
          : { label: "Link", value: known === undefined ? "" : `${known.nearName} to ${known.farName}`, grow: 2.5 },
      )}
    >
      <div className="panes grid h-full min-h-0 grid-cols-[minmax(0,1fr)_232px] min-[1500px]:grid-cols-[minmax(0,1fr)_264px]">
        <div ref={ref} className="min-h-0">
          {known !== undefined && (
            <Headline
              verdict={known.fresh ? known.verdict : null}
              nearName={known.nearName}
              farName={known.farName}
              label={known.label}
              narrow={narrow}
            >
              <p className="m-0 text-line leading-[18px]">over {distanceText(units, known.pathM)}</p>
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
        <div className="border-l border-ink" />
      </div>
    </Sheet>
  );
};
