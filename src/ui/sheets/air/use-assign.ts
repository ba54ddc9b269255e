"use client";
import { proxy, type Remote, wrap } from "comlink";
import { useCallback, useEffect, useRef, useState } from "react";
import type { AirBuilt, AirFields } from "@/contract";
import type { Assignment, Move } from "@/core/air";
import type { AirWorker, AssignRequest } from "@/workers/messages";

/** Asked for when nothing has moved for so long. */
const STILL_MS = 400;
/** The search ends by itself after so long, and says how sure it is. */
export const BUDGET_MS = 2000;

export interface AssignState {
  readonly found: Assignment | null;
  readonly moves: readonly Move[] | null;
  readonly busy: boolean;
  readonly share: number;
  readonly stopped: boolean;
  readonly failed: boolean;
}

const NONE: AssignState = { found: null, moves: null, busy: false, share: 0, stopped: false, failed: false };

const requestOf = (built: AirBuilt, fields: Pick<AirFields, "widths" | "radar">): AssignRequest => {
  const { field, units, others, heard, always } = built.job;
  return { field: field.packed(), units, others, heard, always, widths: fields.widths, radar: fields.radar, budgetMs: BUDGET_MS };
};

/**
 * Channels proposed for the whole job, and the single moves that help one unit most, worked out beside the page. A new question
 * ends the old one with its worker. @param unitId the unit that is worst off; null for none.
 */
export const useAssign = (
  built: AirBuilt,
  fields: Pick<AirFields, "widths" | "radar">,
  unitId: string | null,
): AssignState & { readonly stop: () => void; readonly again: () => void } => {
  const [state, setState] = useState<AssignState>(NONE);
  const worker = useRef<Worker | null>(null);
  const [asked, setAsked] = useState(0);
  const { widths, radar } = fields;
  // biome-ignore lint/correctness/useExhaustiveDependencies: "asked" asks again
  useEffect(() => {
    if (built.job.units.length === 0) {
      setState(NONE);
      return;
    }
    let gone = false;
    const run = async (): Promise<void> => {
      worker.current = new Worker("/workers/air.worker.js");
      const remote = wrap<AirWorker>(worker.current) as Remote<AirWorker>;
      const request = requestOf(built, { widths, radar });
      setState((s) => ({ ...s, busy: true, share: 0, stopped: false, failed: false }));
      const found = await (remote.assign as unknown as (q: AssignRequest, told: unknown) => Promise<Assignment>)(
        request,
        proxy((share: number) => {
          if (!gone) setState((s) => ({ ...s, share: Math.min(1, share) }));
        }),
      );
      if (gone) return;
      setState((s) => ({ ...s, found, busy: unitId !== null }));
      if (unitId === null) return;
      const moves = await (remote.moves as unknown as (q: AssignRequest, id: string) => Promise<readonly Move[]>)(request, unitId);
      if (!gone) setState((s) => ({ ...s, moves, busy: false }));
    };
    setState((s) => ({ ...s, found: null, moves: null, busy: true, share: 0, stopped: false }));
    const timer = setTimeout(() => {
      run().catch(() => {
        if (!gone) setState({ ...NONE, failed: true });
      });
    }, STILL_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
      worker.current?.terminate();
      worker.current = null;
    };
  }, [built, widths, radar, unitId, asked]);
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setState((s) => ({ ...s, busy: false, stopped: true }));
  }, []);
  return { ...state, stop, again: () => setAsked((n) => n + 1) };
};
