export { batteryHours, SOLAR_DEFAULTS, type SolarInput, type SolarSupply, solarSupply } from "./battery";
export { awgDiameterMm, awgOhmPerM, type CableRun, cableRun, ETHERNET_MOST_M } from "./cable";
export {
  BITS_PER_PIXEL,
  type Codec,
  cameraMbps,
  DEVICE_KINDS,
  type Demand,
  type Device,
  type DeviceKind,
  demandOf,
  deviceDemand,
  type Rates,
  roundedNeedMbps,
  SCENE_FACTOR,
  type Scene,
} from "./demand";
export { COPPER_LIMIT_M, SHAPE_KEYS, type ShapeAnswer, type ShapeKey, type ShapeQuestion, weighShapes } from "./shapes";
export { type WindLoad, windLoad } from "./wind";
