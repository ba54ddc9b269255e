import type { RelayDto } from "@/contract";

/** A site by its name; ground on what is named, or so far from it. */
export const relayName = (r: RelayDto): string =>
  r.siteId !== null ? (r.name ?? "") : r.name === null ? "High ground" : /^\d/.test(r.name) ? r.name : `On ${r.name}`;
