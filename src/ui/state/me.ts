"use client";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { editsKind, kindOf, type MeDto, mayAsk, type Right, type SheetName, seesKind, seesPrices, VEILED_RIGHTS } from "@/contract";
import { getJson } from "../api/client";
import { setPerson } from "./person";

/* Who is here, and what is open to them. The server decides; this only spares what it would refuse. */

export const ME = ["me"] as const;

/** Asks who is here. Signed out, the window's edits are still those of who made them. */
export const askMe = async (signal?: AbortSignal): Promise<MeDto> => {
  const me = await getJson<MeDto>("/api/me", signal);
  if (me.person !== null) setPerson(me.person.id);
  return me;
};

export const useMeQuery = () => useQuery({ queryKey: ME, queryFn: ({ signal }) => askMe(signal), staleTime: 30_000 });

/** Who is here; null while that is not known, or nobody is. */
export const usePerson = (): MeDto["person"] => useMeQuery().data?.person ?? null;

export interface Open {
  /** May ask the server for something. */
  readonly asks: (right: Right) => boolean;
  readonly sees: (kind: string) => boolean;
  readonly edits: (kind: string) => boolean;
  /** A customer's sheets; null: all of them. */
  readonly sheets: readonly SheetName[] | null;
  readonly prices: boolean;
  /** All jobs of the firm, and so a new one too. */
  readonly allJobs: boolean;
  /** Nothing at all may be changed: said once, on every sheet. */
  readonly readsOnly: boolean;
}

const ALL: Open = { asks: () => true, sees: () => true, edits: () => true, sheets: null, prices: true, allJobs: true, readsOnly: false };

/** What is open to some person. Nobody known yet: everything, until the server says otherwise. */
export const openTo = (who: MeDto["person"]): Open =>
  who === null
    ? ALL
    : {
        asks: (right) => mayAsk(right, who.role, who.sheets) && (!who.identityOut || VEILED_RIGHTS.includes(right)),
        sees: (kind) => seesKind(kind, kindOf(kind), who.role, who.sheets),
        sheets: who.sheets,
        edits: (kind) => editsKind(kindOf(kind), who.role),
        prices: seesPrices(who.role),
        allJobs: who.allJobs,
        readsOnly: !mayAsk("edit-records", who.role, who.sheets),
      };

export const useOpen = (): Open => {
  const who = usePerson();
  return useMemo(() => openTo(who), [who]);
};
