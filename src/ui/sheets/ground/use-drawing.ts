"use client";
import { type RefObject, useRef, useState } from "react";
import { latLons, lonLats, type ObstacleDto } from "@/contract";
import { circleAbout, cutInTwo, type LatLon, widenLine } from "@/core/geo";
import type { GroundMap, MapMode } from "../../map/ground-map";
import type { DrawShape } from "../../map/ground-tools";
import { DRAW_KINDS, type DrawKind } from "./draw-kinds";
import type { Panel } from "./ground-modes";
import type { GroundEdits } from "./use-ground-edits";

const today = (): string => new Date().toISOString().slice(0, 10);

/** What becomes of a shape drawn on the Ground sheet: a new obstacle, named ground, other corners, or a cut. */
export const useDrawing = ({
  map,
  edits,
  mode,
  panel,
  setMode,
  setPanel,
  setFault,
  say,
  leave,
}: {
  map: RefObject<GroundMap | null>;
  edits: GroundEdits;
  mode: MapMode;
  panel: Panel;
  setMode: (mode: MapMode) => void;
  setPanel: (panel: Panel) => void;
  setFault: (words: string | null) => void;
  say: (error: unknown) => void;
  leave: () => void;
}) => {
  const [drawKind, setDrawKind] = useState<DrawKind>(DRAW_KINDS[0]!);
  const chooseDrawKind = (kind: DrawKind): void => {
    setDrawKind(kind);
    setPanel({ kind: "draw" });
    map.current?.tools.draw(kind.shape);
  };
  const now = useRef({ mode, panel });
  now.current = { mode, panel };
  /** Back to drawing one more of the same, or to looking. */
  const drawnDone = (): void => {
    if (now.current.mode === "draw") chooseDrawKind(drawKind);
    else leave();
  };
  /** Saving takes a moment: who has gone on to something else meanwhile stays there. */
  const saved = (of: Panel): void => {
    if (now.current.panel === of) drawnDone();
  };
  const editOutline = (row: ObstacleDto): void => {
    setMode("edit");
    setPanel({ kind: "obstacle", row });
    map.current?.tools.edit(latLons(row.outline));
  };
  const cutOutline = (row: ObstacleDto): void => {
    setMode("cut");
    setPanel({ kind: "obstacle", row });
    map.current?.tools.draw("line");
  };
  const drawn = (shape: DrawShape, points: readonly LatLon[]): void => {
    if (mode === "cut" && panel.kind === "obstacle") {
      const { row } = panel;
      const parts = cutInTwo(latLons(row.outline), points[0]!, points[points.length - 1]!);
      if (parts === null) {
        setFault("The line must cross the outline exactly twice, from outside to outside.");
        map.current?.tools.draw("line");
        return;
      }
      edits
        .splitObstacle(row, parts.map(lonLats))
        .then(() => leave())
        .catch(say);
      return;
    }
    if (drawKind.kind === null) {
      setPanel({ kind: "named", points });
      return;
    }
    const outline =
      shape === "polygon" ? points : shape === "line" ? widenLine(points, drawKind.widthM) : circleAbout(points[0]!, drawKind.widthM / 2);
    map.current?.tools.mark("polygon", outline);
    setPanel({
      kind: "drawn",
      fields: {
        name: "",
        kind: drawKind.kind,
        outline: lonLats(outline),
        holes: [],
        baseAmslM: null,
        heightM: drawKind.heightM,
        crownBaseM: 0,
        freeBelowM: drawKind.freeBelowM,
        growthMPerYear: drawKind.growthMPerYear,
        heightSigmaM: drawKind.sigmaM,
        species: null,
        leaf: null,
        source: "drawn",
        heightSource: "typed",
        surveyedOn: today(),
      },
    });
  };
  return { drawKind, chooseDrawKind, drawnDone, saved, editOutline, cutOutline, drawn };
};
