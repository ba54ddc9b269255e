/* The design as planned now, as the rack shows it: its verdict is the link's, its rates are drawn like those of the others. */
import {
  decidingDraws,
  evaluatePrepared,
  type LinkPlan,
  type Observation,
  observe,
  type PathProfile,
  preparePath,
  type Verdict,
  verdictOf,
} from "../link";
import { type BandKey, bandKeyOf } from "../radio";
import { drawnAt, openDraws, withPowers } from "./draw";
import type { DrawnCandidate, UnitPair } from "./types";
import { faceOfPair, priceOf, unitOf } from "./units";
import { openWeigher } from "./weigh";

export interface Planned {
  readonly pair: UnitPair;
  readonly band: BandKey;
  readonly verdict: Verdict;
  /** What is found against it, worst first. */
  readonly found: readonly Observation[];
  readonly priceEur: number | null;
  readonly faceCm: number | null;
  /** Kept of the need; null while the radios do not pair or nothing can be drawn. */
  readonly drawn: DrawnCandidate | null;
  /** The same as expected, without draws; 0 when nothing is kept. */
  readonly multiple: number;
  readonly levelToFarDbm: number | null;
  readonly levelToNearDbm: number | null;
}

export const plannedCandidate = (plan: LinkPlan, profile: PathProfile): Planned => {
  const path = preparePath(plan, profile);
  const result = evaluatePrepared(plan, path);
  const { kept, toFar, toNear } = result.service;
  const doubt = kept !== null && kept.multiple >= 1 ? decidingDraws(plan, path) : null;
  const growthOf = (id: string): number => profile.bodies.find((b) => b.id === id)?.growthMPerYear ?? 0;
  const found = observe(plan, result, growthOf, doubt === null ? null : { serves: doubt.probabilityServes });
  const pair = { key: "planned", near: unitOf(plan.near.radio, plan.near.antenna), far: unitOf(plan.far.radio, plan.far.antenna) };
  const asked = (plan.needToFarMbps ?? 0) + (plan.needToNearMbps ?? 0);
  const option = toFar === null || asked === 0 ? null : openWeigher(plan, profile).option(pair, plan.widthMhz, plan.centreMhz);
  return {
    pair,
    band: bandKeyOf(plan.centreMhz),
    verdict: verdictOf(found),
    found,
    priceEur: priceOf(pair),
    faceCm: faceOfPair(pair),
    drawn:
      option === null
        ? null
        : drawnAt(
            withPowers(option, plan.near.txPowerDbm, plan.far.txPowerDbm),
            plan.near.txPowerDbm,
            plan.far.txPowerDbm,
            openDraws(option),
          ),
    multiple: kept?.multiple ?? 0,
    levelToFarDbm: toFar?.levelDbm ?? null,
    levelToNearDbm: toNear?.levelDbm ?? null,
  };
};
