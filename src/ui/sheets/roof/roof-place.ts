import { useCallback, useSyncExternalStore } from "react";
import type { End } from "@/core/roof";

/* Which end the page shows stands behind the hash: a reload without coverage comes back to it, and the page kept is one for all. */

export interface RoofPlace {
  readonly linkId: string;
  readonly end: End;
}

/** @param hash as an address has it; null for what names no end. */
export const placeOf = (hash: string): RoofPlace | null => {
  const m = /^#([0-9a-f-]{36})\/(near|far)$/.exec(hash);
  return m === null ? null : { linkId: m[1]!, end: m[2] as End };
};

const listen = (changed: () => void): (() => void) => {
  window.addEventListener("hashchange", changed);
  return () => window.removeEventListener("hashchange", changed);
};

export const useRoofPlace = (): readonly [RoofPlace | null, (to: RoofPlace | null) => void] => {
  const hash = useSyncExternalStore(
    listen,
    () => window.location.hash,
    () => "",
  );
  const go = useCallback((to: RoofPlace | null): void => {
    window.location.hash = to === null ? "" : `${to.linkId}/${to.end}`;
    window.scrollTo(0, 0);
  }, []);
  return [placeOf(hash), go];
};
