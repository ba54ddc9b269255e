import { places, SADDLE, SADDLE_BEARING_DEG, TOWER } from "./places";
import { noise } from "./random";

const RIDGE_E = Math.sin((SADDLE_BEARING_DEG * Math.PI) / 180);
const RIDGE_N = Math.cos((SADDLE_BEARING_DEG * Math.PI) / 180);
const TARROW = places.find((p) => p.key === "tarrow")!;
const SKARN = places.find((p) => p.key === "skarn")!;
const PILOT = places.find((p) => p.key === "pilot")!;

/** Where the ground is brought to a stated height: sites, and the foot of the poplars. */
const POPLAR_AT = { eastM: 290 * Math.sin((78.4 * Math.PI) / 180), northM: 290 * Math.cos((78.4 * Math.PI) / 180) };
interface Pad {
  readonly eastM: number;
  readonly northM: number;
  readonly heightM: number;
  readonly radiusM: number;
}
const pads: readonly Pad[] = [
  ...places
    .filter((p) => p.key !== "hulk")
    .map((p) => ({
      eastM: p.eastM,
      northM: p.northM,
      heightM: p.groundAmslM,
      radiusM: ["tarrow", "skarn", "pilot"].includes(p.key) ? 120 : p.key === "tower" ? 16 : 26,
    })),
  { ...POPLAR_AT, heightM: 5, radiusM: 24 },
  { eastM: SADDLE.eastM, northM: SADDLE.northM, heightM: 150, radiusM: 420 },
];

const smoothstep = (a: number, b: number, x: number): number => {
  const t = Math.min(1, Math.max(0, (x - a) / (b - a)));
  return t * t * (3 - 2 * t);
};

const fractal = (e: number, n: number, wavelengthM: number, seed: number): number =>
  0.57 * noise(e / wavelengthM, n / wavelengthM, seed) +
  0.29 * noise((2 * e) / wavelengthM, (2 * n) / wavelengthM, seed + 1) +
  0.14 * noise((4 * e) / wavelengthM, (4 * n) / wavelengthM, seed + 2);

/** Distance inland from the town's coast, metres, straight by the harbour and wandering away from it. */
const inlandM = (e: number, n: number): number => {
  const away = smoothstep(300, 2200, Math.hypot(e, n));
  return 0.5 * e + 0.87 * n + 60 + fractal(e, n, 1400, 11) * (14 + 380 * away);
};

const mainIsland = (e: number, n: number): number => {
  const inland = inlandM(e, n);
  const rim = 1 - Math.hypot((e - 3300) / 6500, (n - 2600) / 3600) + 0.05 * fractal(e, n, 1800, 21);
  if (inland <= 0 || rim <= 0) return 0;
  const base = 3.05 + 40 * (1 - Math.exp(-inland / 4700));
  const p = (e - SADDLE.eastM) * RIDGE_E + (n - SADDLE.northM) * RIDGE_N;
  const q = -(e - SADDLE.eastM) * RIDGE_N + (n - SADDLE.northM) * RIDGE_E;
  const crest = 118 + 162 * (1 - Math.exp(-((q / 900) ** 2))) * (q > 0 ? 1 : 0.55);
  const ridge = crest * Math.exp(-(p * p) / (2 * 620 * 620)) * Math.exp(-((q / 3300) ** 4));
  const dx = e - TOWER.eastM;
  const dy = n - TOWER.northM;
  const townHill = 30 * Math.exp(-(dx * dx + dy * dy) / (2 * 82 * 82));
  const country = smoothstep(500, 2500, Math.hypot(e - 300, n - 300));
  const roll = country * (7 * fractal(e, n, 1100, 31) + 5 + (ridge / 310) * 16 * fractal(e, n, 500, 41));
  const cliff = smoothstep(0, 0.03, rim);
  return Math.max(0.6, (base + ridge + townHill + roll) * cliff);
};

const islet = (e: number, n: number, at: { eastM: number; northM: number }, topM: number, radiusM: number, seed: number): number => {
  const r = Math.hypot(e - at.eastM, n - at.northM) / radiusM + 0.18 * fractal(e, n, radiusM, seed);
  return r >= 1 ? 0 : topM * (1 - r ** 3);
};

const tarrowfell = (e: number, n: number): number => {
  const r = Math.hypot(e - TARROW.eastM, n - TARROW.northM);
  const edge = 1 - r / 3600 + 0.16 * fractal(e, n, 1500, 51);
  if (edge <= 0) return 0;
  const hill = 150 * Math.exp(-(r * r) / (2 * 1500 * 1500)) + 30 + 9 * fractal(e, n, 700, 61);
  return hill * smoothstep(0, 0.06, edge);
};

/** The Inner Dock and its basin are water; walls stand straight. */
const inDock = (e: number, n: number): boolean => e > 32 && e < 74 && n > -150 && n < 62;
const QUAY_PIERS: readonly (readonly [number, number, number, number])[] = [
  [-190, -15, -90, 22],
  [74, -235, 110, -100],
];

/** Bare-earth height AMSL at a plan position; water is 0. */
export const groundAmslM = (e: number, n: number): number => {
  if (inDock(e, n)) return 0;
  let h = Math.max(
    mainIsland(e, n),
    tarrowfell(e, n),
    islet(e, n, SKARN, 9, 150, 71),
    islet(e, n, { eastM: PILOT.eastM - 120, northM: PILOT.northM - 90 }, 9, 260, 81),
    islet(e, n, { eastM: -3900, northM: 2600 }, 12, 320, 91),
  );
  for (const [e0, n0, e1, n1] of QUAY_PIERS) if (e >= e0 && e <= e1 && n >= n0 && n <= n1) h = Math.max(h, 2.8);
  for (const pad of pads) {
    const r = Math.hypot(e - pad.eastM, n - pad.northM) / pad.radiusM;
    if (r >= 2) continue;
    const w = r <= 0.5 ? 1 : Math.exp(-(((r - 0.5) / 0.6) ** 2));
    if (h === 0 && r > 0.75) continue;
    h += (pad.heightM - h) * w;
  }
  return h;
};
