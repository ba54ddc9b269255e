"use client";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { keys, useRefresh } from "../api/queries";
import { clientId } from "./client-id";

const SETTLE_MS = 120;

/**
 * Follows what others change in a job, and what the queue does: everything read of it is read again. While nobody listened
 * things may have changed too: what was read before is read again as soon as the line is open.
 * @param onOthers called when somebody else changed something.
 */
export const useJobNews = (jobId: string, onOthers: () => void = () => undefined): void => {
  const refresh = useRefresh();
  const client = useQueryClient();
  const call = useRef({ refresh, onOthers });
  call.current = { refresh, onOthers };
  useEffect(() => {
    const source = new EventSource(`/api/jobs/${jobId}/events?client=${clientId()}`);
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
      if (timer !== null) clearTimeout(timer);
    };
  }, [jobId, client]);
};
