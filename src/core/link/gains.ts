/* Gains and losses of one direction around the air: antennas, aim, cables, walls, near field, polarisation. */
import { type BarrierLoss, barrierLoss } from "../propagation";
import { matchPolarisation, type PolarisationMatch } from "../radio";
import { aimLossDb, gainOf, nearFieldOf, polarisationOf } from "./end-gear";
import type { PathState } from "./path-state";
import type { EndPlan, LinkPlan } from "./types";

export interface Gains {
  readonly outBearingDeg: number;
  readonly inBearingDeg: number;
  readonly outTiltDeg: number;
  readonly inTiltDeg: number;
  readonly barrierOut: BarrierLoss | null;
  readonly barrierIn: BarrierLoss | null;
  readonly chainsDb: number;
  readonly aimOutDb: number;
  readonly aimInDb: number;
  readonly nearFieldDb: number;
  readonly polarisation: PolarisationMatch;
  /** All of them together, dB; the air's own loss is not in it. */
  readonly totalDb: number;
}

/** What does not depend on the level. Turned round, all of it is the same but for the transmitter's chains. */
export const gainsAround = (plan: LinkPlan, tx: EndPlan, rx: EndPlan, state: PathState): Gains => {
  const { profile } = state.path;
  const near = tx === plan.near;
  const outBearingDeg = near ? profile.nearBearingDeg : profile.farBearingDeg;
  const inBearingDeg = near ? profile.farBearingDeg : profile.nearBearingDeg;
  const outTiltDeg = near ? state.nearTiltDeg : state.farTiltDeg;
  const inTiltDeg = near ? state.farTiltDeg : state.nearTiltDeg;
  const frequencyGhz = plan.centreMhz / 1000;
  const barrierOut = tx.barrier === null ? null : barrierLoss(tx.barrier, frequencyGhz);
  const barrierIn = rx.barrier === null ? null : barrierLoss(rx.barrier, frequencyGhz);
  const chainsDb = 10 * Math.log10(tx.radio.chains);
  const aimOutDb = aimLossDb(state.path, tx, outBearingDeg, outTiltDeg);
  const aimInDb = aimLossDb(state.path, rx, inBearingDeg, inTiltDeg);
  const nearFieldDb = nearFieldOf(plan, state.rayM, state.path.wavelengthM);
  const polarisation = matchPolarisation(polarisationOf(tx), polarisationOf(rx));
  const cablesDb = tx.feederLossDb + tx.connectorLossDb + rx.feederLossDb + rx.connectorLossDb;
  const barriersDb = (barrierOut?.medianDb ?? 0) + (barrierIn?.medianDb ?? 0);
  return {
    outBearingDeg,
    inBearingDeg,
    outTiltDeg,
    inTiltDeg,
    barrierOut,
    barrierIn,
    chainsDb,
    aimOutDb,
    aimInDb,
    nearFieldDb,
    polarisation,
    totalDb: gainOf(tx) + gainOf(rx) + aimOutDb + aimInDb - chainsDb - cablesDb - barriersDb - nearFieldDb - polarisation.lossDb,
  };
};
