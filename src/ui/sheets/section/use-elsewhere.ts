"use client";
import { proxy, type Remote, wrap } from "comlink";
import { useEffect, useRef, useState } from "react";
import {
  type ErrorBody,
  mountPosition,
  type PlaceDto,
  type PlacesQuestion,
  type RelayDto,
  type RelaysQuestion,
  type SiteDto,
} from "@/contract";
import { effectiveRadiusM, inverse, type LatLon, planeProjection, utmCrsOf } from "@/core/geo";
import { byRelayMerit, relayAroundM } from "@/core/solve";
import type { RelayWorker } from "@/workers/messages";
import { ApiError, bodyOf, postForBinary, streamRows } from "../../api/client";
import type { LinkBundle } from "../../api/queries";
import type { Evaluation } from "./use-evaluation";

const MOST_CELLS = 1000;
const LEAST_STEP_M = 5;
const HIGH_SPOTS = 6;
/** With the high ground as many spots as the server takes at once. */
const MOST_SITES = 34;

export type Elsewhere =
  | { readonly kind: "none" }
  | {
      readonly kind: "busy";
      readonly words: string;
      readonly share: number;
      readonly places: readonly PlaceDto[];
      readonly relays: readonly RelayDto[];
    }
  | { readonly kind: "places"; readonly places: readonly PlaceDto[]; readonly end: "near" | "far" }
  | {
      readonly kind: "relays";
      readonly relays: readonly RelayDto[];
      readonly reason: string | null /** Sites farther about that were not looked at. */;
      readonly sitesLeft: number;
    }
  | { readonly kind: "fault"; readonly body: ErrorBody };

const BUSY = (words: string): Elsewhere => ({ kind: "busy", words, share: 0, places: [], relays: [] });

