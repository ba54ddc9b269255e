export { featureCollection, type GeoJsonFeature, lineFeature, pointFeature, polygonFeature } from "./geojson";
export { gridToGeoTiff } from "./geotiff-write";
export {
  antennaSchema,
  type AntennaSheet,
  type HardwareFile,
  hardwareFileSchema,
  radioSchema,
  type RadioSheet,
  readHardwareFile,
  type RowFault,
} from "./hardware";
