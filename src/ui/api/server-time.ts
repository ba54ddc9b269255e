/* How far this device's clock is ahead of the server's, as their last meeting showed. A phone's clock may be hours wrong, and it may be offline. */

const KEY = "dry-arc.ahead-s";
/** The server tells whole seconds, and an answer takes a while. */
const NOISE_S = 3;

let ahead: number | null | undefined;

/** @param date what an answer of the server says of its time. */
export const noteServerTime = (date: string | null, nowMs: number = Date.now()): void => {
  const serverMs = date === null ? Number.NaN : Date.parse(date);
  if (Number.isNaN(serverMs)) return;
  const off = (nowMs - serverMs) / 1000;
  const next = Math.abs(off) <= NOISE_S ? 0 : Math.round(off);
  if (ahead !== undefined && ahead !== null && Math.abs(ahead - next) <= NOISE_S) return;
  ahead = next;
  try {
    localStorage.setItem(KEY, String(next));
  } catch {
    // Storage that is full or shut: it is known while this window lives.
  }
};

/** Seconds; null while this device never met the server. */
export const aheadOfServerS = (): number | null => {
  if (ahead === undefined) {
    try {
      const kept = localStorage.getItem(KEY);
      ahead = kept === null || !Number.isFinite(Number(kept)) ? null : Number(kept);
    } catch {
      ahead = null;
    }
  }
  return ahead;
};
