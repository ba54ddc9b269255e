import { writeArrayBuffer } from "geotiff";

/** Missing heights in written files. */
export const NO_DATA = -9999;

/**
 * A height grid as an uncompressed 32-bit float GeoTIFF, point-registered (AREA_OR_POINT=Point).
 * @param epsg a projected system, e.g. 32627.
 */
export const gridToGeoTiff = (grid: {
  values: Float32Array;
  cols: number;
  rows: number;
  originX: number;
  originY: number;
  cellM: number;
  epsg: number;
}): Uint8Array => {
  const values = grid.values.map((h) => (Number.isNaN(h) ? NO_DATA : h));
  const buffer = writeArrayBuffer(values, {
    width: grid.cols,
    height: grid.rows,
    ModelPixelScale: [grid.cellM, grid.cellM, 0],
    ModelTiepoint: [0, 0, 0, grid.originX, grid.originY, 0],
    GTModelTypeGeoKey: 1,
    GTRasterTypeGeoKey: 2,
    ProjectedCSTypeGeoKey: grid.epsg,
    ProjLinearUnitsGeoKey: 9001,
    GDAL_NODATA: `${NO_DATA}\0`,
    SampleFormat: [3],
    BitsPerSample: [32],
  } as never);
  return new Uint8Array(buffer as ArrayBuffer);
};
