"use client";
import type { DesignFields, FeatureDto, PlaceDto, RelayDto, SiteDto } from "@/contract";
import type { LinkBundle } from "../../api/queries";
import type { Taking } from "../../controls/preview-button";
import type { Units } from "../../wording/numbers";
import type { View } from "./bottom-panel";
import { ElsewherePanel } from "./elsewhere-panel";
import { HeightsPanel } from "./heights-panel";
import { TablePanel } from "./table-panel";
import { TreesPanel } from "./trees-panel";
import type { Evaluation } from "./use-evaluation";
import { WaterPanel } from "./water-panel";

/** The view under the section that answers one question: how high, which tree, which water, where else, in figures. */
export const SolverView = ({
  which,
  size,
  evaluation,
  bundle,
  design,
  sites,
  lines,
  units,
  year,
  showYear,
  onBegin,
  onEnd,
  change,
  apply,
  preview,
  move,
  addRelay,
}: {
  which: View;
  size: { readonly width: number; readonly height: number };
  evaluation: Evaluation;
  bundle: LinkBundle;
  design: DesignFields;
  sites: readonly SiteDto[];
  lines: readonly FeatureDto[];
  units: Units;
  year: number;
  showYear: (year: number) => void;
  onBegin: () => void;
  onEnd: () => void;
  change: (fields: Partial<DesignFields>) => void;
  move: (end: "near" | "far", place: PlaceDto) => Promise<void>;
  addRelay: (relay: RelayDto) => Promise<void>;
} & Taking) => {
  const common = { evaluation, units, apply, preview };
  switch (which) {
    case "heights":
      return (
        <HeightsPanel
          {...common}
          {...size}
          design={design}
          costs={{ nearPerM: bundle.near.mastCostPerM, farPerM: bundle.far.mastCostPerM }}
          onBegin={onBegin}
          onEnd={onEnd}
          onMounts={(nearMountAglM, farMountAglM) => change({ nearMountAglM, farMountAglM })}
        />
      );
    case "trees":
      return <TreesPanel {...common} shownYear={year} showYear={showYear} />;
    case "water":
      return <WaterPanel {...common} {...size} design={design} />;
    case "table":
      return <TablePanel evaluation={evaluation} year={year} units={units} />;
    default:
      return (
        <ElsewherePanel evaluation={evaluation} bundle={bundle} sites={sites} lines={lines} units={units} move={move} addRelay={addRelay} />
      );
  }
};
