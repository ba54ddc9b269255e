"use client";
import { useEffect, useSyncExternalStore } from "react";
import { useIsKept } from "../api/kept";
import { useRefresh } from "../api/queries";
import { keepBy } from "./keeping";
import { KEPT_PAGE, noteKept } from "./kept-jobs";

const WORKER = "/workers/offline.worker.js";

/** Keeps a page and what it reads for a place without coverage. @param addresses of page and data; null until what the page reads has been read. */
export const useKeptOffline = (addresses: readonly string[] | null): void => {
  const all = addresses?.join("\n") ?? null;
  useEffect(() => {
    // While it is being developed a file's name does not hold its content.
    if (all === null || process.env.NODE_ENV !== "production" || !("serviceWorker" in navigator)) return;
    const keep = async (may: () => boolean): Promise<void> => {
      const made = await navigator.serviceWorker.register(WORKER, { scope: "/jobs/" });
      // Forgotten meanwhile: what was ended is not to come back by this.
      if (!may()) return void (await made.unregister());
      const { active } = await navigator.serviceWorker.ready;
      if (!may()) return;
      const code = performance
        .getEntriesByType("resource")
        .map((e) => e.name)
        .filter((name) => name.includes("/_next/static/"));
      active?.postMessage({ keep: [...all.split("\n"), ...code] });
    };
    // A browser that keeps nothing (a private window, a plain address in a network) still shows the page while it is connected.
    keepBy(keep).catch(() => undefined);
  }, [all]);
};

/** Keeps the page of a job and what it reads, and lists the job among those that this device has with it. @param name undefined until it was read. */
export const useKeptJob = (jobId: string, name: string | undefined, isFresh: boolean, addresses: readonly string[]): void => {
  useKeptOffline(name === undefined ? null : [KEPT_PAGE, `/api/jobs/${jobId}`, `/api/jobs/${jobId}/photos`, ...addresses]);
  useEffect(() => {
    if (name !== undefined && isFresh) noteKept({ id: jobId, name, atMs: Date.now() });
  }, [jobId, name, isFresh]);
};

/** While what is shown is only what was kept, the server is asked this often. */
const ASK_AGAIN_MS = 5000;

/** Whether a job is shown as it was kept; it is asked for again until the server answers. */
export const useAskedAgain = (jobId: string): boolean => {
  const isKept = useIsKept(`/api/jobs/${jobId}`);
  const refresh = useRefresh();
  useEffect(() => {
    if (!isKept) return;
    const timer = setInterval(() => void refresh(jobId), ASK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [isKept, jobId, refresh]);
  return isKept;
};

const listen = (changed: () => void): (() => void) => {
  window.addEventListener("online", changed);
  window.addEventListener("offline", changed);
  return () => {
    window.removeEventListener("online", changed);
    window.removeEventListener("offline", changed);
  };
};

/** Whether the device says that it is connected. */
export const useConnected = (): boolean =>
  useSyncExternalStore(
    listen,
    () => navigator.onLine,
    () => true,
  );
