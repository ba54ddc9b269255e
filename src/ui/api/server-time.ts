/* How far this device's clock is ahead of the server's, as their last meeting in this window showed. A phone's clock may be hours wrong. */

/** The server tells whole seconds, and an answer takes a while. */
const NOISE_S = 3;

let ahead: number | null = null;

/** @param date what an answer of the server says of its time. */
export const noteServerTime = (date: string | null, nowMs: number = Date.now()): void => {
  const serverMs = date === null ? Number.NaN : Date.parse(date);
  if (Number.isNaN(serverMs)) return;
  const off = (nowMs - serverMs) / 1000;
  const next = Math.abs(off) <= NOISE_S ? 0 : Math.round(off);
  if (ahead === null || Math.abs(ahead - next) > NOISE_S) ahead = next;
};

/** Seconds; null while this window has not met the server. */
export const aheadOfServerS = (): number | null => ahead;
