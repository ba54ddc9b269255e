import { type LatLon, planeProjection, utmCrsOf } from "../src/core/geo";
import { features, placeOf, places } from "./places";
import { type PlannedLink, plannedLinks } from "./planned-links";
import { noise, randomOf } from "./random";
import { groundAmslM } from "./terrain";

/** Ways to make the same job elsewhere under other names: every finding must follow. */
export interface DemoOptions {
  readonly anchor?: LatLon;
  /** East and west exchanged. */
  readonly mirror?: boolean;
  readonly rename?: (name: string) => string;
}

export interface DemoGrid {
  readonly name: string;
  readonly crs: string;
  /** Centre of the north-west cell. */
  readonly originX: number;
  readonly originY: number;
  readonly cellM: number;
  readonly cols: number;
  readonly rows: number;
  readonly sigmaM: number;
  readonly values: Float32Array;
}

export type DemoObstacleKind = "building" | "wall" | "mast" | "wood" | "row" | "crown" | "hedge" | "line" | "crane" | "vehicle";

export interface DemoObstacle {
  readonly name: string;
  readonly kind: DemoObstacleKind;
  readonly outline: LatLon[];
  readonly baseAmslM: number;
  readonly heightM: number;
  readonly crownBaseM: number;
  /** Spans: free air below this height above ground. */
  readonly freeBelowM?: number;
  readonly growthMPerYear: number;
  readonly heightSigmaM: number;
  readonly species: string | null;
}

export interface DemoJob {
  readonly name: string;
  readonly place: string;
  readonly crs: string;
  readonly grids: DemoGrid[];
  readonly sites: {
    key: string;
    name: string;
    position: LatLon;
    groundAmslM: number;
    mountAglM: number;
    mountMaxAglM: number;
    structure: string;
    power: string;
  }[];
  readonly obstacles: DemoObstacle[];
  readonly features: { name: string; points: LatLon[] }[];
  readonly links: readonly PlannedLink[];
}

const ANCHOR: LatLon = { latDeg: 47.3, lonDeg: -19.4 };
const SEED = 20_261;
type Point = readonly [number, number];

const box = (e: number, n: number, halfAcrossM: number, halfAlongM: number, turnDeg: number): Point[] => {
  const c = Math.cos((turnDeg * Math.PI) / 180);
  const s = Math.sin((turnDeg * Math.PI) / 180);
  return (
    [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ] as const
  ).map(([a, b]) => {
    const x = a * halfAcrossM;
    const y = b * halfAlongM;
    return [e + x * c + y * s, n - x * s + y * c] as const;
  });
};

const round = (e: number, n: number, radiusM: number, corners: number, wobble: (i: number) => number): Point[] =>
  Array.from({ length: corners }, (_, i) => {
    const a = (2 * Math.PI * i) / corners;
    const r = radiusM * wobble(i);
    return [e + r * Math.sin(a), n + r * Math.cos(a)] as const;
  });

interface PlanObstacle extends Omit<DemoObstacle, "outline" | "baseAmslM"> {
  readonly points: Point[];
  readonly centre: Point;
}

const solid = (name: string, kind: DemoObstacleKind, points: Point[], heightM: number): PlanObstacle => ({
  name,
  kind,
  points,
  centre: [points.reduce((s, p) => s + p[0], 0) / points.length, points.reduce((s, p) => s + p[1], 0) / points.length],
  heightM,
  crownBaseM: 0,
  growthMPerYear: 0,
  heightSigmaM: 0.3,
  species: null,
});

const plant = (name: string, kind: DemoObstacleKind, points: Point[], heightM: number, species: string, growth: number): PlanObstacle => ({
  ...solid(name, kind, points, heightM),
  crownBaseM: kind === "wood" || kind === "hedge" ? 0 : Math.min(2, heightM * 0.2),
  growthMPerYear: growth,
  heightSigmaM: Math.max(0.5, 0.1 * heightM),
  species,
});

/** True when something of this height beside the planned links would come near their rays. */
const nearARay = (centre: Point, reachM: number, topAmslM: number): boolean =>
  plannedLinks.some((link) => {
    const a = placeOf(link.near);
    const b = placeOf(link.far);
    const dx = b.eastM - a.eastM;
    const dy = b.northM - a.northM;
    const lengthM = Math.hypot(dx, dy);
    const t = ((centre[0] - a.eastM) * dx + (centre[1] - a.northM) * dy) / lengthM ** 2;
    if (t < -0.02 || t > 1.02) return false;
    const asideM = Math.abs((centre[0] - a.eastM) * dy - (centre[1] - a.northM) * dx) / lengthM;
    const f1M = Math.sqrt(Math.max(0, 0.055 * t * (1 - t) * lengthM));
    if (asideM > reachM + f1M + 3) return false;
    const rayM = a.antennaAmslM + (b.antennaAmslM - a.antennaAmslM) * t;
    return topAmslM > rayM - f1M - 1.5;
  });

const nearASite = (centre: Point, reachM: number): boolean =>
  places.some((p) => Math.hypot(p.eastM - centre[0], p.northM - centre[1]) < reachM + 24);

