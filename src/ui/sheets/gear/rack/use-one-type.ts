"use client";
import { type Remote, wrap } from "comlink";
import { useEffect, useMemo, useState } from "react";
import type { HardwareDto, JobBundle, Limits } from "@/contract";
import type { PathProfile } from "@/core/link";
import type { RackWorker } from "@/workers/messages";
import { bodyOf } from "../../../api/client";
import { errorSentence } from "../../../wording/errors";
import type { Units } from "../../../wording/numbers";
import { findOneType, type JobType } from "./one-type-search";
import { readOtherLink } from "./other-links";

export interface OneTypeState {
  /** What was found last; while something newer is looked for it stays. */
  readonly found: JobType | null;
  /** Links looked at of how many, while it is being looked for. */
  readonly progress: { readonly done: number; readonly total: number } | null;
  readonly fault: string | null;
}
const OFF: OneTypeState = { found: null, progress: null, fault: null };

/** The one type for all links of a job, worked out beside the page while the switch is on. */
export const useOneType = (job: JobBundle | undefined, limits: Limits, hardware: HardwareDto, units: Units): OneTypeState => {
  const [state, setState] = useState<OneTypeState>(OFF);
  const on = limits.oneTypeMost !== null;
  // How much dearer it may be is judged of what was found: it asks nothing anew.
  const key = JSON.stringify({ ...limits, oneTypeMost: null });
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key names all of the limits that is used
  const asked = useMemo(() => limits, [key]);
  const links = job?.links;
  const jobId = job?.job.id;
  useEffect(() => {
    if (!on || links === undefined || jobId === undefined) {
      setState(OFF);
      return;
    }
    const worker = new Worker("/workers/rack.worker.js");
    const remote = wrap<RackWorker>(worker) as Remote<RackWorker>;
    let gone = false;
    findOneType(links, asked, hardware, {
      read: (linkId) => readOtherLink(jobId, linkId, hardware),
      serving: async (profile, request) => {
        await (remote.open as unknown as (p: PathProfile, h: HardwareDto) => Promise<void>)(profile, hardware);
        return (await remote.serving(request)) as Awaited<ReturnType<RackWorker["serving"]>>;
      },
      onProgress: (done, total) => {
        if (!gone) setState((s) => ({ ...s, progress: { done, total }, fault: null }));
      },
      isGone: () => gone,
    })
      .then((found) => {
        if (found !== null && !gone) setState({ found, progress: null, fault: null });
      })
      .catch((error: unknown) => {
        if (!gone) setState({ ...OFF, fault: errorSentence(bodyOf(error), units) });
      })
      .finally(() => worker.terminate());
    return () => {
      gone = true;
      worker.terminate();
    };
  }, [on, links, jobId, asked, hardware, units]);
  return state;
};
