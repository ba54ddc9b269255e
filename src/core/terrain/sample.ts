import { type PathFrame, planeProjection } from "../geo";
import { bilinearSampler, type TerrainGrid } from "./grid";
import { LEAST_GAP_M, MIN_STEP_M, NO_DATASET } from "./limits";
import { pathPositions, positionAt } from "./positions";

/** Step over ground that no dataset knows. */
const UNKNOWN_STEP_M = 30;

/** Bare ground along a path. Heights are AMSL in the datasets' vertical datum; NaN where unknown. */
export interface GroundProfile {
  readonly distanceM: Float64Array;
  readonly groundAmslM: Float64Array;
  /** Index into the datasets, NO_DATASET where none knows. */
  readonly datasetIndex: Uint8Array;
  /** True when points were left out to stay within MAX_PROFILE_POINTS. */
  readonly thinned: boolean;
}

/**
 * Samples a path: the finest dataset that knows a place wins there; bilinear in its own grid.
 * @param grids any order; sorted here by cell size.
 */
export const sampleGround = (frame: PathFrame, grids: readonly TerrainGrid[]): GroundProfile => {
  const order = grids.map((_, i) => i).sort((a, b) => grids[a]!.cellM - grids[b]!.cellM);
  const sources = order.map((i) => {
    const grid = grids[i]!;
    return {
      index: i,
      stepM: Math.max(MIN_STEP_M, grid.cellM / 2),
      positions: pathPositions(frame, planeProjection(grid.crs)),
      sample: bilinearSampler(grid),
    };
  });
  return walk(frame.lengthM, sources);
};

interface Source {
  readonly index: number;
  readonly stepM: number;
  readonly positions: ReturnType<typeof pathPositions>;
  readonly sample: (x: number, y: number) => number;
}

const walk = (lengthM: number, sources: readonly Source[]): GroundProfile => {
  const finestM = Math.min(UNKNOWN_STEP_M, ...sources.map((s) => s.stepM));
  const capacity = Math.ceil(lengthM / finestM) + 4 * sources.length + 4;
  const distanceM = new Float64Array(capacity);
  const groundAmslM = new Float64Array(capacity);
  const datasetIndex = new Uint8Array(capacity);
  const xy = new Float64Array(2);
  let count = 0;
  let atM = 0;
  let stepM = UNKNOWN_STEP_M;
  let first = true;
  for (;;) {
    let heightM = Number.NaN;
    let dataset = NO_DATASET;
    let ownStepM = UNKNOWN_STEP_M;
    for (let s = 0; s < sources.length; s++) {
      const source = sources[s]!;
      positionAt(source.positions, atM, xy);
      heightM = source.sample(xy[0]!, xy[1]!);
      if (!Number.isNaN(heightM)) {
        dataset = source.index;
        ownStepM = source.stepM;
        break;
      }
    }
    if (!first && ownStepM < stepM && atM - distanceM[count - 1]! > ownStepM * 1.0001) {
      // A finer dataset began inside this step: walk the step again at the finer pace.
      atM = distanceM[count - 1]! + ownStepM;
      stepM = ownStepM;
      continue;
    }
    first = false;
    distanceM[count] = atM;
    groundAmslM[count] = heightM;
    datasetIndex[count] = dataset;
    count++;
    if (atM >= lengthM) break;
    // Inside a walked-again stretch the finer pace is kept until the finer dataset is met.
    stepM = ownStepM;
    atM = lengthM - (atM + stepM) < LEAST_GAP_M ? lengthM : atM + stepM;
    if (count >= capacity - 1) atM = lengthM;
  }
  return {
    distanceM: distanceM.slice(0, count),
    groundAmslM: groundAmslM.slice(0, count),
    datasetIndex: datasetIndex.slice(0, count),
    thinned: false,
  };
};
