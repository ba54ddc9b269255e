"use client";
import { type LinkDto, lonLats } from "@/contract";
import { ScrollRegion } from "../../controls/scroll-region";
import { HistoryPanel } from "../../frame/history-panel";
import { useOpened } from "../../state/use-opened";
import { DRAW_KINDS } from "./draw-kinds";
import { ExportPanel } from "./export-panel";
import { FeatureForm } from "./feature-form";
import { ImportPanel } from "./import-panel";
import { KnownPanel } from "./known-panel";
import { MeasurePanel } from "./measure-panel";
import { ObstacleForm } from "./obstacle-form";
import { ToldPanel } from "./told-panel";
import { TypedCorners } from "./typed-corners";
import type { OpenGround } from "./use-open-ground";
import { ViewPanel } from "./view-panel";

/** @param openedLink the link as its form was opened on it; @param takeLink takes another state of it for that. */
const inside = (ground: OpenGround, openedLink: LinkDto | undefined, takeLink: (row: LinkDto) => void): React.ReactNode => {
  const { panel, setPanel, edits, units, jobId, drawing, onMap, enter, selectedLink: link, near, far } = ground;
  const { drawKind, saved, drawnDone } = drawing;
  const others = ground.inView.shown;
  const leave = (): void => enter("look");
  switch (panel.kind) {
    case "import":
      return (
        <ImportPanel
          jobId={jobId}
          units={units}
          surveyedOn={new Date().toISOString().slice(0, 10)}
          onPreview={onMap.preview}
          dropped={ground.dropped}
        />
      );
    case "export":
      return <ExportPanel jobId={jobId} />;
    case "known":
      return <KnownPanel jobId={jobId} units={units} chosenId={ground.datasetId} choose={onMap.chooseDataset} />;
    case "history":
      return <HistoryPanel jobId={jobId} takeBack={edits.history.takeBack} />;
    case "told":
      return link === undefined ? null : (
        <ToldPanel
          key={`${link.id}-${openedLink?.version ?? 0}`}
          link={openedLink ?? link}
          title={near === undefined || far === undefined ? "" : `${near.name} to ${far.name}`}
          units={units}
          onSave={async (told) => {
            await edits.tellGround(openedLink ?? link, told);
            saved(panel);
          }}
          onCancel={leave}
          onTaken={takeLink}
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
              aria-pressed={k.key === drawKind.key}
              className={`min-h-8 px-1.5 text-left ${k.key === drawKind.key ? "bg-ink font-bold text-paper" : ""}`}
              onClick={() => drawing.chooseDrawKind(k)}
            >
              {k.name}
            </button>
          ))}
          <p className="cap col-span-2 m-0 mt-1.5">
            {drawKind.shape === "polygon"
              ? "Press each corner."
              : drawKind.shape === "line"
                ? "Press along its middle."
                : "Press where it stands."}{" "}
            Corners snap to what is there. Heights are asked next.
          </p>
          <button type="button" className="press mt-1 justify-self-start" onClick={onMap.finish}>
            End the shape
          </button>
          <TypedCorners shape={drawKind.shape} onTyped={(points) => onMap.typed(drawKind.shape, points)} />
        </fieldset>
      );
    case "drawn":
      return (
        <ObstacleForm
          jobId={jobId}
          start={panel.fields}
          isNew
          others={others}
          units={units}
          onSubmit={async (fields) => {
            await edits.addObstacle(fields);
            saved(panel);
          }}
          onCancel={drawnDone}
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
          others={others.filter((o) => o.id !== row.id)}
          units={units}
          onSubmit={async (next) => {
            await edits.changeObstacle(opened ?? row, next);
            saved(panel);
          }}
          onCancel={leave}
          onTaken={(theirs) => setPanel({ kind: "obstacle", row: theirs })}
          {...(ground.mode === "look" ? { onEdit: () => drawing.editOutline(row), onCut: () => drawing.cutOutline(row) } : {})}
          onDelete={async () => {
            await edits.removeDrawn("obstacles", row);
            saved(panel);
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
            saved(panel);
          }}
          onCancel={drawnDone}
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
            saved(panel);
          }}
          onCancel={leave}
          onTaken={(theirs) => setPanel({ kind: "feature", row: theirs })}
          onDelete={async () => {
            await edits.removeDrawn("features", row);
            saved(panel);
          }}
        />
      );
    }
    default:
      if (ground.mode === "measure")
        return (
          <MeasurePanel
            jobId={jobId}
            points={ground.measured}
            visitOn={ground.job.visitOn}
            units={units}
            sites={ground.sites}
            between={onMap.measureBetween}
            onFinish={onMap.finish}
          />
        );
      if (ground.mode === "view")
        return (
          <ViewPanel
            sites={ground.sites}
            units={units}
            state={ground.view.state}
            onLook={onMap.look}
            onStop={ground.view.stop}
            onClear={ground.view.clear}
          />
        );
      return null;
  }
};

/** What stands beside the drawing besides the links: forms of what is drawn, files, measures, views, history. */
export const GroundPanels = ({ ground }: { ground: OpenGround }) => {
  const [openedLink, takeLink] = useOpened(ground.panel.kind === "told" ? ground.selectedLink : undefined);
  const content = inside(ground, openedLink, takeLink);
  if (content === null) return null;
  return (
    <ScrollRegion label="Tool" className="flex-1 px-3.5 py-3">
      {content}
    </ScrollRegion>
  );
};
