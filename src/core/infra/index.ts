export { batteryHours, SOLAR_DEFAULTS, solarSupply } from "./battery";
export { awgDiameterMm, awgOhmPerM, cableRun } from "./cable";
export {
  BITS_PER_PIXEL,
  cameraMbps,
  DEVICE_KINDS,
  type DeviceKind,
  demandOf,
  deviceDemand,
  roundedNeedMbps,
  WATCHED_SHARE,
} from "./demand";
export { COPPER_LIMIT_M, SHAPE_KEYS, type ShapeAnswer, type ShapeKey, weighShapes } from "./shapes";
export { windLoad } from "./wind";
