"use client";
import { type DatasetDto, type LinkDto, lonLats, type ObstacleDto, type PreviewDto, type SiteDto } from "@/contract";
import type { LatLon } from "@/core/geo";
import { ScrollRegion } from "../../controls/scroll-region";
import { HistoryPanel } from "../../frame/history-panel";
import type { MapMode } from "../../map/ground-map";
import type { DrawShape } from "../../map/ground-tools";
import type { Units } from "../../wording/numbers";
import { DRAW_KINDS, type DrawKind } from "./draw-kinds";
import { ExportPanel } from "./export-panel";
import { FeatureForm } from "./feature-form";
import type { Panel } from "./ground-modes";
import { ImportPanel } from "./import-panel";
import { KnownPanel } from "./known-panel";
import { MeasurePanel } from "./measure-panel";
import { ObstacleForm } from "./obstacle-form";
import { ToldPanel } from "./told-panel";
import { TypedCorners } from "./typed-corners";
import type { GroundEdits } from "./use-ground-edits";
import type { useView } from "./use-view";
import { ViewPanel, type ViewQuestion } from "./view-panel";

interface Props {
  readonly jobId: string;
  readonly panel: Panel;
  readonly mode: MapMode;
  readonly units: Units;
  readonly visitOn: string;
  readonly sites: readonly SiteDto[];
  readonly others: readonly ObstacleDto[];
  readonly edits: GroundEdits;
  readonly drawKind: DrawKind;
  readonly chooseDrawKind: (kind: DrawKind) => void;
  readonly measured: readonly LatLon[];
  readonly onFinish: () => void;
  /** A shape whose corners were typed instead of pressed. */
  readonly onTyped: (shape: DrawShape, points: readonly LatLon[]) => void;
  readonly measureBetween: (points: readonly LatLon[]) => void;
  readonly view: ReturnType<typeof useView>;
  readonly onLook: (q: ViewQuestion) => void;
  readonly dropped: { readonly file: File | null; readonly clear: () => void };
  readonly onPreview: (preview: PreviewDto | null) => void;
  readonly datasetId: string | null;
  readonly chooseDataset: (d: DatasetDto) => void;
  readonly link: LinkDto | undefined;
  /** The link as its form was opened on it. */
  readonly openedLink: LinkDto | undefined;
  readonly onTakenLink: (row: LinkDto) => void;
  readonly onTaken: (panel: Panel) => void;
  readonly linkTitle: string;
  /** A form's edit was saved: the form closes, if it is still the one that is open. */
  readonly onSaved: (panel: Panel) => void;
  readonly onDone: () => void;
  readonly onLeave: () => void;
  readonly onEdit: (row: ObstacleDto) => void;
  readonly onCut: (row: ObstacleDto) => void;
  readonly reload: () => void;
}

