/*
 * Where a relay could stand: cells of a window of heights that both ends see over the ground, each with the mast it
 * needs for the policy on both legs. What stands on the ground is looked at afterwards, over exact profiles.
 */
import { f1RadiusM, groundApproach, makeRay } from "../obstacles";
import { type SurfaceWindow, viewshed } from "../terrain";

/** Nobody fixes a relay lower than this (ours). */
const LEAST_MAST_M = 3;
/** Ground no higher than this above the sea's level is water or washed by it (ours). */
const SHORE_M = 0.5;
/** Of each block of cells the one that needs the least mast is looked at. */
const BLOCK = 4;
const MOST_ANSWERS = 8;
const LEAST_APART_M = 300;
const APART_SHARE = 0.03;
const LEAST_LEG_M = 20;
const MET_WITHIN_M = 0.01;
const MOST_STEPS = 12;
const SEARCH_SHARE = 0.4;

export interface RelayEnd {
  readonly col: number;
  readonly row: number;
  readonly amslM: number;
}

export interface RelayQuestion {
  readonly window: SurfaceWindow;
  readonly near: RelayEnd;
  readonly far: RelayEnd;
  readonly mostMastM: number;
  readonly wavelengthM: number;
  readonly kFactor: number;
  readonly effectiveRadiusM: number;
  readonly policyShare: number;
}

export interface RelaySpot {
  readonly col: number;
  readonly row: number;
  readonly groundAmslM: number;
  /** Mast for the policy on both legs over the ground, metres. */
  readonly mastM: number;
  readonly nearLegM: number;
  readonly farLegM: number;
}

export interface RelayAnswer {
  /** Best first: a metre of mast weighs as much as a kilometre of the longer leg (ours). */
  readonly spots: readonly RelaySpot[];
  /** Cells looked at closely. */
  readonly lookedAt: number;
  /** Least mast that sees both ends anywhere in the window; null when no ground does within reach of a mast at all. */
  readonly leastMastM: number | null;
}

const NEVER = (): boolean => false;

const groundIn = (w: SurfaceWindow, col: number, row: number): number => {
  const c = Math.min(w.cols - 2, Math.max(0, Math.floor(col)));
  const r = Math.min(w.rows - 2, Math.max(0, Math.floor(row)));
  const [u, v] = [col - c, row - r];
  const at = r * w.cols + c;
  const s = w.surfaceAmslM;
  return (s[at]! * (1 - u) + s[at + 1]! * u) * (1 - v) + (s[at + w.cols]! * (1 - u) + s[at + w.cols + 1]! * u) * v;
};

/** Least mast at a cell for the policy on the leg to one end over the ground; null above the most. */
const mastForLeg = (q: RelayQuestion, end: RelayEnd, col: number, row: number, fromMastM: number): number | null => {
  const w = q.window;
  const cells = Math.hypot(col - end.col, row - end.row);
  const lengthM = cells * w.stepM;
  if (lengthM < LEAST_LEG_M) return null;
  const n = Math.max(3, Math.ceil(cells) + 1);
  const distanceM = new Float64Array(n);
  const groundAmslM = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const t = i / (n - 1);
    distanceM[i] = t * lengthM;
    groundAmslM[i] = groundIn(w, end.col + (col - end.col) * t, end.row + (row - end.row) * t);
    if (Number.isNaN(groundAmslM[i]!)) return null;
  }
  const ownM = groundIn(w, col, row);
  let mastM = fromMastM;
  for (let step = 0; step < MOST_STEPS; step++) {
    const ray = makeRay({
      pathM: lengthM,
      startM: 0,
      endM: lengthM,
      nearAmslM: end.amslM,
      farAmslM: ownM + mastM,
      wavelengthM: q.wavelengthM,
      kFactor: q.kFactor,
    });
    const worst = groundApproach(ray, distanceM, groundAmslM);
    if (worst === null) return mastM;
    const missM = (q.policyShare - worst.share) * Math.max(0.01, f1RadiusM(ray, worst.atM));
    if (missM <= MET_WITHIN_M) return mastM;
    const lever = worst.atM / lengthM;
    if (lever < 0.02) return null;
    mastM += missM / lever;
    if (!(mastM <= q.mostMastM)) return null;
  }
  return null;
};

