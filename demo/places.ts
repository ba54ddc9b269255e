/*
 * The Merrow Isles, a place that does not exist. Plan coordinates in metres east and north of the Harbour
 * Office; heights AMSL over mean sea level 0. One table of sites; everything else follows from it.
 */

export interface Place {
  readonly key: string;
  readonly name: string;
  readonly eastM: number;
  readonly northM: number;
  readonly groundAmslM: number;
  readonly antennaAmslM: number;
  /** Highest mount the structure carries, AMSL. */
  readonly limitAmslM: number;
  /** Building the mount stands on: half sizes and height above ground; null for an open mast or a deck. */
  readonly building: {
    readonly halfEastM: number;
    readonly halfNorthM: number;
    readonly heightM: number;
    readonly offsetEastM?: number;
    readonly offsetNorthM?: number;
  } | null;
  readonly structure: string;
  readonly power: string;
}

const at = (bearingDeg: number, distanceM: number, from = { eastM: 0, northM: 0 }): { eastM: number; northM: number } => ({
  eastM: from.eastM + distanceM * Math.sin((bearingDeg * Math.PI) / 180),
  northM: from.northM + distanceM * Math.cos((bearingDeg * Math.PI) / 180),
});

export const TOWER = at(22, 620);
export const SADDLE_BEARING_DEG = 62;
export const SADDLE_M = 5200;
export const SADDLE = at(SADDLE_BEARING_DEG, SADDLE_M);

export const places: readonly Place[] = [
  {
    key: "office",
    name: "Harbour Office",
    eastM: 0,
    northM: 0,
    groundAmslM: 3.5,
    antennaAmslM: 14.5,
    limitAmslM: 18.5,
    building: { halfEastM: 8, halfNorthM: 6, heightM: 9 },
    structure: "slate roof, mast on the gable",
    power: "mains, fibre feed 500/500",
  },
  {
    key: "ice",
    name: "Ice House",
    ...at(140, 140),
    groundAmslM: 3.2,
    antennaAmslM: 12.2,
    limitAmslM: 15,
    building: { halfEastM: 10, halfNorthM: 8, heightM: 7.5, offsetEastM: 5 },
    structure: "sheet metal cladding",
    power: "mains",
  },
  {
    key: "rope",
    name: "Rope Walk",
    ...at(78.4, 430),
    groundAmslM: 6,
    antennaAmslM: 13.5,
    limitAmslM: 16.5,
    building: { halfEastM: 6, halfNorthM: 20, heightM: 6, offsetEastM: 4 },
    structure: "timber shed, gable pole",
    power: "mains",
  },
  {
    key: "pilot",
    name: "Pilot Station",
    ...at(236, 3100),
    groundAmslM: 4,
    antennaAmslM: 15,
    limitAmslM: 22,
    building: { halfEastM: 4, halfNorthM: 4, heightM: 18, offsetEastM: -4.4, offsetNorthM: 0 },
    structure: "rendered tower wall",
    power: "mains",
  },
  {
    key: "tower",
    name: "Water Tower",
    ...TOWER,
    groundAmslM: 34,
    antennaAmslM: 54,
    limitAmslM: 56,
    building: { halfEastM: 4, halfNorthM: 4, heightM: 18 },
    structure: "steel tank, rail on top",
    power: "mains",
  },
  {
    key: "exchange",
    name: "Old Exchange",
    ...at(312, 260),
    groundAmslM: 5,
    antennaAmslM: 11,
    limitAmslM: 13,
    building: { halfEastM: 7, halfNorthM: 6, heightM: 8, offsetEastM: -7.3 },
    structure: "rendered wall, coated glass",
    power: "mains",
  },
  {
    key: "skarn",
    name: "Skarn Light",
    ...at(277, 6400),
    groundAmslM: 8,
    antennaAmslM: 20,
    limitAmslM: 24,
    building: { halfEastM: 2.5, halfNorthM: 2.5, heightM: 11 },
    structure: "granite light",
    power: "battery and solar only",
  },
  {
    key: "tarrow",
    name: "Tarrowfell Observatory",
    ...at(SADDLE_BEARING_DEG, 19_200),
    groundAmslM: 182,
    antennaAmslM: 190,
    limitAmslM: 194,
    building: { halfEastM: 9, halfNorthM: 7, heightM: 6 },
    structure: "flat concrete roof",
    power: "mains",
  },
  {
    key: "sailing",
    name: "Sailing School",
    ...at(140, 1100, TOWER),
    groundAmslM: 5,
    antennaAmslM: 11.5,
    limitAmslM: 14,
    building: { halfEastM: 9, halfNorthM: 6, heightM: 5 },
    structure: "boathouse roof",
    power: "mains",
  },
  {
    key: "fuel",
    name: "Fuel Berth",
    ...at(215, 700, TOWER),
    groundAmslM: 3,
    antennaAmslM: 8,
    limitAmslM: 10,
    building: null,
    structure: "steel pole on the berth",
    power: "mains, zone rules apply",
  },
  {
    key: "net",
    name: "Net Store",
    ...at(178, 450, TOWER),
    groundAmslM: 5.4,
    antennaAmslM: 9.5,
    limitAmslM: 13,
    building: { halfEastM: 8, halfNorthM: 5, heightM: 5 },
    structure: "block wall, bracket",
    power: "mains",
  },
  {
    key: "weigh",
    name: "Weighbridge",
    ...at(228, 200, TOWER),
    groundAmslM: 5,
    antennaAmslM: 8,
    limitAmslM: 9,
    building: null,
    structure: "gantry pole",
    power: "mains",
  },
  {
    key: "ferry",
    name: "Ferry Ramp",
    ...at(190, 800, TOWER),
    groundAmslM: 2.5,
    antennaAmslM: 9.5,
    limitAmslM: 12,
    building: null,
    structure: "lamp column",
    power: "mains",
  },
  {
    key: "hulk",
    name: "Museum Hulk",
    ...at(207, 950, TOWER),
    groundAmslM: 0,
    antennaAmslM: 8,
    limitAmslM: 11,
    building: null,
    structure: "afloat, rises with the tide",
    power: "shore supply",
  },
];

