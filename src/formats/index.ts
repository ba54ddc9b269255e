export { featureCollection, type GeoJsonFeature, lineFeature, pointFeature, polygonFeature } from "./geojson";
export { gridFromGeoTiff, TerrainFileError } from "./geotiff-read";
export { gridToGeoTiff } from "./geotiff-write";
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
