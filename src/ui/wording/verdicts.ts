import type { Verdict } from "@/core/link";

export const VERDICT_WORD: Readonly<Record<Verdict, string>> = { clear: "Clear", tight: "Tight", short: "Short", unknown: "Unknown" };
export const VERDICT_ORDER: readonly Verdict[] = ["short", "tight", "unknown", "clear"];