export const placeOf = (key: string): Place => {
  const place = places.find((p) => p.key === key);
  if (place === undefined) throw new RangeError(`no place ${key}`);
  return place;
};

/** Named ground features: points and lines in plan coordinates. */
export const features: readonly { readonly name: string; readonly points: readonly (readonly [number, number])[] }[] = [
  { name: "Corrie Saddle", points: [[SADDLE.eastM, SADDLE.northM]] },
  { name: "Brannock Hill", points: [[SADDLE.eastM - 0.469 * 1500, SADDLE.northM + 0.883 * 1500]] },
  {
    name: "the Long Ridge",
    points: [
      [SADDLE.eastM + 0.469 * 900, SADDLE.northM - 0.883 * 900],
      [SADDLE.eastM + 0.469 * 3000, SADDLE.northM - 0.883 * 3000],
    ],
  },
  // The ridge goes on beyond the saddle, up to the hill.
  {
    name: "the Long Ridge",
    points: [
      [SADDLE.eastM - 0.469 * 350, SADDLE.northM + 0.883 * 350],
      [SADDLE.eastM - 0.469 * 1200, SADDLE.northM + 0.883 * 1200],
    ],
  },
  {
    name: "Quay Road",
    points: [
      [92, -20],
      [92, 70],
      [430, 130],
    ],
  },
  { name: "Inner Dock", points: [[52, -40]] },
  { name: "Tower Hill", points: [[TOWER.eastM, TOWER.northM]] },
  { name: "Tarrow Fell", points: [[placeOf("tarrow").eastM, placeOf("tarrow").northM]] },
];