/** Other spots for an end, and relays: asked of the server and of a worker, with progress; one at a time, stopped at any moment. */
export const useElsewhere = (bundle: LinkBundle, sites: readonly SiteDto[]) => {
  const [state, setState] = useState<Elsewhere>({ kind: "none" });
  const running = useRef<{ abort: AbortController; worker: Worker | null } | null>(null);
  const stop = (): void => {
    running.current?.abort.abort();
    running.current?.worker?.terminate();
    running.current = null;
    setState((s) => (s.kind === "busy" ? { kind: "none" } : s));
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: on leaving only
  useEffect(() => stop, []);

  const start = (words: string): AbortController => {
    stop();
    const abort = new AbortController();
    running.current = { abort, worker: null };
    setState(BUSY(words));
    return abort;
  };
  const finish = (abort: AbortController, next: Elsewhere): void => {
    if (abort.signal.aborted) return;
    running.current?.worker?.terminate();
    running.current = null;
    setState(next);
  };
  const fail = (abort: AbortController, error: unknown): void => finish(abort, { kind: "fault", body: bodyOf(error) });
  const progress = (share: number, words?: string): void =>
    setState((s) => (s.kind === "busy" ? { ...s, share, words: words ?? s.words } : s));

  const places = async (q: PlacesQuestion): Promise<void> => {
    const abort = start("Looking from spot to spot");
    const found: PlaceDto[] = [];
    try {
      await streamRows<PlaceDto>(`/api/jobs/${bundle.job.id}/links/${bundle.link.id}/places`, q, abort.signal, {
        row: (row) => found.push(row),
        progress: (done, total) => progress(done / Math.max(1, total)),
      });
      finish(abort, { kind: "places", places: found, end: q.end });
    } catch (error) {
      fail(abort, error);
    }
  };

  const relays = async (evaluation: Evaluation, mostMastM: number): Promise<void> => {
    const abort = start("Reading the ground");
    try {
      const { plan, path, result } = evaluation;
      const design = bundle.link.design;
      const [near, far] = [mountPosition(bundle.near, design.nearMountId), mountPosition(bundle.far, design.farMountId)];
      const projection = planeProjection(utmCrsOf({ latDeg: (near.latDeg + far.latDeg) / 2, lonDeg: (near.lonDeg + far.lonDeg) / 2 }));
      const [[ax, ay], [bx, by]] = [projection.forward(near), projection.forward(far)];
      const around = relayAroundM(path.profile.pathM);
      const [west, east] = [Math.min(ax, bx) - around, Math.max(ax, bx) + around];
      const [south, north] = [Math.min(ay, by) - around, Math.max(ay, by) + around];
      const stepM = Math.max(LEAST_STEP_M, (east - west) / MOST_CELLS, (north - south) / MOST_CELLS);
      const cols = Math.min(MOST_CELLS, Math.ceil((east - west) / stepM));
      const rows = Math.min(MOST_CELLS, Math.ceil((north - south) / stepM));
      const crs = utmCrsOf({ latDeg: (near.latDeg + far.latDeg) / 2, lonDeg: (near.lonDeg + far.lonDeg) / 2 });
      const window = { crs, x0: west, y0: north, stepM, cols, rows };
      const heights = await (await postForBinary(`/api/jobs/${bundle.job.id}/terrain`, window, abort.signal)).arrayBuffer();
      const worker = new Worker("/workers/relay.worker.js");
      if (running.current !== null) running.current.worker = worker;
      const remote = wrap<RelayWorker>(worker) as Remote<RelayWorker>;
      progress(0, "Looking over the ground from both ends");
      const cell = (x: number, y: number): { col: number; row: number } => ({ col: (x - west) / stepM, row: (north - y) / stepM });
      const answer = await Promise.race([
        remote.search(
          {
            window: { surfaceAmslM: new Float32Array(heights), cols, rows, stepM },
            near: { ...cell(ax, ay), amslM: result.geometry.nearAmslM },
            far: { ...cell(bx, by), amslM: result.geometry.farAmslM },
            mostMastM,
            wavelengthM: result.geometry.wavelengthM,
            kFactor: plan.policy.kFactor,
            effectiveRadiusM: effectiveRadiusM(plan.policy.kFactor),
            policyShare: result.clearance.policyShare,
          },
          proxy((share: number) => progress(share)),
        ),
        new Promise<never>((_, reject) => {
          abort.signal.addEventListener("abort", () => reject(new DOMException("stopped", "AbortError")));
          worker.onerror = () => reject(new ApiError(500, { code: "internal" }));
        }),
      ]);
      const others = sites.filter((s) => s.id !== bundle.near.id && s.id !== bundle.far.id);
      const way = (s: SiteDto): number => inverse(near, s).distanceM + inverse(s, far).distanceM;
      const asked = others.sort((a, b) => way(a) - way(b)).slice(0, MOST_SITES);
      const spots: RelaysQuestion["spots"] = [
        ...asked.map((s) => ({ latDeg: s.latDeg, lonDeg: s.lonDeg, aglM: s.mountAglM, siteId: s.id })),
        ...answer.spots.slice(0, HIGH_SPOTS).map((s) => {
          const at: LatLon = projection.inverse(west + s.col * stepM, north - s.row * stepM);
          return { latDeg: at.latDeg, lonDeg: at.lonDeg, aglM: Math.ceil(s.mastM), siteId: null };
        }),
      ];
      progress(0, "Cutting both sections of each spot");
      const found: RelayDto[] = [];
      await streamRows<RelayDto>(
        `/api/jobs/${bundle.job.id}/links/${bundle.link.id}/relays`,
        { spots, mostAglM: mostMastM } satisfies RelaysQuestion,
        abort.signal,
        {
          row: (row) => found.push(row),
          progress: (done, total) => progress(done / Math.max(1, total)),
        },
      );
      const named = found.map((r) => ({ ...r, name: sites.find((s) => s.id === r.siteId)?.name ?? r.name })).sort(byRelayMerit);
      const reason =
        answer.spots.length > 0
          ? null
          : answer.leastMastM === null
            ? "No ground within reach can be seen from both ends, whatever the mast."
            : `No ground within reach meets the policy to both ends with a mast of ${mostMastM} m; the least that only sees both is ${answer.leastMastM.toFixed(0)} m.`;
      finish(abort, { kind: "relays", relays: named, reason, sitesLeft: others.length - asked.length });
    } catch (error) {
      fail(abort, error);
    }
  };
  return { state, places, relays, stop };
};