const townHouses = (): PlanObstacle[] => {
  const random = randomOf(SEED);
  const out: PlanObstacle[] = [];
  const taken: Point[] = [];
  for (let street = 0; out.length < 880 && street < 400; street++) {
    const e0 = -560 + 2000 * random();
    const n0 = -420 + 1250 * random();
    const turnDeg = 62 + 28 * noise(e0 / 500, n0 / 500, 7) + (random() < 0.3 ? 90 : 0);
    const alongE = Math.sin((turnDeg * Math.PI) / 180);
    const alongN = Math.cos((turnDeg * Math.PI) / 180);
    for (let i = 0, atM = 0; i < 9; i++) {
      const frontM = 7 + 9 * random();
      const deepM = 7 + 4 * random();
      atM += frontM / 2 + 0.5 + 1.5 * random();
      const heightM = Math.round((random() < 0.06 ? 9 + 10 * random() : 3 + 5.5 * random()) * 10) / 10;
      const centre: Point = [e0 + alongE * atM, n0 + alongN * atM];
      atM += frontM / 2;
      const ground = groundAmslM(...centre);
      const reachM = Math.hypot(frontM, deepM) / 2;
      if (ground < 2.2 || nearASite(centre, reachM) || nearARay(centre, reachM, ground + heightM)) continue;
      if (taken.some((p) => Math.hypot(p[0] - centre[0], p[1] - centre[1]) < 14)) continue;
      taken.push(centre);
      out.push(
        solid(
          heightM > 12 ? "warehouse" : heightM < 4 ? "shed" : "house",
          "building",
          box(centre[0], centre[1], frontM / 2, deepM / 2, turnDeg - 90),
          heightM,
        ),
      );
    }
  }
  return out;
};

const greenery = (): PlanObstacle[] => {
  const random = randomOf(SEED + 1);
  const out: PlanObstacle[] = [];
  const woods: readonly (readonly [number, number, number])[] = [
    [-330, 520, 70],
    [620, 640, 85],
    [1060, 860, 60],
    [1150, -60, 75],
    [2600, 900, 260],
    [3600, 3400, 320],
  ];
  woods.forEach(([e, n, r], i) => {
    out.push(
      plant(
        "wood",
        "wood",
        round(e, n, r, 18, (k) => 0.82 + 0.3 * noise(k / 3, i, 3)),
        11 + 2 * i,
        i % 2 === 0 ? "mixed broadleaf" : "pine",
        0.3,
      ),
    );
  });
  const kinds = [
    ["ash", 0.4],
    ["sycamore", 0.4],
    ["lime", 0.3],
    ["pine", 0.35],
  ] as const;
  for (let i = 0; i < 220; i++) {
    const e = -560 + 2000 * random();
    const n = -420 + 1250 * random();
    const [species, growth] = kinds[Math.floor(random() * kinds.length)]!;
    const heightM = Math.round((4 + 8 * random()) * 10) / 10;
    const radiusM = 1.4 + 2 * random();
    const ground = groundAmslM(e, n);
    if (ground < 2.2 || nearASite([e, n], radiusM) || nearARay([e, n], radiusM, ground + heightM + 5 * growth)) continue;
    out.push(
      plant(
        species,
        "crown",
        round(e, n, radiusM, 10, () => 1),
        heightM,
        species,
        growth,
      ),
    );
  }
  for (let i = 0; i < 12; i++) {
    const e = 300 + 1000 * random();
    const n = 150 + 650 * random();
    if (nearARay([e, n], 30, groundAmslM(e, n) + 5)) continue;
    out.push(plant("hedge", "hedge", box(e, n, 1, 18 + 10 * random(), 180 * random()), 2.2, "hawthorn", 0.2));
  }
  return out;
};

/** The obstacles that carry the job's lessons. */
const scenery = (): PlanObstacle[] => {
  const bearingDeg = 78.4;
  const alongE = Math.sin((bearingDeg * Math.PI) / 180);
  const alongN = Math.cos((bearingDeg * Math.PI) / 180);
  const out: PlanObstacle[] = [
    plant("Poplar row", "row", box(290 * alongE, 290 * alongN, 18, 2, bearingDeg), 9.3, "poplar", 0.6),
    solid("Chandlery", "building", box(122 * alongE + 3, 122 * alongN, 7, 8, bearingDeg), 5.2),
    solid("Sail loft", "building", box(205 * alongE, 205 * alongN, 6, 9, bearingDeg), 4.4),
    solid("Harbour crane", "mast", box(86, -30, 1.2, 1.2, 0), 24),
    {
      ...solid(
        "Harbour crane's jib",
        "crane",
        round(86, -30, 26, 16, () => 1),
        27,
      ),
      freeBelowM: 22,
      heightSigmaM: 1,
    },
    // A lorry may stand anywhere along the road.
    solid("Lorries on Quay Road", "vehicle", box(92, 16, 1.4, 30, 0), 4.2),
    { ...solid("Quarry line", "line", box(610, 300, 110, 2, 0), 11), freeBelowM: 7.5, heightSigmaM: 0.5 },
    wallBesideExchange(),
    chandleryBeforeNetStore(),
  ];
  for (const p of places) {
    if (p.building === null) continue;
    const e = p.eastM + (p.building.offsetEastM ?? 0);
    const n = p.northM + (p.building.offsetNorthM ?? 0);
    out.push(solid(p.name, "building", box(e, n, p.building.halfEastM, p.building.halfNorthM, 0), p.building.heightM));
  }
  return out;
};

