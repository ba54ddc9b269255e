export { carriedOf, carriedOnWidths } from "./carried";
export type { Delay } from "./delay";
export {
  type DeviceClass,
  type Load,
  type LoadDevice,
  type LoadInput,
  loadOf,
  type Moment,
  type Pair,
  type Recorder,
} from "./load";
export {
  askedOfPlace,
  fillOf,
  fitsOfPlace,
  freeAlong,
  type JudgedPlace,
  judgePlace,
  moreDevices,
  narrowestOf,
  placesAlong,
  takenOf,
} from "./narrowest";
export { type Carried, chainOf, type LoadLink } from "./network";
export { BACK, type Lane, THERE, USUAL_PORT_MBPS } from "./places";
export { readingsAt, type TestReading } from "./readings";
export { hoursKept, type RecorderAnswer, recorderAnswers } from "./recorder";
export { delayTo } from "./site-delay";
