"use client";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import type { HereDto, OpenSheet } from "@/contract";
import { keys, useRefresh } from "../api/queries";
import { clientId } from "./client-id";

const SETTLE_MS = 120;

/**
 * Follows what others change in a job, and what the queue does: everything read of it is read again. While nobody listened
 * things may have changed too: what was read before is read again as soon as the line is open.
 * @param sheet the one that is open here: others are shown it. @param onOthers called when somebody else changed something.
 */
export const useJobNews = (jobId: string, sheet: OpenSheet, onOthers: () => void = () => undefined): void => {
  const refresh = useRefresh();
  const client = useQueryClient();
  const call = useRef({ refresh, onOthers });
  call.current = { refresh, onOthers };
  useEffect(() => {
    const source = new EventSource(`/api/jobs/${jobId}/events?client=${clientId()}&sheet=${sheet}`);
    let timer: ReturnType<typeof setTimeout> | null = null;
    let whole = false;
    const cameAtMs = Date.now();
    let wasOpen = false;
    source.onopen = () => {
      if (wasOpen) {
        void call.current.refresh(jobId);
        call.current.onOthers();
      } else void client.invalidateQueries({ predicate: (q) => q.state.dataUpdatedAt > 0 && q.state.dataUpdatedAt < cameAtMs });
      wasOpen = true;
    };
    source.addEventListener("here", (event) => client.setQueryData(keys.here(jobId), JSON.parse(event.data as string)));
    source.onerror = () => client.setQueryData(keys.here(jobId), []);
    source.onmessage = (event) => {
      const news = JSON.parse(event.data as string) as { entity: string; own: boolean; byPerson: boolean };
      // One's own edits are read again where they are made; an import ends in another process.
      if (news.own && news.entity !== "import") return;
      if (news.entity === "verdict") {
        void client.invalidateQueries({ queryKey: keys.verdicts(jobId) });
        void client.invalidateQueries({ queryKey: keys.jobs });
        return;
      }
      // Progress of an import touches only the list of imports.
      whole ||= news.entity !== "import" || news.byPerson;
      timer ??= setTimeout(() => {
        timer = null;
        if (whole) {
          whole = false;
          void call.current.refresh(jobId);
          call.current.onOthers();
        } else void client.invalidateQueries({ queryKey: keys.imports(jobId) });
      }, SETTLE_MS);
    };
    return () => {
      source.close();
      client.setQueryData(keys.here(jobId), []);
      if (timer !== null) clearTimeout(timer);
    };
  }, [jobId, sheet, client]);
};

/** Who else has the job open, as the line of news says; nobody while it is closed. */
export const useHere = (jobId: string): readonly HereDto[] =>
  useQuery<readonly HereDto[]>({ queryKey: keys.here(jobId), enabled: false, initialData: [], staleTime: Number.POSITIVE_INFINITY }).data;
