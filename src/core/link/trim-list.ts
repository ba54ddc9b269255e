/* What the policy asks of each tree in the zone: bodies do not bear on each other's clearance, so each stands alone. */
import type { BodyKind } from "../obstacles";
import { MET_WITHIN_M } from "./limits";
import { worstOfBodies, worstPlaceOf } from "./path-state";
import { type PreparedBody, type PreparedPath, withTrims } from "./prepare";
import type { LinkPlan, WorstPlace } from "./types";

const HEIGHT_WITHIN_M = 0.001;
/** Cuts are written down in centimetres, rounded so that the policy is met. */
const ROUND_M = 0.01;
/** Below this nothing of a tree is left to grow (ours). */
const STUMP_M = 0.3;
/** A tree that loses more than this share of its height seldom lives on: plan its removal (ours). */
const TOO_MUCH_SHARE = 1 / 3;

/** Whether a cut from one height to another is a removal in truth. */
export const meansRemoval = (nowM: number, toM: number): boolean => nowM - toM > TOO_MUCH_SHARE * nowM;

export interface TrimRow {
  readonly bodyId: string;
  readonly name: string;
  readonly kind: BodyKind;
  readonly atM: number;
  /** Height above ground today (after a trim already planned), and what it may be. */
  readonly nowM: number;
  readonly toM: number;
  readonly offM: number;
  /** What would do today, without a thought of growth. */
  readonly toTodayM: number;
  readonly growthMPerYear: number;
  /** The cut leaves a stump, or too little to live: removal is meant. */
  readonly removal: boolean;
}

export interface TrimList {
  readonly year: number;
  readonly rows: readonly TrimRow[];
  /** Trims of the plan with the whole list applied. */
  readonly trims: Readonly<Record<string, number>>;
  /** Worst place of that year once all is cut; what still lacks is no tree's. */
  readonly left: WorstPlace | null;
  readonly enough: boolean;
}

/** Greatest height above ground today that meets the policy in a year; null when not even a stump does. */
const allowedHeight = (plan: LinkPlan, path: PreparedPath, body: PreparedBody, nowM: number, year: number): number | null => {
  const miss = (heightM: number): number => {
    const cut: LinkPlan = { ...plan, trims: { ...plan.trims, [body.body.id]: heightM } };
    const own = withTrims({ ...path, bodies: [body], near: [body] }, cut).near;
    return worstOfBodies(cut, path, own, year)?.missM ?? Number.NEGATIVE_INFINITY;
  };
  if (miss(nowM) <= MET_WITHIN_M) return nowM;
  if (miss(STUMP_M) > MET_WITHIN_M) return null;
  let low = STUMP_M;
  let high = nowM;
  while (high - low > HEIGHT_WITHIN_M) {
    const mid = (low + high) / 2;
    if (miss(mid) <= MET_WITHIN_M) low = mid;
    else high = mid;
  }
  return Math.floor(low / ROUND_M + 1e-9) * ROUND_M;
};

/** All trees that stand in the policy's zone in a year, each with the height it may keep. */
export const trimList = (plan: LinkPlan, path: PreparedPath, year: number): TrimList => {
  const rows: TrimRow[] = [];
  const trims: Record<string, number> = { ...plan.trims };
  for (const b of path.near) {
    if (!b.vegetation) continue;
    const { id, name, kind, growthMPerYear, heightM } = b.body;
    const nowM = Math.min(plan.trims[id] ?? heightM, heightM);
    const worst = worstOfBodies(plan, path, [b], year);
    if (worst === null || worst.missM <= MET_WITHIN_M) continue;
    const toM = allowedHeight(plan, path, b, nowM, year) ?? 0;
    trims[id] = toM;
    const toTodayM = allowedHeight(plan, path, b, nowM, plan.policy.year) ?? 0;
    rows.push({
      bodyId: id,
      name,
      kind,
      atM: worst.atM,
      nowM,
      toM,
      offM: nowM - toM,
      toTodayM,
      growthMPerYear,
      removal: meansRemoval(nowM, toM),
    });
  }
  rows.sort((a, b) => b.offM - a.offM);
  const cut: LinkPlan = { ...plan, trims };
  const left = worstPlaceOf(cut, withTrims(path, cut), year);
  return { year, rows, trims, left, enough: left !== null && left.missM <= MET_WITHIN_M };
};
