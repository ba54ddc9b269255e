import Feature from "ol/Feature";
import LineString from "ol/geom/LineString";
import VectorLayer from "ol/layer/Vector";
import VectorSource from "ol/source/Vector";
import { Stroke, Style } from "ol/style";

type Token = (name: string) => string;

const STEPS_M = [10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000] as const;
/** Lines of the grid stand at least so far apart. */
const LEAST_PX = 90;

export interface GroundGrid {
  readonly layer: VectorLayer;
  /** Draws the grid over a part of the plan; null takes it away. */
  readonly draw: (extent: readonly [number, number, number, number] | null, resolutionM: number) => void;
}

/** A square grid of the plan where no ground is known, so that an empty drawing has a scale and a place. */
export const createGrid = (token: () => Token): GroundGrid => {
  const source = new VectorSource();
  const layer = new VectorLayer({ source });
  return {
    layer,
    draw: (extent, resolutionM) => {
      source.clear(true);
      if (extent === null) return;
      const t = token();
      const [west, south, east, north] = extent;
      const stepM = STEPS_M.find((s) => s / resolutionM >= LEAST_PX) ?? STEPS_M[STEPS_M.length - 1]!;
      const line = (points: [number, number][], strong: boolean): void => {
        const feature = new Feature(new LineString(points));
        feature.setStyle(new Style({ stroke: new Stroke({ color: t(strong ? "rule" : "grid"), width: 1 }) }));
        source.addFeature(feature);
      };
      for (let x = Math.ceil(west / stepM); x * stepM <= east; x++)
        line(
          [
            [x * stepM, south],
            [x * stepM, north],
          ],
          x % 5 === 0,
        );
      for (let y = Math.ceil(south / stepM); y * stepM <= north; y++)
        line(
          [
            [west, y * stepM],
            [east, y * stepM],
          ],
          y % 5 === 0,
        );
    },
  };
};
