/* What two radios at one width carry and need, whatever the antennas, the channel and the power: made once. */
import { airtimeOf, type EndPlan, type LadderRung, type LinkPlan, ladderOf, MOST_POWER_DBM, PACKET_ERROR_HELD } from "../link";
import { noiseFloorDbm, noiseRiseDb, plannedRateMbps } from "../radio";

export interface TemplateRung {
  readonly index: number;
  readonly modulation: string;
  readonly needsDbm: number;
  readonly ceilingDbm: number;
  readonly mostPowerDbm: number;
  readonly plannedMbps: number;
}

export interface TemplateWay {
  readonly rungs: readonly TemplateRung[];
  readonly portMbps: number;
  readonly shared: boolean;
}

/** @param rayM length of the ray; @param plan with both ends and the width in question; @param tx one of its ends. */
export const templateOf = (plan: LinkPlan, tx: EndPlan, rx: EndPlan, rayM: number): TemplateWay => {
  const { throughput, freeShare } = plan.policy;
  const riseDb = noiseRiseDb(noiseFloorDbm(plan.widthMhz, rx.radio.noiseFigureDb), rx.interferenceDbm);
  const rates = ladderOf(plan, tx, rx, MOST_POWER_DBM, 0, riseDb).map((rung: LadderRung) => ({
    rung,
    airtime: airtimeOf(plan, tx, rx, rayM, rung, PACKET_ERROR_HELD),
  }));
  return {
    rungs: rates.map(({ rung, airtime }) => ({
      index: rung.index,
      modulation: `${rung.modulation} ${rung.codeRate}`.trim(),
      needsDbm: rung.needsDbm,
      ceilingDbm: rung.ceilingDbm,
      mostPowerDbm: rung.txPowerDbm,
      plannedMbps: plannedRateMbps(throughput, rung.phyRateMbps, airtime.airTcpMbps, freeShare),
    })),
    portMbps: rates[0]?.airtime.portTcpMbps ?? 0,
    shared: rates[0]?.airtime.sharedAirtime ?? true,
  };
};
