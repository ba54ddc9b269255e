export { cleanText, isCleanText } from "./clean-text";
export { csvRows, csvText } from "./csv-write";
export { type CoordinateSystem, coordinateSystem, epsgInName, epsgOfWkt, positionInSystem, searchSystems } from "./epsg";
export { FileFault, reasonOf } from "./file-fault";
export { featureCollection, type GeoJsonFeature, lineFeature, pointFeature, polygonFeature } from "./geojson";
export { geoTiffHead, gridToGeoTiff, type TiffFrame, tiffHeights } from "./geotiff-write";
export {
  type AntennaSheet,
  antennaSchema,
  type HardwareFile,
  hardwareFileSchema,
  type RadioSheet,
  type RowFault,
  radioSchema,
  readHardwareFile,
} from "./hardware";
export { mimeOf, type PhotoMime, withoutData } from "./photo-data";
export { ruleFileSchema, ruleRowSchema } from "./rules";
export { cellMetres, gridFromTerrainFile, sigmaOfCell } from "./terrain/grid-of-file";
export { isTerrainFile, lookAtTerrain, openTerrain } from "./terrain/open-terrain";
export type { TerrainSource } from "./terrain/source";
export { columnsOf, type TableColumns } from "./vector/csv-read";
export { readVector, type VectorFormat, vectorFormatOf } from "./vector/open-vector";
export type { RawFeature, RawShape, RowFault as VectorRowFault, VectorQuestion, VectorSink } from "./vector/raw";
export { writeAll } from "./write-all";
export { type Written, writePlaces } from "./write-places";
export { gpxText, kmlText, type Placed, tableRows } from "./xml-write";
export { type Unpacked, unpackTo } from "./zip-read";
export { openZip, type ZipWriter } from "./zip-write";