/** A gable whose face stands 0.45 m right of the ray half way to the Old Exchange, higher than the ray. */
const wallBesideExchange = (): PlanObstacle => {
  const end = placeOf("exchange");
  const lengthM = Math.hypot(end.eastM, end.northM);
  const ue = end.eastM / lengthM;
  const un = end.northM / lengthM;
  const spot = (alongM: number, rightM: number): Point => [alongM * ue + rightM * un, alongM * un - rightM * ue];
  return solid("Bonded store gable", "building", [spot(130, 0.45), spot(142, 0.45), spot(142, 11), spot(130, 11)], 9);
};

/** A roof between the Water Tower and the Net Store, one metre into the zone. */
const chandleryBeforeNetStore = (): PlanObstacle => {
  const from = placeOf("tower");
  const end = placeOf("net");
  const t = 0.9;
  const e = from.eastM + (end.eastM - from.eastM) * t;
  const n = from.northM + (end.northM - from.northM) * t;
  const rayM = from.antennaAmslM + (end.antennaAmslM - from.antennaAmslM) * t;
  return solid("Smokehouse", "building", box(e, n, 7, 4, 0), Math.round((rayM + 1.4 - groundAmslM(e, n)) * 10) / 10);
};

const gridOf = (
  name: string,
  crs: string,
  e0: number,
  n0: number,
  west: number,
  north: number,
  cellM: number,
  cols: number,
  rows: number,
  sigmaM: number,
  mirror: boolean,
  roughM: number,
): DemoGrid => {
  const values = new Float32Array(cols * rows);
  for (let r = 0; r < rows; r++) {
    const n = north - r * cellM;
    for (let c = 0; c < cols; c++) {
      const e = (west + c * cellM) * (mirror ? -1 : 1);
      const h = groundAmslM(e, n);
      values[r * cols + c] = h > 1 && roughM > 0 ? h + roughM * noise(e / 9, n / 9, 5) : h;
    }
  }
  return { name, crs, originX: e0 + west, originY: n0 + north, cellM, cols, rows, sigmaM, values };
};

/** The whole demo job: deterministic, in seconds, and blind to its own names. */
export const generateDemo = (options: DemoOptions = {}): DemoJob => {
  const anchor = options.anchor ?? ANCHOR;
  const mirror = options.mirror ?? false;
  const rename = options.rename ?? ((name: string) => name);
  const crs = utmCrsOf(anchor);
  const projection = planeProjection(crs);
  const [rawE, rawN] = projection.forward(anchor);
  const e0 = Math.round(rawE / 30) * 30;
  const n0 = Math.round(rawN / 30) * 30;
  const position = (e: number, n: number): LatLon => projection.inverse(e0 + (mirror ? -e : e), n0 + n);
  const townWest = mirror ? -1500 : -900;
  const obstacles = [...scenery(), ...townHouses(), ...greenery()].map((o): DemoObstacle => {
    const { points, centre, ...rest } = o;
    return {
      ...rest,
      name: rename(rest.name),
      baseAmslM: Math.round(groundAmslM(centre[0], centre[1]) * 100) / 100,
      outline: points.map((p) => position(p[0], p[1])),
    };
  });
  return {
    name: rename("Merrow Harbour Trust"),
    place: rename("Merrow, harbour"),
    crs,
    grids: [
      gridOf(rename("Merrow 30 m survey"), crs, e0, n0, mirror ? -25_000 : -11_000, 20_000, 30, 1200, 1000, 4, mirror, 0),
      gridOf(rename("Harbour 2 m survey"), crs, e0, n0, townWest, 1300, 2, 1200, 1000, 0.15, mirror, 0),
    ],
    sites: places.map((p) => ({
      key: p.key,
      name: rename(p.name),
      position: position(p.eastM, p.northM),
      groundAmslM: p.groundAmslM,
      mountAglM: Math.round((p.antennaAmslM - p.groundAmslM) * 10) / 10,
      mountMaxAglM: Math.round((p.limitAmslM - p.groundAmslM) * 10) / 10,
      structure: p.structure,
      power: p.power,
    })),
    obstacles,
    features: features.map((f) => ({ name: rename(f.name), points: f.points.map((q) => position(q[0], q[1])) })),
    links: plannedLinks.map((l) =>
      l.nearAim !== undefined && options.mirror === true ? { ...l, nearAim: { ...l.nearAim, azimuthDeg: 360 - l.nearAim.azimuthDeg } } : l,
    ),
  };
};
