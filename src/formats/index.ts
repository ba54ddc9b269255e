export { calendarText } from "./calendar";
export { isCleanText } from "./clean-text";
export { csvText } from "./csv-write";
export { coordinateSystem, epsgOfWkt, positionInSystem, searchSystems } from "./epsg";
export { FileFault, reasonOf } from "./file-fault";
export { featureCollection, lineFeature, pointFeature, polygonFeature } from "./geojson";
export { geoTiffHead, gridToGeoTiff, tiffHeights } from "./geotiff-write";
export {
  antennaSchema,
  type HardwareFile,
  hardwareFileSchema,
  radioSchema,
  readHardwareFile,
} from "./hardware";
export { readHardwareCsv } from "./hardware-csv";
export { partSchema } from "./parts";
export { isPartsTable, readPartsCsv } from "./parts-csv";
export { mimeOf, withoutData } from "./photo-data";
export { type HeardNetwork, iwScanText, iwSurveyText } from "./scan/iw-write";
export { readScan } from "./scan/read-scan";
export { hashedName } from "./scan/rows";
export { scanCsv } from "./scan/scan-csv";
export { cellMetres, gridFromTerrainFile, sigmaOfCell } from "./terrain/grid-of-file";
export { isTerrainFile, lookAtTerrain, openTerrain } from "./terrain/open-terrain";
export type { TerrainSource } from "./terrain/source";
export { columnsOf } from "./vector/csv-read";
export { readVector } from "./vector/open-vector";
export type { RawFeature, RawShape, VectorQuestion } from "./vector/raw";
export { writeAll } from "./write-all";
export { type Written, writePlaces } from "./write-places";
export { gpxText, kmlText, type Placed, tableRows } from "./xml-write";
export { type Unpacked, unpackTo } from "./zip-read";
export { openZip, type ZipWriter } from "./zip-write";