/**
 * Spots for one relay between two ends, over the ground of a window.
 * @param onProgress called now and then with the share done. @param stopped asked now and then.
 */
export const relaySpots = (
  q: RelayQuestion,
  onProgress: (share: number) => void = () => undefined,
  stopped: () => boolean = NEVER,
): RelayAnswer => {
  const { window: w } = q;
  const { cols, rows, surfaceAmslM } = w;
  const seenFrom = (end: RelayEnd, base: number): Float32Array =>
    viewshed(w, end, q.effectiveRadiusM, (share) => onProgress(SEARCH_SHARE * (base + share / 2)));
  const fromNear = seenFrom(q.near, 0);
  const fromFar = seenFrom(q.far, 0.5);
  let leastMastM = Number.POSITIVE_INFINITY;
  const blocks: { at: number; mastM: number }[] = [];
  for (let br = 0; br < rows; br += BLOCK) {
    for (let bc = 0; bc < cols; bc += BLOCK) {
      let best = -1;
      let bestMastM = Number.POSITIVE_INFINITY;
      for (let r = br; r < Math.min(rows, br + BLOCK); r++) {
        for (let c = bc; c < Math.min(cols, bc + BLOCK); c++) {
          const at = r * cols + c;
          const ground = surfaceAmslM[at]!;
          if (!(ground > SHORE_M)) continue;
          const mastM = Math.max(fromNear[at]!, fromFar[at]!) - ground;
          if (mastM < bestMastM) {
            best = at;
            bestMastM = mastM;
          }
        }
      }
      if (best < 0) continue;
      if (bestMastM < leastMastM) leastMastM = bestMastM;
      if (bestMastM <= q.mostMastM) blocks.push({ at: best, mastM: bestMastM });
    }
  }
  const found: (RelaySpot & { readonly score: number })[] = [];
  const report = Math.max(1, blocks.length >> 5);
  for (let i = 0; i < blocks.length; i++) {
    if (i % report === 0) {
      onProgress(SEARCH_SHARE + (1 - SEARCH_SHARE) * (i / blocks.length));
      if (stopped()) break;
    }
    const { at } = blocks[i]!;
    const col = at % cols;
    const row = (at - col) / cols;
    const a = mastForLeg(q, q.near, col, row, LEAST_MAST_M);
    if (a === null) continue;
    const mastM = mastForLeg(q, q.far, col, row, a);
    if (mastM === null) continue;
    const nearLegM = Math.hypot(col - q.near.col, row - q.near.row) * w.stepM;
    const farLegM = Math.hypot(col - q.far.col, row - q.far.row) * w.stepM;
    const score = mastM + Math.max(nearLegM, farLegM) / 1000;
    found.push({ col, row, groundAmslM: surfaceAmslM[at]!, mastM, nearLegM, farLegM, score });
  }
  found.sort((a, b) => a.score - b.score);
  const apartM = Math.max(LEAST_APART_M, APART_SHARE * Math.hypot(q.near.col - q.far.col, q.near.row - q.far.row) * w.stepM);
  const spots: RelaySpot[] = [];
  for (const { score: _s, ...spot } of found) {
    if (spots.length === MOST_ANSWERS) break;
    if (spots.every((s) => Math.hypot(s.col - spot.col, s.row - spot.row) * w.stepM >= apartM)) spots.push(spot);
  }
  onProgress(1);
  return { spots, lookedAt: blocks.length, leastMastM: Number.isFinite(leastMastM) ? Math.max(0, leastMastM) : null };
};
