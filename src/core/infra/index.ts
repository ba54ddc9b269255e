export { batteryHours, SOLAR_DEFAULTS, type SolarInput, type SolarSupply, solarSupply } from "./battery";
export { awgDiameterMm, awgOhmPerM, type CableRun, cableRun, ETHERNET_MOST_M } from "./cable";
export { type WindLoad, windLoad } from "./wind";
