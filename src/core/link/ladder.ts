import { ceilingDbm, commonTable, type Modulation } from "../radio";
import type { EndPlan, LadderRung, LinkPlan } from "./types";

const rowOf = (rows: readonly Modulation[], index: number): Modulation | undefined =>
  rows[index]?.index === index ? rows[index] : rows.find((m) => m.index === index);

/**
 * The receiver's modulations with the level each would have: power backs off as modulation rises,
 * interference lifts what each needs by its rise of the noise.
 */
export const ladderOf = (plan: LinkPlan, tx: EndPlan, rx: EndPlan, setPowerDbm: number, fixedDb: number, riseDb: number): LadderRung[] => {
  const width = String(plan.widthMhz);
  const table = commonTable(tx.radio, rx.radio);
  const streams = Math.min(tx.radio.maxStreamsPerRemote, rx.radio.maxStreamsPerRemote, tx.radio.chains, rx.radio.chains);
  const rungs: LadderRung[] = [];
  for (const row of table.modulations) {
    const own = rowOf(tx.radio.modulations, row.index);
    const receives = rowOf(rx.radio.modulations, row.index);
    const sensitivityDbm = receives?.sensitivityDbm[width];
    const rate = row.phyRateMbps[width];
    if (own === undefined || receives === undefined || sensitivityDbm === undefined || rate === undefined) continue;
    const needsDbm = sensitivityDbm + riseDb;
    const txPowerDbm = Math.min(setPowerDbm, own.maxTxPowerDbm);
    const levelDbm = txPowerDbm + fixedDb;
    const ceiling = ceilingDbm(rx.radio, receives);
    const marginDb = levelDbm - needsDbm;
    const state =
      levelDbm > ceiling.plannedDbm ? "too-strong" : marginDb >= plan.policy.marginDb ? "holds" : marginDb >= 0 ? "thin" : "below";
    rungs.push({
      index: row.index,
      modulation: row.modulation,
      codeRate: row.codeRate,
      needsDbm,
      ceilingDbm: ceiling.plannedDbm,
      ceilingMildDbm: ceiling.mildDbm,
      levelDbm,
      txPowerDbm,
      marginDb,
      // The table's rate is with all of its streams; a four-chain hub serves one remote with two.
      phyRateMbps: (rate * Math.min(streams, table.maxStreams)) / table.maxStreams,
      state,
    });
  }
  return rungs;
};

/** The fastest rung that holds with the wanted margin; failing that, the slowest that holds at all. */
export const pickRung = (ladder: LadderRung[]): { held: LadderRung | null; heldWithMargin: boolean } => {
  let held: LadderRung | null = null;
  for (const r of ladder) if (r.state === "holds" && (held === null || r.phyRateMbps > held.phyRateMbps)) held = r;
  const heldWithMargin = held !== null;
  if (held === null) held = ladder.find((r) => r.state === "thin") ?? null;
  if (held === null) return { held: null, heldWithMargin: false };
  const at = ladder.indexOf(held);
  ladder[at] = { ...held, state: "held" };
  return { held: ladder[at]!, heldWithMargin };
};
