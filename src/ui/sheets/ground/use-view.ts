"use client";
import { useEffect, useRef, useState } from "react";
import type { SiteDto } from "@/contract";
import { bodyOf } from "../../api/client";
import type { ViewImage } from "../../map/ground-overlays";
import { errorSentence } from "../../wording/errors";
import type { ViewQuestion, ViewState } from "./view-panel";

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
      const { lookAbout } = await import("./look-about");
      const plan = { jobId, crs, kFactor, sites };
      const seen = await lookAbout(plan, site, q, extent, worker, abort.signal, (share) =>
        setState((s) => (s.kind === "busy" ? { kind: "busy", share } : s)),
      );
      if (running.current?.worker !== worker) return;
      if (seen === null) {
        fail(`${site.name} lies outside the part of the plan in view. Move the drawing to it first.`);
        return;
      }
      running.current = null;
      worker.terminate();
      show(seen.image);
      setState(seen.seen);
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
