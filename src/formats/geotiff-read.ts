import { fromFile } from "geotiff";
import { type LatLon, planeProjection } from "../core/geo";
import { cutTile, type TerrainGrid } from "../core/terrain";

/** A terrain file that cannot be used, and why. */
export class TerrainFileError extends Error {}

const TILE_CELLS = 256;
/** Largest window held in memory: 100 MB of heights. */
const MOST_CELLS = 25_000_000;
const MARGIN_CELLS = 3;
const MEAN_DEGREE_M = 111_195;

/** Standard error of heights by cell size when the file does not say: lidar, national grid, global grid. */
const sigmaOfCell = (cellM: number): number => (cellM <= 3 ? 0.15 : cellM <= 15 ? 1.5 : 4);

const epsgOf = (keys: Record<string, unknown>): number | null => {
  for (const key of ["ProjectedCSTypeGeoKey", "GeographicTypeGeoKey"]) {
    const value = keys[key];
    if (typeof value === "number" && value > 1024 && value < 32_767) return value;
  }
  return null;
};

/**
 * The part of a height GeoTIFF about some positions, as a grid the core samples. AREA_OR_POINT is followed:
 * the returned origin is the centre of the first cell.
 * @returns null when no position lies in the file.
 * @throws TerrainFileError with the reason, when the file is no GeoTIFF, names no system, or one not known here.
 */
export const gridFromGeoTiff = async (path: string, about: readonly LatLon[]): Promise<TerrainGrid | null> => {
  let file: Awaited<ReturnType<typeof fromFile>>;
  try {
    file = await fromFile(path);
  } catch (error) {
    throw unreadable(path, error);
  }
  try {
    return await gridOf(path, await file.getImage().catch((error: unknown) => Promise.reject(unreadable(path, error))), about);
  } finally {
    await file.close();
  }
};

const unreadable = (path: string, error: unknown): TerrainFileError =>
  new TerrainFileError(`${path} cannot be read as GeoTIFF: ${error instanceof Error ? error.message : String(error)}`);

type Image = Awaited<ReturnType<Awaited<ReturnType<typeof fromFile>>["getImage"]>>;

const gridOf = async (path: string, image: Image, about: readonly LatLon[]): Promise<TerrainGrid | null> => {
  const epsg = epsgOf((image.getGeoKeys() ?? {}) as Record<string, unknown>);
  if (epsg === null) throw new TerrainFileError(`${path} names no coordinate system; write one into it first`);
  const crs = `EPSG:${epsg}`;
  let projection: ReturnType<typeof planeProjection>;
  try {
    projection = planeProjection(crs);
  } catch {
    throw new TerrainFileError(`${path} is in ${crs}; this version reads EPSG:4326 and the WGS84 UTM zones`);
  }
  const [stepX, stepY] = image.getResolution() as [number, number];
  const [cornerX, cornerY] = image.getOrigin() as [number, number];
  const shift = image.pixelIsArea() ? 0.5 : 0;
  const x0 = cornerX + shift * stepX;
  const y0 = cornerY + shift * stepY;
  const cells = about.map((p) => {
    const [x, y] = projection.forward(p);
    return { col: (x - x0) / stepX, row: (y - y0) / stepY };
  });
  const within = (values: number[], size: number): [number, number] => [
    Math.max(0, Math.floor(Math.min(...values)) - MARGIN_CELLS),
    Math.min(size, Math.ceil(Math.max(...values)) + MARGIN_CELLS + 1),
  ];
  const [left, right] = within(
    cells.map((c) => c.col),
    image.getWidth(),
  );
  const [top, bottom] = within(
    cells.map((c) => c.row),
    image.getHeight(),
  );
  if (right - left < 2 || bottom - top < 2) return null;
  const cols = right - left;
  const rows = bottom - top;
  if (cols * rows > MOST_CELLS)
    throw new TerrainFileError(`the part of ${path} along this path has ${cols} x ${rows} cells; at most ${MOST_CELLS} are read`);
  const [band] = (await image.readRasters({ window: [left, top, right, bottom], samples: [0] })) as unknown as [ArrayLike<number>];
  const noData = image.getGDALNoData();
  const values = Float32Array.from({ length: cols * rows }, (_, i) =>
    band[i] === noData || !(Math.abs(band[i]!) < 1e5) ? Number.NaN : band[i]!,
  );
  const cellM = Math.abs(stepX) * (crs === "EPSG:4326" ? MEAN_DEGREE_M : 1);
  const tiles = new Map<string, Float32Array>();
  return {
    id: path,
    name: path,
    kind: "dtm",
    crs,
    originX: x0 + left * stepX,
    originY: y0 + top * stepY,
    stepX,
    stepY,
    cols,
    rows,
    cellM,
    sigmaM: sigmaOfCell(cellM),
    tileCells: TILE_CELLS,
    tile: (r, c) => {
      const key = `${r},${c}`;
      let tile = tiles.get(key);
      if (tile === undefined) {
        tile = cutTile(values, cols, rows, TILE_CELLS, r, c);
        tiles.set(key, tile);
      }
      return tile;
    },
  };
};
