/* What else the same path would give: every width, or any list of radios, without tracing the path again. */
import { resultOf } from "./evaluate";
import type { PathState } from "./path-state";
import { reflectionSummary } from "./reflection-summary";
import type { LinkPlan, Verdict } from "./types";

export interface WidthRow {
  readonly widthMhz: number;
  readonly levelDbm: number | null;
  readonly snrDb: number | null;
  readonly modulation: string | null;
  readonly codeRate: string | null;
  readonly airMbps: number;
  readonly usableMbps: number;
  readonly plannedMbps: number;
  /** Spectrum the channel takes, MHz. */
  readonly lowMhz: number;
  readonly highMhz: number;
  readonly allowed: boolean;
  readonly verdict: Verdict;
}

/** Both directions' worse figures at each width the two radios share. */
export const widthSweep = (plan: LinkPlan, state: PathState): WidthRow[] => {
  // The reflected ray is the path's: the same at every width.
  const reflection = reflectionSummary(plan, state);
  const shared = plan.near.radio.channelWidthsMhz.filter((w) => plan.far.radio.channelWidthsMhz.includes(w));
  return [...shared]
    .sort((a, b) => a - b)
    .map((widthMhz) => {
      const { service } = resultOf({ ...plan, widthMhz }, state, false, reflection);
      const { toFar, toNear } = service;
      const slow = toFar !== null && toNear !== null && toNear.plannedMbps < toFar.plannedMbps ? toNear : toFar;
      return {
        widthMhz,
        levelDbm: slow?.levelDbm ?? null,
        snrDb: slow?.snrDb ?? null,
        modulation: slow?.held?.modulation ?? null,
        codeRate: slow?.held?.codeRate ?? null,
        airMbps: slow?.held?.phyRateMbps ?? 0,
        usableMbps: slow?.airtime?.tcpMbps ?? 0,
        plannedMbps: slow?.plannedMbps ?? 0,
        lowMhz: plan.centreMhz - widthMhz / 2,
        highMhz: plan.centreMhz + widthMhz / 2,
        allowed: toFar?.regulation.status === "allowed" && toNear?.regulation.status === "allowed",
        verdict: service.verdict,
      };
    });
};
