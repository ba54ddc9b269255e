import type { WebhookDto } from "@/contract";

/** How calls to an address stand, in words. @param when a moment as it is told. */
export const callState = (
  h: Pick<WebhookDto, "paused" | "failures" | "lastAnswer" | "due" | "dropped" | "nextAt" | "lastOkAt">,
  when: (iso: string) => string,
): string => {
  const waits = h.due === 0 ? "" : `; ${h.due} ${h.due === 1 ? "change waits" : "changes wait"}`;
  const lost = h.dropped === 0 ? "" : `; ${h.dropped} waited for over a week and ${h.dropped === 1 ? "was" : "were"} never told`;
  const state = h.paused
    ? `given up after ${h.failures} ${h.failures === 1 ? "try" : "tries"}: ${h.lastAnswer}. Mend it, then call it now`
    : h.failures > 0
      ? `not taken: ${h.lastAnswer}; again ${when(h.nextAt)}`
      : h.lastOkAt === null
        ? "nothing to tell yet"
        : "all taken";
  return `${h.failures === 0 && h.due > 0 ? "being told" : state}${waits}${lost}`;
};
