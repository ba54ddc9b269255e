"use client";
import type { FeatureDto, SiteDto } from "@/contract";
import type { View } from "./bottom-panel";
import { ElsewherePanel } from "./elsewhere-panel";
import { HeightsPanel } from "./heights-panel";
import { TablePanel } from "./table-panel";
import { TreesPanel } from "./trees-panel";
import type { Evaluation } from "./use-evaluation";
import type { LinkActions } from "./use-link-actions";
import type { OpenSection } from "./use-open-section";
import { WaterPanel } from "./water-panel";

/** The view under the section that answers one question: how high, which tree, which water, where else, in figures. */
export const SolverView = ({
  open,
  actions,
  which,
  size,
  evaluation,
  sites,
  lines,
}: {
  open: OpenSection;
  actions: LinkActions;
  which: View;
  size: { readonly width: number; readonly height: number };
  evaluation: Evaluation;
  sites: readonly SiteDto[];
  lines: readonly FeatureDto[];
}) => {
  const { bundle, units, apply, preview, year, change } = open;
  const { design } = open.calm;
  const common = { evaluation, units, apply, preview };
  switch (which) {
    case "heights":
      return (
        <HeightsPanel
          {...common}
          {...size}
          design={design}
          costs={{ nearPerM: bundle.near.mastCostPerM, farPerM: bundle.far.mastCostPerM }}
          onBegin={open.beginGesture}
          onEnd={open.endGesture}
          onMounts={(nearMountAglM, farMountAglM) => change({ nearMountAglM, farMountAglM })}
          onNudge={(move) => {
            const { nearMountAglM, farMountAglM } = open.designNow();
            const to = move({ nearAglM: nearMountAglM, farAglM: farMountAglM });
            change({ nearMountAglM: to.nearAglM, farMountAglM: to.farAglM });
          }}
        />
      );
    case "trees":
      return <TreesPanel {...common} shownYear={year} showYear={open.setYear} />;
    case "water":
      return <WaterPanel {...common} {...size} design={design} />;
    case "table":
      return <TablePanel evaluation={evaluation} year={year} units={units} />;
    default:
      return (
        <ElsewherePanel
          evaluation={evaluation}
          bundle={bundle}
          sites={sites}
          lines={lines}
          units={units}
          move={actions.move}
          addRelay={actions.addRelay}
        />
      );
  }
};
