import { deafPairs, type HearingRemote, type HubRemote, patternOfUnit, seenFromHub, shapeOfUnit } from "@/core/hub";

/** Remotes of a sector that cannot hear each other even in the open; null where there are fewer than two. */
export const deafOf = (remotes: readonly HubRemote[], centreMhz: number, widthMhz: number): ReturnType<typeof deafPairs> | null => {
  const known = remotes.flatMap((r): HearingRemote[] => {
    const own = r.hubIsNear ? r.plan.far : r.plan.near;
    const pattern = patternOfUnit(own, centreMhz);
    const shape = shapeOfUnit(own);
    if (pattern === null || shape === null) return [];
    const seen = seenFromHub(r);
    return [
      {
        linkId: r.linkId,
        bearingDeg: seen.bearingDeg,
        distanceM: seen.distanceM,
        powerDbm: own.txPowerDbm,
        gainDbi: shape.gainDbi,
        relativeDb: (off) => pattern.relativeDb(off, 0),
      },
    ];
  });
  return known.length < 2 ? null : deafPairs(known, centreMhz, widthMhz);
};