const inside = (p: Props): React.ReactNode => {
  const { panel, edits, units, jobId } = p;
  switch (panel.kind) {
    case "import":
      return (
        <ImportPanel
          jobId={jobId}
          units={units}
          surveyedOn={new Date().toISOString().slice(0, 10)}
          onPreview={p.onPreview}
          dropped={p.dropped}
        />
      );
    case "export":
      return <ExportPanel jobId={jobId} />;
    case "known":
      return <KnownPanel jobId={jobId} units={units} chosenId={p.datasetId} choose={p.chooseDataset} />;
    case "history":
      return <HistoryPanel jobId={jobId} takeBack={edits.history.takeBack} />;
    case "told":
      return p.link === undefined ? null : (
        <ToldPanel
          key={`${p.link.id}-${p.openedLink?.version ?? 0}`}
          link={p.openedLink ?? p.link}
          title={p.linkTitle}
          units={units}
          onSave={async (told) => {
            await edits.tellGround(p.openedLink ?? p.link!, told);
            p.onSaved(panel);
          }}
          onCancel={p.onLeave}
          onTaken={p.onTakenLink}
        />
      );
    case "draw":
      return (
        <fieldset className="m-0 grid grid-cols-2 gap-x-3 gap-y-0.5 border-0 p-0">
          <legend className="sr-only">What is drawn</legend>
          {DRAW_KINDS.map((k) => (
            <button
              key={k.key}
              type="button"
              aria-pressed={k.key === p.drawKind.key}
              className={`min-h-8 px-1.5 text-left ${k.key === p.drawKind.key ? "bg-ink font-bold text-paper" : ""}`}
              onClick={() => p.chooseDrawKind(k)}
            >
              {k.name}
            </button>
          ))}
          <p className="cap col-span-2 m-0 mt-1.5">
            {p.drawKind.shape === "polygon"
              ? "Press each corner."
              : p.drawKind.shape === "line"
                ? "Press along its middle."
                : "Press where it stands."}{" "}
            Corners snap to what is there. Heights are asked next.
          </p>
          <button type="button" className="press mt-1 justify-self-start" onClick={p.onFinish}>
            End the shape
          </button>
          <TypedCorners shape={p.drawKind.shape} onTyped={(points) => p.onTyped(p.drawKind.shape, points)} />
        </fieldset>
      );
    case "drawn":
      return (
        <ObstacleForm
          jobId={jobId}
          start={panel.fields}
          isNew
          others={p.others}
          units={units}
          onSubmit={async (fields) => {
            await edits.addObstacle(fields);
            p.onSaved(panel);
          }}
          onCancel={p.onDone}
        />
      );
    case "obstacle": {
      const { row, opened } = panel;
      const { id: _i, version: _v, ...fields } = row;
      return (
        <ObstacleForm
          key={row.id}
          jobId={jobId}
          start={fields}
          isNew={false}
          others={p.others.filter((o) => o.id !== row.id)}
          units={units}
          onSubmit={async (next) => {
            await edits.changeObstacle(opened ?? row, next);
            p.onSaved(panel);
          }}
          onCancel={p.onLeave}
          onTaken={(theirs) => p.onTaken({ kind: "obstacle", row: theirs })}
          {...(p.mode === "look" ? { onEdit: () => p.onEdit(row), onCut: () => p.onCut(row) } : {})}
          onDelete={async () => {
            await edits.removeDrawn("obstacles", row);
            p.onSaved(panel);
          }}
        />
      );
    }
    case "named":
      return (
        <FeatureForm
          name=""
          isNew
          onSubmit={async (name) => {
            await edits.addFeature({ name, points: lonLats(panel.points) });
            p.onSaved(panel);
          }}
          onCancel={p.onDone}
        />
      );
    case "feature": {
      const { row } = panel;
      return (
        <FeatureForm
          key={row.id}
          name={row.name}
          isNew={false}
          onSubmit={async (name) => {
            await edits.changeFeature(row, { name, points: row.points.map(([x, y]) => [x, y]) });
            p.onSaved(panel);
          }}
          onCancel={p.onLeave}
          onTaken={(theirs) => p.onTaken({ kind: "feature", row: theirs })}
          onDelete={async () => {
            await edits.removeDrawn("features", row);
            p.onSaved(panel);
          }}
        />
      );
    }
    default:
      if (p.mode === "measure")
        return (
          <MeasurePanel
            jobId={jobId}
            points={p.measured}
            visitOn={p.visitOn}
            units={units}
            sites={p.sites}
            between={p.measureBetween}
            onFinish={p.onFinish}
          />
        );
      if (p.mode === "view")
        return (
          <ViewPanel sites={p.sites} units={units} state={p.view.state} onLook={p.onLook} onStop={p.view.stop} onClear={p.view.clear} />
        );
      return null;
  }
};

/** What stands beside the drawing besides the links: forms of what is drawn, files, measures, views, history. */
export const GroundPanels = (props: Props) => {
  const content = inside(props);
  if (content === null) return null;
  return (
    <ScrollRegion label="Tool" className="flex-1 px-3.5 py-3">
      {content}
    </ScrollRegion>
  );
};
