/*
 * The verdict of a link is the worst of its findings and nothing else. This is the one place that decides; the
 * register, the sheet index, the ground, the section and the command line read it. docs/verdicts.md has every threshold.
 */
import type { FindingAbout, Observation } from "./finding-types";
import { observeClearance } from "./observe-clearance";
import { observeRules } from "./observe-rules";
import { observeService } from "./observe-service";
import type { LinkPlan, LinkResult, Verdict } from "./types";

const RANK: Readonly<Record<Verdict, number>> = { clear: 0, tight: 1, unknown: 2, short: 3 };
export const worseVerdict = (a: Verdict, b: Verdict): Verdict => (RANK[a] >= RANK[b] ? a : b);

/** What the draws say beside the quick sum, once they are there. */
export interface Drawn {
  /** Share of the draws in which the need is kept; null without a need. */
  readonly serves: number | null;
  /** How far below the expected level one case in ten lies, each way, dB (negative); for trying mends without drawing again. */
  readonly lowToFarDb?: number;
  readonly lowToNearDb?: number;
}

/** Everything that stands against a design, worst first, then what is worth knowing. @param growthOf metres a year of a body. */
export const observe = (plan: LinkPlan, result: LinkResult, growthOf: (bodyId: string) => number, drawn: Drawn | null): Observation[] =>
  [
    ...observeClearance(plan, result, growthOf),
    ...observeService(plan, result, drawn?.serves ?? null),
    ...observeRules(plan, result),
    ...result.notes,
  ].sort((a, b) => RANK[b.verdict] - RANK[a.verdict] || b.weight - a.weight);

/** The worst of what is observed, of all or of one side of it. */
export const verdictOf = (observations: readonly Pick<Observation, "verdict" | "about">[], about?: FindingAbout): Verdict =>
  observations.reduce<Verdict>((worst, o) => (about !== undefined && o.about !== about ? worst : worseVerdict(worst, o.verdict)), "clear");
