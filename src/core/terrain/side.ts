import { destination, type PathFrame, planeProjection } from "../geo";
import { bilinearSampler, type TerrainGrid } from "./grid";
import { NO_DATASET } from "./limits";
import { pathPositions, positionAt } from "./positions";

/** Bare ground beside the path, at the profile's distances, where the terrain is fine enough to know its slope across. */
export interface SideGround {
  /** Across the path in rising order, right positive; the path itself (0) is not among them. */
  readonly offsetsM: Float64Array;
  /** A line of heights an offset; NaN where the terrain is too coarse or unknown. */
  readonly groundAmslM: readonly Float64Array[];
}

/** Lines of ground on each side; between them the ground is taken as straight. */
const LINES_A_SIDE = 4;
/** They reach this many widest first zones aside. */
const REACH_F1 = 1.5;

/**
 * Ground to both sides of a sampled path. Only bare earth whose cells are no wider than the widest first zone is
 * asked: a coarser grid knows nothing of a slope within the zone, a surface model knows roofs and crowns.
 * @param widestF1M radius of the first zone at the middle of the path for the longest wave looked at.
 * @returns null when no point of the path has such ground.
 */
export const sampleSide = (
  frame: PathFrame,
  grids: readonly TerrainGrid[],
  distanceM: Float64Array,
  datasetIndex: Uint8Array,
  widestF1M: number,
): SideGround | null => {
  const fine = grids.map((g) => g.kind === "dtm" && g.cellM <= widestF1M);
  if (!datasetIndex.some((d) => d !== NO_DATASET && fine[d] === true)) return null;
  const offsetsM = Float64Array.from({ length: 2 * LINES_A_SIDE }, (_, i) => {
    const step = i < LINES_A_SIDE ? i - LINES_A_SIDE : i - LINES_A_SIDE + 1;
    return (step * REACH_F1 * widestF1M) / LINES_A_SIDE;
  });
  const xy = new Float64Array(2);
  const groundAmslM = Array.from(offsetsM, (acrossM) => {
    const beside: Pick<PathFrame, "lengthM" | "at"> = {
      lengthM: frame.lengthM,
      at: (alongM) => {
        const foot = frame.at(alongM);
        return { ...destination(foot, foot.azimuthDeg + 90, acrossM), azimuthDeg: foot.azimuthDeg };
      },
    };
    const sources = grids.map((g, i) =>
      fine[i] === true ? { positions: pathPositions(beside, planeProjection(g.crs)), sample: bilinearSampler(g) } : null,
    );
    const line = new Float64Array(distanceM.length).fill(Number.NaN);
    for (let i = 0; i < line.length; i++) {
      const source = sources[datasetIndex[i]!];
      if (source == null) continue;
      positionAt(source.positions, distanceM[i]!, xy);
      line[i] = source.sample(xy[0]!, xy[1]!);
    }
    return line;
  });
  return { offsetsM, groundAmslM };
};
