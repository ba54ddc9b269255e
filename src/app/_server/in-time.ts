const MOST_MS = 15_000;

/** Gives up when the asker leaves, or after a time no honest question takes. */
export const inTime = (request: Request): AbortSignal => AbortSignal.any([request.signal, AbortSignal.timeout(MOST_MS)]);
