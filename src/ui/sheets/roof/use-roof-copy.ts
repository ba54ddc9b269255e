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
}

export const roofPath = (jobId: string, linkId: string): string => `/api/jobs/${jobId}/links/${linkId}/roof`;

/** Pages of a link's pack as a phone takes them along. */
export const pagesPath = (jobId: string, linkId: string, units: string): string =>
  `/api/jobs/${jobId}/pack?link=${linkId}&for=installer&paper=a4&units=${units}`;

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
    const ids = all.split(" ");
    const read = async (): Promise<void> => {
      // What is read before it stands between is not kept.
      if ("serviceWorker" in navigator && window.isSecureContext && process.env.NODE_ENV === "production")
        await Promise.race([navigator.serviceWorker.ready, new Promise((go) => setTimeout(go, 4000))]);
      let without = 0;
      for (const [i, id] of ids.entries()) {
        if (ending.signal.aborted) return;
        setCopy({ done: i, of: ids.length, without });
        try {
          const made = await getJson<RoofDto>(roofPath(jobId, id), ending.signal);
          client.setQueryData([...keys.roofLink(jobId), id], made);
          await getJson(pagesPath(jobId, id, units), ending.signal);
        } catch {
          without++;
        }
      }
      if (!ending.signal.aborted) setCopy({ done: ids.length, of: ids.length, without });
    };
    void read();
    return () => ending.abort();
  }, [all, jobId, units, client]);
  return copy;
};
