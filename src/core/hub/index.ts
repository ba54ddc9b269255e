export { type AirPolicy, moreThatFit, type RemoteShare } from "./airtime";
export { blindRadiusM, type SectorAim } from "./beam";
export { askedOf, type HubRemote, type JudgedRemote, type JudgedSector, judgeSector, onAxisOf, promisedDbOf, seenFromHub } from "./hub";
export { type FoundSectors, findSectors } from "./sectors";
