"use client";
import { useId, useMemo } from "react";
import { latLons } from "@/contract";
import { inverse } from "@/core/geo";
import { verdictOf } from "@/core/link";
import { useFeatures, useJob } from "../../api/queries";
import { Calm } from "../../controls/calm";
import { lazyPart } from "../../controls/lazy-part";
import { BottomPanel } from "./bottom-panel";
import type { LinkActions } from "./use-link-actions";
import type { OpenSection } from "./use-open-section";

const SolverView = lazyPart(() => import("./solver-view").then((m) => m.SolverView));

/** Drawn lines this near an end are offered to move it along. */
const LINE_REACH_M = 400;

/** Under the drawing: the level and what explains it, or what answers how high, which tree, which water, where else. */
export const SectionBottom = ({ open, actions }: { open: OpenSection; actions: LinkActions }) => {
  const { jobId, bundle, units, calm, reverse, view, year } = open;
  const { near, far } = bundle;
  const levelId = useId();
  const wholeJob = useJob(jobId).data;
  const features = useFeatures(jobId, [near, far], view === "elsewhere");
  const named = features.data?.features;
  const lines = useMemo(
    () =>
      (named ?? []).filter(
        (f) => f.points.length > 1 && [near, far].some((site) => latLons(f.points).some((p) => inverse(p, site).distanceM <= LINE_REACH_M)),
      ),
    [named, near, far],
  );
  const { evaluation, design, doubt } = calm;
  return (
    <Calm of={[bundle, units, calm, reverse, view, year, wholeJob, lines, open.inAir]}>
      {() => (
        <BottomPanel
          doubt={doubt}
          verdict={verdictOf(calm.found, "service")}
          evaluation={evaluation}
          design={design}
          designNow={open.designNow}
          job={bundle.job}
          nearName={near.name}
          farName={far.name}
          units={units}
          reverse={reverse}
          setReverse={open.setReverse}
          view={view}
          setView={open.setView}
          change={open.change}
          levelId={levelId}
          inAir={open.inAir}
          solvers={(which, size) =>
            evaluation !== null && (
              <SolverView
                open={open}
                actions={actions}
                which={which}
                size={size}
                evaluation={evaluation}
                sites={wholeJob?.sites ?? []}
                lines={lines}
              />
            )
          }
        />
      )}
    </Calm>
  );
};
