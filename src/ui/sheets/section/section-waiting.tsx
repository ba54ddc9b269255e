"use client";
import { useJob, useVerdicts } from "../../api/queries";
import { NotFetched } from "../../controls/lazy-part";
import { useSize } from "../../drawing/use-size";
import { linkCell } from "../../frame/link-cell";
import { Sheet } from "../../frame/sheet";
import { Trouble } from "../../frame/trouble";
import { STILL_HISTORY } from "../../state/job-history";
import { usePreferences } from "../../state/preferences";
import { bearingText, distanceText } from "../../wording/numbers";
import { troubleText } from "../../wording/troubles";
import { useJobIndex } from "../job-index";
import { waitingStrip } from "../job-strip";
import { SHEETS } from "../registry";
import { Headline } from "./headline";
import { NARROW_PX } from "./narrow";

/** The section before its ground is sampled and its core is here: the verdict as it was last worked out, where it will stand. */
export const SectionWaiting = ({
  jobId,
  linkId,
  trouble,
  again,
}: {
  jobId: string;
  linkId: string;
  trouble: unknown;
  /** Set when its code could not be fetched. */
  again: (() => void) | null;
}) => {
  const { units } = usePreferences();
  const job = useJob(jobId).data?.job;
  const verdicts = useVerdicts(jobId).data;
  const link = verdicts?.find((l) => l.linkId === linkId);
  const rows = useJobIndex(jobId, verdicts, linkId);
  const [ref, area] = useSize<HTMLDivElement>();
  const narrow = area.width > 0 && area.width < NARROW_PX;
  return (
    <Sheet
      rows={rows}
      jobId={jobId}
      of={SHEETS.section}
      undo={STILL_HISTORY}
      actions={[]}
      strip={waitingStrip(
        job,
        link?.fresh === true
          ? linkCell(link)
          : { label: "Link", value: link === undefined ? "" : `${link.nearName} to ${link.farName}`, grow: 2.5 },
      )}
    >
      <div className="section-sheet grid h-full min-h-0 grid-cols-[minmax(0,1fr)_232px] grid-rows-[minmax(0,1fr)_242px] min-[1500px]:grid-cols-[minmax(0,1fr)_264px]">
        <div ref={ref} className="section-area relative min-h-0 min-w-0 overflow-hidden">
          {link !== undefined && (
            <Headline
              verdict={link.fresh ? link.verdict : null}
              nearName={link.nearName}
              farName={link.farName}
              label={link.label}
              narrow={narrow}
            >
              <p className="m-0 text-body leading-[18px]">
                {distanceText(units, link.pathM)}, bearing {bearingText(link.nearBearingDeg)} true
              </p>
              {link.fresh && link.verdict !== "clear" && link.trouble !== null && (
                <p className="m-0 text-line leading-[18px]">
                  <strong className={`font-heading v-${link.verdict}`}>{troubleText(link.trouble)}</strong>
                </p>
              )}
            </Headline>
          )}
          {again === null ? (
            <Trouble error={trouble} waiting="Sampling the ground between the two ends." />
          ) : (
            <div className="p-6">
              <NotFetched again={again} />
            </div>
          )}
        </div>
        <div className="border-l border-ink" />
        <div className="col-span-2 border-t border-ink" />
      </div>
    </Sheet>
  );
};
