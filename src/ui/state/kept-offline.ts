"use client";
import { useEffect, useSyncExternalStore } from "react";
import { keepBy } from "./keeping";

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
