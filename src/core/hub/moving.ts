/*
 * Clients of an old hub moved to a new one: in which order, so that most are served at each step (ours). One is without service
 * while it is moved; one that the new hub does not serve, or whose air would then be over, stays where it is until that is mended.
 */

export interface MovingClient {
  readonly linkId: string;
  readonly sectorId: string;
  /** The new hub keeps its need by itself. */
  readonly isServed: boolean;
  /** Of the sector's air, what it takes. */
  readonly airShare: number;
  /** How well it is served, as its need's multiple: the surest goes first, so that what is learnt costs least. */
  readonly multiple: number;
}

export interface MovingStep {
  readonly linkId: string;
  /** Clients with service while this one is moved, and after. */
  readonly servedDuring: number;
  readonly servedAfter: number;
  /** The new sector's air after the step. */
  readonly airAfter: number;
}

export interface MovingPlan {
  readonly steps: readonly MovingStep[];
  /** Not moved yet, with the reason. */
  readonly stay: readonly { readonly linkId: string; readonly why: "not served" | "air over" }[];
}

/**
 * @param mayUse of each sector's air.
 * @returns as many as can be moved so that nobody is worse off; of those the surest first, then the one that takes least air.
 */
export const movingOrder = (clients: readonly MovingClient[], mayUse: number): MovingPlan => {
  const used = new Map<string, number>();
  const steps: MovingStep[] = [];
  const stay: MovingPlan["stay"][number][] = clients
    .filter((c) => !c.isServed)
    .map((c) => ({ linkId: c.linkId, why: "not served" as const }));
  // Least air first takes in the most of a sector; how sure each is decides only when.
  const fits: MovingClient[] = [];
  for (const c of clients.filter((x) => x.isServed).sort((a, b) => a.airShare - b.airShare || b.multiple - a.multiple)) {
    const air = (used.get(c.sectorId) ?? 0) + c.airShare;
    if (air > mayUse + 1e-9) stay.push({ linkId: c.linkId, why: "air over" });
    else {
      used.set(c.sectorId, air);
      fits.push(c);
    }
  }
  const air = new Map<string, number>();
  for (const c of fits.sort((a, b) => b.multiple - a.multiple || a.airShare - b.airShare)) {
    air.set(c.sectorId, (air.get(c.sectorId) ?? 0) + c.airShare);
    steps.push({ linkId: c.linkId, servedDuring: clients.length - 1, servedAfter: clients.length, airAfter: air.get(c.sectorId)! });
  }
  return { steps, stay };
};
