"use client";
import { useEffect, useSyncExternalStore } from "react";

const WORKER = "/workers/offline.worker.js";

/** Keeps this page for a place without coverage. @param ready once what the page reads has been read. */
export const useKeptOffline = (jobId: string, ready: boolean): void => {
  useEffect(() => {
    // While it is being developed a file's name does not hold its content.
    if (!ready || process.env.NODE_ENV !== "production" || !("serviceWorker" in navigator)) return;
    const keep = async (): Promise<void> => {
      await navigator.serviceWorker.register(WORKER, { scope: "/jobs/" });
      const { active } = await navigator.serviceWorker.ready;
      const code = performance
        .getEntriesByType("resource")
        .map((e) => e.name)
        .filter((name) => name.includes("/_next/static/"));
      active?.postMessage({ keep: [`/jobs/${jobId}/survey`, `/api/jobs/${jobId}`, `/api/jobs/${jobId}/photos`, ...code] });
    };
    // A browser that keeps nothing (a private window, a plain address in a network) still shows the page while it is connected.
    keep().catch(() => undefined);
  }, [jobId, ready]);
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
