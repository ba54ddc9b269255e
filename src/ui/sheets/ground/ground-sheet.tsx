"use client";
import { type RefObject, useRef } from "react";
import type { JobBundle } from "@/contract";
import { useBasemap, useDatasets, useJob, useVerdicts } from "../../api/queries";
import { useKeys } from "../../controls/use-keys";
import { linkCell, openLinkActions } from "../../frame/link-cell";
import { Sheet } from "../../frame/sheet";
import { Trouble } from "../../frame/trouble";
import { UnitsButton } from "../../frame/units-button";
import { useJobNews } from "../../state/job-news";
import { BasisCell } from "../basis/basis-cell";
import { useJobIndex } from "../job-index";
import { SHEETS } from "../registry";
import { DRAW_KINDS } from "./draw-kinds";
import { GroundAside } from "./ground-aside";
import { GroundDrawing } from "./ground-drawing";
import { DRAWERS, MODES } from "./ground-modes";
import { useOpenGround } from "./use-open-ground";

const savedWords = (onTheirWay: number, refused: boolean, last: string | null): string => {
  if (refused) return "last edit refused";
  return onTheirWay > 0 ? `${onTheirWay} not sent yet` : (last ?? "all edits");
};

const GroundOpen = ({ jobId, read, others }: { jobId: string; read: JobBundle; others: RefObject<() => void> }) => {
  const ground = useOpenGround(jobId, read, others);
  const { job, rows, selectedId, selected, enter, openDrawer, edits, drawing } = ground;
  const index = useJobIndex(jobId, rows, selectedId);
  useKeys({
    ...Object.fromEntries(MODES.map((m) => [m.key, () => enter(m.mode)])),
    ...Object.fromEntries(DRAWERS.map((d) => [d.key, () => openDrawer(d.kind)])),
    escape: () => enter("look"),
    f: ground.onMap.fitSites,
  });
  return (
    <Sheet
      rows={index}
      jobId={jobId}
      of={SHEETS.ground}
      undo={edits.history}
      actions={[
        ...MODES.map((m) => ({ name: m.name, run: () => enter(m.mode) })),
        ...DRAWERS.map((d) => ({ name: d.name, run: () => openDrawer(d.kind) })),
        ...DRAW_KINDS.map((k) => ({
          name: `Draw: ${k.name.toLowerCase()}`,
          run: () => {
            enter("draw");
            drawing.chooseDrawKind(k);
          },
        })),
        ...openLinkActions(jobId, rows),
      ]}
      strip={[
        { label: "Job", value: job.name, grow: 2 },
        linkCell(selected ?? null),
        { label: "Sheet", value: "", grow: 1 },
        { label: "Day of visit", value: job.visitOn, grow: 1 },
        { label: "Units", value: <UnitsButton />, grow: 0.9 },
        { label: "Policy in force", value: <BasisCell job={job} />, grow: 2.3 },
        { label: "Saved", value: savedWords(ground.onTheirWay.length, ground.fault !== null, edits.history.last), grow: 1.6 },
      ]}
    >
      {/* What opens beside the drawing lies over its edge: the drawing never moves under the pointer. */}
      <div className="panes relative grid h-full min-h-0 grid-cols-[minmax(0,1fr)_252px]">
        <GroundDrawing ground={ground} />
        <GroundAside ground={ground} />
      </div>
    </Sheet>
  );
};

/** The plan of a job: sites, links, what stands in the way and what is known of the ground. */
export const GroundSheet = ({ jobId }: { jobId: string }) => {
  const others = useRef<() => void>(() => undefined);
  useJobNews(jobId, "ground", () => others.current());
  const job = useJob(jobId);
  // Asked for at once, not only when the job is here.
  useVerdicts(jobId);
  useDatasets(jobId);
  useBasemap(jobId);
  if (job.data !== undefined) return <GroundOpen jobId={jobId} read={job.data} others={others} />;
  return (
    <div className="h-dvh p-2">
      <div className="h-full border-[1.6px] border-ink">
        <Trouble error={job.error ?? job.failureReason} waiting="Reading the job." />
      </div>
    </div>
  );
};
