"use client";
import { proxy, type Remote, wrap } from "comlink";
import { useEffect, useRef, useState } from "react";
import { type DrawnDto, latLons, mountPosition, type SiteDto } from "@/contract";
import { asOneRing, effectiveRadiusM, insideOutline, type LatLon, planeProjection } from "@/core/geo";
import { isSpan, type RasterBody } from "@/core/obstacles";
import type { ViewWorker } from "@/workers/messages";
import { bodyOf, getJson, postForBinary } from "../../api/client";
import type { ViewImage } from "../../map/ground-overlays";
import { errorSentence } from "../../wording/errors";
import type { ViewQuestion, ViewState } from "./view-panel";

const MOST_CELLS = 1000;
const LEAST_STEP_M = 1;
/** Obstacles that are looked over: the widest in view. */
const MOST_BODIES = 60_000;

/** Asks for ground and obstacles in view and lets a worker look about from a mount; it can be stopped at any moment. */
export const useView = (
  jobId: string,
  crs: string,
  kFactor: number,
  sites: readonly SiteDto[],
  show: (image: ViewImage | null) => void,
) => {
  const [state, setState] = useState<ViewState>({ kind: "none" });
  const running = useRef<{ worker: Worker; abort: AbortController } | null>(null);
  const stop = (): void => {
    running.current?.abort.abort();
    running.current?.worker.terminate();
    running.current = null;
    setState((s) => (s.kind === "busy" ? { kind: "none" } : s));
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: on leaving only
  useEffect(() => stop, []);

  const look = async (q: ViewQuestion, extent: readonly [number, number, number, number]): Promise<void> => {
    stop();
    const site = sites.find((s) => s.id === q.siteId);
    if (site === undefined) return;
    const abort = new AbortController();
    const worker = new Worker("/workers/view.worker.js");
    running.current = { worker, abort };
    setState({ kind: "busy", share: 0 });
    const fail = (words: string): void => {
      if (running.current?.worker !== worker) return;
      running.current = null;
      worker.terminate();
      setState({ kind: "fault", words });
    };
    worker.onerror = () => fail("The drawing of the view failed; nothing else was touched.");
    try {
      const projection = planeProjection(crs);
      const eye = mountPosition(site, q.mountId);
      const [west, south, east, north] = extent;
      const stepM = Math.max(LEAST_STEP_M, (east - west) / MOST_CELLS, (north - south) / MOST_CELLS);
      const cols = Math.min(MOST_CELLS, Math.ceil((east - west) / stepM));
      const rows = Math.min(MOST_CELLS, Math.ceil((north - south) / stepM));
      const [x0, y0] = [west, north];
      const cell = (p: LatLon): { col: number; row: number } => {
        const [x, y] = projection.forward(p);
        return { col: (x - x0) / stepM, row: (y0 - y) / stepM };
      };
      const from = cell(eye);
      if (!(from.col >= 0 && from.row >= 0 && from.col <= cols - 1 && from.row <= rows - 1)) {
        fail(`${site.name} lies outside the part of the plan in view. Move the drawing to it first.`);
        return;
      }
      const corners = [
        projection.inverse(west, south),
        projection.inverse(east, south),
        projection.inverse(west, north),
        projection.inverse(east, north),
      ];
      const box = new URLSearchParams({
        westDeg: String(Math.min(...corners.map((c) => c.lonDeg))),
        southDeg: String(Math.min(...corners.map((c) => c.latDeg))),
        eastDeg: String(Math.max(...corners.map((c) => c.lonDeg))),
        northDeg: String(Math.max(...corners.map((c) => c.latDeg))),
        most: String(MOST_BODIES),
      });
      const [ground, drawn] = await Promise.all([
        postForBinary(`/api/jobs/${jobId}/terrain`, { crs, x0, y0, stepM, cols, rows }, abort.signal).then((r) => r.arrayBuffer()),
        getJson<DrawnDto>(`/api/jobs/${jobId}/obstacles?${box}`, abort.signal),
      ]);
      const bodies = drawn.obstacles
        // The building one stands on does not hide what is looked at over its edge; spans leave the air beneath free.
        .filter((o) => !isSpan(o.kind) && !insideOutline(eye, asOneRing(latLons(o.outline), o.holes.map(latLons))))
        .map((o): RasterBody => {
          const at = asOneRing(latLons(o.outline), o.holes.map(latLons)).map(cell);
          return { cols: at.map((c) => c.col), rows: at.map((c) => c.row), baseAmslM: o.baseAmslM, heightM: o.heightM };
        });
      const others = sites.filter((s) => s.id !== site.id).map((s) => ({ site: s, ...cell(s) }));
      const within = others.filter((o) => o.col >= 0 && o.row >= 0 && o.col <= cols - 1 && o.row <= rows - 1);
      const remote = wrap<ViewWorker>(worker) as Remote<ViewWorker>;
      const answer = await remote.view(
        {
          groundAmslM: new Float32Array(ground),
          cols,
          rows,
          stepM,
          bodies,
          from: { ...from, aglM: q.aglM },
          targetAglM: q.targetAglM,
          effectiveRadiusM: effectiveRadiusM(kFactor),
          places: within.map((o) => ({ id: o.site.id, col: o.col, row: o.row, aglM: o.site.mountAglM })),
        },
        proxy((share: number) => setState((s) => (s.kind === "busy" ? { kind: "busy", share } : s))),
      );
      if (running.current?.worker !== worker) return;
      running.current = null;
      worker.terminate();
      show({ mask: answer.mask, cols, rows, x0, y0, stepM });
      const outside = others.length - within.length;
      setState({
        kind: "seen",
        seenShare: answer.seenShare,
        stepM,
        places: answer.places
          .map((p) => ({ name: sites.find((s) => s.id === p.id)?.name ?? "", spareM: p.spareM }))
          .sort((a, b) => (a.spareM ?? -1e9) - (b.spareM ?? -1e9)),
        without: outside === 0 ? null : `${outside} more sites lie outside the part in view.`,
      });
    } catch (error) {
      if (!abort.signal.aborted) fail(errorSentence(bodyOf(error)));
    }
  };
  return {
    state,
    look,
    stop,
    clear: () => {
      stop();
      show(null);
      setState({ kind: "none" });
    },
  };
};
