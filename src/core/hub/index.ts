export { type AirPolicy, moreThatFit, type RemoteShare } from "./airtime";
export { blindRadiusM, type SectorAim } from "./beam";
export { askedOf, type HubRemote, type JudgedRemote, type JudgedSector, judgeSector, onAxisOf, promisedDbOf, seenFromHub } from "./hub";
export { laterPlace } from "./later";
export { type SectorMends, sectorMends } from "./mends";
export { type MovingPlan, movingOrder } from "./moving";
export { type FoundSectors, findSectors } from "./sectors";
export { openShapes, type Shape, type ShapeKind, type ShapeQuestion } from "./shapes";
export { planUnder, type TriedRemote } from "./under";
