export const RAD_PER_DEG = Math.PI / 180;
export const DEG_PER_RAD = 180 / Math.PI;

/** Any angle as a bearing from 0 (included) to 360 (excluded) degrees. */
export const normaliseBearingDeg = (angleDeg: number): number => ((angleDeg % 360) + 360) % 360;
