/* How much of the need two ways keep together: the rule of `kept`, for rates that are known. */

const shareOf = (needMbps: number, mbps: number): number => (needMbps === 0 ? 0 : mbps <= 0 ? Number.POSITIVE_INFINITY : needMbps / mbps);

/** @returns the multiple of both needs at once; infinite when nothing is asked. */
export const multipleOf = (
  needFarMbps: number,
  needNearMbps: number,
  farMbps: number,
  nearMbps: number,
  shared: boolean,
  portFarMbps: number,
  portNearMbps: number,
): number => {
  const far = shareOf(needFarMbps, farMbps);
  const near = shareOf(needNearMbps, nearMbps);
  const air = shared ? far + near : Math.max(far, near);
  return 1 / Math.max(air, shareOf(needFarMbps, portFarMbps), shareOf(needNearMbps, portNearMbps));
};
