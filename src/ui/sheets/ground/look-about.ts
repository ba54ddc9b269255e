import { proxy, type Remote, wrap } from "comlink";
import { type DrawnDto, latLons, mountPosition, type SiteDto } from "@/contract";
import { asOneRing, effectiveRadiusM, insideOutline, type LatLon, planeProjection } from "@/core/geo";
import { isSpan, type RasterBody } from "@/core/obstacles";
import type { ViewWorker } from "@/workers/messages";
import { getJson, postForBinary } from "../../api/client";
import type { ViewImage } from "../../map/ground-overlays";
import type { Seen, ViewQuestion } from "./view-panel";

const MOST_CELLS = 1000;
const LEAST_STEP_M = 1;
/** Obstacles that are looked over: the widest in view. */
const MOST_BODIES = 60_000;

export interface LookingPlan {
  readonly jobId: string;
  readonly crs: string;
  readonly kFactor: number;
  readonly sites: readonly SiteDto[];
}

/** The cells that are looked over: no finer than a metre, no more than a thousand each way. */
const cellsOf = ([west, south, east, north]: readonly [number, number, number, number]) => {
  const stepM = Math.max(LEAST_STEP_M, (east - west) / MOST_CELLS, (north - south) / MOST_CELLS);
  return {
    x0: west,
    y0: north,
    stepM,
    cols: Math.min(MOST_CELLS, Math.ceil((east - west) / stepM)),
    rows: Math.min(MOST_CELLS, Math.ceil((north - south) / stepM)),
  };
};

/**
 * Reads the ground and the obstacles of a part of the plan and has a worker look about from a mount.
 * @param extent west, south, east, north in the plane of `crs`, metres. @param progress share done, 0 to 1.
 * @returns null when the site lies outside that part. @throws ApiError when the server does not answer.
 */
export const lookAbout = async (
  { jobId, crs, kFactor, sites }: LookingPlan,
  site: SiteDto,
  q: ViewQuestion,
  extent: readonly [number, number, number, number],
  worker: Worker,
  signal: AbortSignal,
  progress: (share: number) => void,
): Promise<{ readonly image: ViewImage; readonly seen: Seen } | null> => {
  const projection = planeProjection(crs);
  const grid = cellsOf(extent);
  const { x0, y0, stepM, cols, rows } = grid;
  const cell = (p: LatLon): { col: number; row: number } => {
    const [x, y] = projection.forward(p);
    return { col: (x - x0) / stepM, row: (y0 - y) / stepM };
  };
  const within = (c: { col: number; row: number }): boolean => c.col >= 0 && c.row >= 0 && c.col <= cols - 1 && c.row <= rows - 1;
  const eye = mountPosition(site, q.mountId);
  const from = cell(eye);
  if (!within(from)) return null;
  const [west, south, east, north] = extent;
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
    postForBinary(`/api/jobs/${jobId}/terrain`, { crs, ...grid }, signal).then((r) => r.arrayBuffer()),
    getJson<DrawnDto>(`/api/jobs/${jobId}/obstacles?${box}`, signal),
  ]);
  const bodies = drawn.obstacles
    // The building one stands on does not hide what is looked at over its edge; spans leave the air beneath free.
    .filter((o) => !isSpan(o.kind) && !insideOutline(eye, asOneRing(latLons(o.outline), o.holes.map(latLons))))
    .map((o): RasterBody => {
      const at = asOneRing(latLons(o.outline), o.holes.map(latLons)).map(cell);
      return { cols: at.map((c) => c.col), rows: at.map((c) => c.row), baseAmslM: o.baseAmslM, heightM: o.heightM };
    });
  const others = sites.filter((s) => s.id !== site.id).map((s) => ({ site: s, ...cell(s) }));
  const inView = others.filter(within);
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
      places: inView.map((o) => ({ id: o.site.id, col: o.col, row: o.row, aglM: o.site.mountAglM })),
    },
    proxy(progress),
  );
  const outside = others.length - inView.length;
  return {
    image: { mask: answer.mask, ...grid },
    seen: {
      kind: "seen",
      seenShare: answer.seenShare,
      stepM,
      places: answer.places
        .map((p) => ({ name: sites.find((s) => s.id === p.id)?.name ?? "", spareM: p.spareM }))
        .sort((a, b) => (a.spareM ?? -1e9) - (b.spareM ?? -1e9)),
      without: outside === 0 ? null : `${outside} more sites lie outside the part in view.`,
    },
  };
};
