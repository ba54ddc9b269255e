"use client";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { RoofDto } from "@/contract";
import { getJson } from "../../api/client";
import { keys } from "../../api/queries";

/** How far the copy on this phone is. */
export interface RoofCopy {
  readonly done: number;
  readonly of: number;
  /** Links that the server has nothing for, or that could not be read. */
  readonly without: number;
  /** False where this browser keeps nothing for a place without coverage. */
  readonly keeps: boolean;
}

export const roofPath = (jobId: string, linkId: string): string => `/api/jobs/${jobId}/links/${linkId}/roof`;

/** Pages of a link's pack as a phone takes them along. */
export const pagesPath = (jobId: string, linkId: string, units: string): string =>
  `/api/jobs/${jobId}/pack?link=${linkId}&for=installer&paper=a4&units=${units}`;

const PATIENCE_MS = 10_000;
const LOOK_AGAIN_MS = 200;

/** Waits until something is so. @returns false where it is not in time. */
const until = async (is: () => boolean | Promise<boolean>, signal: AbortSignal): Promise<boolean> => {
  const from = Date.now();
  while (!signal.aborted && Date.now() - from < PATIENCE_MS) {
    if (await is()) return true;
    await new Promise((go) => setTimeout(go, LOOK_AGAIN_MS));
  }
  return false;
};
const isHeld = async (path: string): Promise<boolean> => (await caches.match(path)) !== undefined;

/**
 * Reads all that the roof needs of each link, one after the other, so that it is here when there is no coverage: the worker that
 * stands between keeps what is read.
 */
export const useRoofCopy = (jobId: string, linkIds: readonly string[] | null, units: string): RoofCopy | null => {
  const client = useQueryClient();
  const [copy, setCopy] = useState<RoofCopy | null>(null);
  const all = linkIds?.join(" ") ?? null;
  useEffect(() => {
    if (all === null || all === "") return;
    const ending = new AbortController();
    const { signal } = ending;
    const ids = all.split(" ");
    const read = async (): Promise<void> => {
      const may = "serviceWorker" in navigator && window.isSecureContext && process.env.NODE_ENV === "production";
      // What is read before it stands between is not kept.
      const stands = may && (await until(() => navigator.serviceWorker.controller !== null, signal));
      let without = 0;
      for (const [i, id] of ids.entries()) {
        if (signal.aborted) return;
        setCopy({ done: i, of: ids.length, without, keeps: true });
        try {
          const made = await getJson<RoofDto>(roofPath(jobId, id), signal);
          client.setQueryData([...keys.roofLink(jobId), id], made);
          await getJson(pagesPath(jobId, id, units), signal);
          // It is said to be here once it is.
          if (stands && !(await until(() => isHeld(roofPath(jobId, id)), signal))) without++;
        } catch {
          without++;
        }
      }
      const keeps =
        stands && (await until(async () => (await isHeld(`/jobs/${jobId}/roof`)) && (await isHeld(`/api/jobs/${jobId}`)), signal));
      if (!signal.aborted) setCopy({ done: ids.length, of: ids.length, without, keeps });
    };
    void read();
    return () => ending.abort();
  }, [all, jobId, units, client]);
  return copy;
};
