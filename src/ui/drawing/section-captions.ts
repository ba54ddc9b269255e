/* Where the captions of the section stand: worst dimension first, then the ghost's name, growth years, zone, water. */
import type { WorstPlace } from "@/core/link";
import { f1RadiusM, rayBulgeM, rayZM } from "@/core/obstacles";
import { lengthText } from "../wording/numbers";
import { alongRay, type Point } from "./along-ray";
import { around, type Box, type CaptionField, captionField, textBox } from "./caption-field";
import { ghostName } from "./ghost-design";
import { mastFigureBox } from "./mast-dimension";
import type { SectionProps } from "./section-props";
import { tideCaption } from "./tide-lines";
import { worstWords } from "./worst-words";

const HATCH_PX = 9;

/** At most one ground point a pixel, the highest of each. */
const groundLine = ({ path, ray, scale }: SectionProps): Point[] => {
  const { distanceM, groundAmslM } = path.profile;
  const out: [number, number][] = [];
  for (let i = 0; i < distanceM.length; i++) {
    if (Number.isNaN(groundAmslM[i]!)) continue;
    const x = scale.x(distanceM[i]!);
    const y = scale.y(groundAmslM[i]! + rayBulgeM(ray, distanceM[i]!));
    const last = out[out.length - 1];
    if (last !== undefined && x - last[0] < 1) last[1] = Math.min(last[1], y);
    else out.push([x, y]);
  }
  const [first, end] = [out[0], out[out.length - 1]];
  return first === undefined || end === undefined ? [] : [[-100, first[1]], ...out, [scale.width + 100, end[1]]];
};

/** The lines that no caption may cross, and what is always drawn where it is. */
const fieldOf = (props: SectionProps): CaptionField => {
  const { path, plan, result, ray, scale } = props;
  const field = captionField(scale.width, scale.height);
  const share = result.clearance.policyShare;
  for (const s of [0, 1, -1, -share, ...(result.clearance.worst?.side === "under" ? [share] : [])]) field.line(alongRay(ray, scale, s));
  const other = props.ghost?.ray;
  if (other !== undefined) field.line(alongRay(other, scale, 0));
  for (const z of props.zones) field.line(alongRay(z.ray, scale, -share));
  const ground = groundLine(props);
  field.line(ground);
  // The ground's hatching hangs from it.
  field.line(ground.map(([x, y]) => [x, y + HATCH_PX]));
  for (const l of path.level.filter((x) => x.sea)) {
    const surface = scale.y(l.heightAmslM + plan.water.tideRangeM / 2 + rayBulgeM(ray, (l.fromM + l.toM) / 2));
    field.take({ x0: scale.x(l.fromM), y0: surface - 2, x1: scale.x(l.toM), y1: scale.height });
  }
  for (const b of path.standing) {
    for (const s of b.stretches) {
      const [from, to] = [Math.max(s.fromM, ray.startM), Math.min(s.toM, ray.endM)];
      if (to <= from) continue;
      const mid = (from + to) / 2;
      const bulge = rayBulgeM(ray, mid);
      const groundM = path.groundAt(mid);
      field.avoid({
        x0: scale.x(from) - 3,
        y0: scale.y(b.topAt(plan.policy.year)(mid) + bulge),
        x1: scale.x(to) + 3,
        y1: scale.y((Number.isNaN(groundM) ? b.body.baseAmslM : groundM) + (b.body.freeBelowM ?? 0) + bulge),
      });
    }
  }
  for (const end of ["near", "far"] as const) {
    const x = scale.x(end === "near" ? ray.startM : ray.endM);
    const top = scale.y(end === "near" ? ray.startZM : ray.endZM);
    // Mast, handle, antenna; dimension line; names at the top; the flag of where it clears from.
    field.take({ x0: x - 17, y0: top - 38, x1: x + 17, y1: scale.height });
    const own = end === "near" ? plan.near : plan.far;
    const groundM = (end === "near" ? result.geometry.nearAmslM : result.geometry.farAmslM) - own.mountAglM;
    field.take(mastFigureBox(end, ray, scale, groundM));
    const dimensionX = end === "near" ? x + 46 : x - 46;
    field.line([
      [dimensionX, top],
      [dimensionX, scale.y(groundM)],
    ]);
    field.take(end === "near" ? { x0: x, y0: 8, x1: x + 220, y1: 44 } : { x0: x - 220, y0: 8, x1: x, y1: 44 });
    const clears = end === "near" ? props.clearsFrom.nearAglM : props.clearsFrom.farAglM;
    if (clears !== null) {
      const y = scale.y(groundM + clears);
      field.take(end === "near" ? { x0: x, y0: y - 14, x1: x + 150, y1: y + 30 } : { x0: x - 150, y0: y - 14, x1: x, y1: y + 30 });
    }
  }
  return field;
};

export interface WorstPlacing {
  readonly box: Box;
  readonly size: number;
  readonly x: number;
  readonly y: number;
  readonly sentenceX: number;
  readonly anchor: "start" | "end";
  /** Whether the sentence stands beside the figure, or the figure stands alone. */
  readonly withWords: boolean;
}

const SIZES = [46, 34, 24, 16];
const STEP_PX = 8;
const BESIDE_PX = 34;
const SENTENCE_PX = 13;
/** Mean width of its letters in its size; figures and narrow letters prevail. */
const SENTENCE_LETTER = 0.48;

/** Width of the large figure, heavy: digits, point, space, unit. */
const widthOfBig = (text: string, size: number): number =>
  ([...text].reduce((sum, c) => sum + (c === "m" ? 41 : c === "." ? 12 : /\d/.test(c) ? 28 : 15), 0) * size) / 46;

/** Places of the worst figure in one size, nearest to its dimension first. */
const worstPlaces = (props: SectionProps, worst: WorstPlace, withWords: boolean, size: number): WorstPlacing[] => {
  const { result, ray, scale, units, plan } = props;
  const words = worstWords(result, units, plan.near.name);
  const x = Math.min(scale.width - 12, Math.max(12, scale.x(worst.atM)));
  const inside = Math.min(ray.endM, Math.max(ray.startM, worst.atM));
  const lensFoot = scale.y(rayZM(ray, inside) - f1RadiusM(ray, inside));
  const lensTop = scale.y(rayZM(ray, inside) + f1RadiusM(ray, inside));
  const worstTop = scale.y(worst.zAmslM);
  const middle = (scale.x(ray.startM) + scale.x(ray.endM)) / 2;
  const sides: readonly ("start" | "end")[] = x < middle ? ["start", "end"] : ["end", "start"];
  const big = widthOfBig(words.big, size);
  const sentence = withWords ? Math.max(...words.lines.map((l) => l.length)) * SENTENCE_PX * SENTENCE_LETTER + 12 : 0;
  const tall = withWords ? Math.max(size, 48) : size;
  const rows = (from: number, count: number, stepPx: number): number[] => Array.from({ length: count }, (_, i) => from + i * stepPx);
  const heights = [
    // What is left to spare stands in the gap that it measures, where that is tall enough.
    ...rows(lensFoot + tall * 0.9 + 4, Math.max(0, Math.floor((worstTop - lensFoot - tall) / STEP_PX)), STEP_PX),
    ...rows(Math.max(lensFoot, worstTop) + tall * 0.9 + 4, 24, STEP_PX),
    ...rows(lensTop - 14, 14, -STEP_PX),
  ];
  return [BESIDE_PX, 80, 140, 220].flatMap((away) =>
    sides.flatMap((anchor) => {
      const way = anchor === "start" ? 1 : -1;
      const at = x + way * (away + 12);
      const reach = at + way * (big + sentence);
      return heights.map((y) => ({
        box: { x0: Math.min(at, reach), y0: y - tall * 0.86, x1: Math.max(at, reach), y1: y + 5 },
        size,
        x: at,
        y,
        sentenceX: at + way * (big + 12),
        anchor,
        withWords,
      }));
    }),
  );
};

/** The figure as large as it finds room for, with its words before without. */
const placeWorst = (props: SectionProps, field: CaptionField): WorstPlacing | null => {
  const { worst } = props.result.clearance;
  if (worst === null) return null;
  for (const withWords of [true, false]) {
    for (const size of SIZES) {
      const place = field.place(worstPlaces(props, worst, withWords, size));
      if (place !== null) return place;
    }
  }
  return null;
};

/** The dimension of the worst place, which later captions keep off. */
const arrowLine = ({ ray, scale, result }: SectionProps, w: WorstPlace, anchor: "start" | "end"): Point[] => {
  const inside = Math.min(ray.endM, Math.max(ray.startM, w.atM));
  const zone = scale.y(rayZM(ray, inside) - result.clearance.policyShare * f1RadiusM(ray, inside));
  const top = scale.y(w.zAmslM + rayBulgeM(ray, inside));
  const x = scale.x(w.atM) + (anchor === "end" ? -BESIDE_PX : BESIDE_PX);
  return [
    [x, Math.min(zone, top) - 26],
    [x, Math.max(zone, top) + 26],
  ];
};

export interface ZonePlacing {
  readonly box: Box;
  readonly transform: string;
}

function* zoneCandidates(props: SectionProps, text: string): Generator<ZonePlacing> {
  const { ray, scale, result } = props;
  const lengthM = ray.endM - ray.startM;
  const worstAtM = result.clearance.worst?.atM ?? ray.startM;
  // The side of the path that the worst place leaves free comes first.
  const shares = worstAtM > ray.startM + lengthM / 2 ? [0.34, 0.25, 0.42, 0.64, 0.72] : [0.64, 0.72, 0.56, 0.34, 0.25];
  const slope = Math.atan2(scale.y(ray.endZM) - scale.y(ray.startZM), scale.x(ray.endM) - scale.x(ray.startM));
  for (const share of shares) {
    const xM = ray.startM + lengthM * share;
    const f1 = f1RadiusM(ray, xM);
    const upper = scale.y(rayZM(ray, xM) + f1);
    const thick = scale.y(rayZM(ray, xM) - f1) - upper;
    for (const dy of [...(thick > 64 ? [15, 18] : []), -6, -10, -16]) {
      const [cx, cy] = [scale.x(xM), upper + dy];
      const flat = textBox(text, 0, 0, 12, "middle");
      const corners = [
        [flat.x0, flat.y0],
        [flat.x1, flat.y0],
        [flat.x0, flat.y1],
        [flat.x1, flat.y1],
      ].map(([px, py]) => [cx + px! * Math.cos(slope) - py! * Math.sin(slope), cy + px! * Math.sin(slope) + py! * Math.cos(slope)]);
      const box = around(corners.map(([px, py]) => ({ x0: px!, y0: py!, x1: px!, y1: py! })));
      yield { box, transform: `translate(${cx} ${cy}) rotate(${(slope * 180) / Math.PI})` };
    }
  }
}

export interface SpotPlacing {
  readonly box: Box;
  readonly x: number;
  readonly y: number;
  readonly anchor: "start" | "middle" | "end";
}

const AWAY_PX = [6, 16, 30, 46, 64, 88, 120, 160, 210];

/** Beside a spot: above it, below it, to its right and left, farther and farther away. */
function* spotCandidates(text: string, x: number, y: number, distances = AWAY_PX.length): Generator<SpotPlacing> {
  for (const away of AWAY_PX.slice(0, distances)) {
    for (const [dx, dy, anchor] of [
      [0, -away, "middle"],
      [0, away + 10, "middle"],
      [away + 4, 4, "start"],
      [-away - 4, 4, "end"],
      [away, -away, "start"],
      [-away, -away, "end"],
    ] as const) {
      yield { box: textBox(text, x + dx, y + dy, 12, anchor), x: x + dx, y: y + dy, anchor };
    }
  }
}

export interface SectionCaptions {
  readonly worst: WorstPlacing | null;
  readonly years: readonly { readonly text: string; readonly x: number; readonly y: number }[];
  readonly zone: (ZonePlacing & { readonly text: string }) | null;
  readonly tide: SpotPlacing | null;
  readonly ghost: (SpotPlacing & { readonly text: string }) | null;
  readonly zones: readonly (SpotPlacing & { readonly text: string })[];
}

/** Years dotted above the worst crown, each beside its arch. */
const growthYears = (props: SectionProps): { text: string; x: number; y: number }[] => {
  const { path, plan, result, scale, ray } = props;
  const owner = result.clearance.worst?.owner;
  const b = owner?.kind === "body" ? path.standing.find((s) => s.body.id === owner.id) : undefined;
  const [stretch] = b?.stretches ?? [];
  if (b === undefined || stretch === undefined || !b.vegetation || b.body.growthMPerYear <= 0) return [];
  const from = Math.max(0, stretch.fromM);
  const to = Math.min(ray.pathM, stretch.toM);
  const mid = (from + to) / 2;
  const { year, horizonYears } = plan.policy;
  const width = Math.max(b.body.kind === "hedge" ? 4 : 13, scale.x(to) - scale.x(from));
  const x = (scale.x(from) + scale.x(to)) / 2 + width / 2 + 5;
  return [...new Set([1, Math.ceil(horizonYears / 2), horizonYears])]
    .filter((n) => n > 0)
    .map((n) => ({ text: String(year + n), x, y: scale.y(b.topAt(year + n)(mid) + rayBulgeM(ray, mid)) + 4 }));
};

/** Shares of the way at which the name of another zone is tried, in turn. */
const ZONE_NAMES_AT = [0.5, 0.42, 0.58, 0.34, 0.66];

/** Every caption of the section with its place; what found none is null or left out. */
export const sectionCaptions = (props: SectionProps): SectionCaptions => {
  const { result, ray, scale, units, path, plan } = props;
  const field = fieldOf(props);
  const worst = placeWorst(props, field);
  if (worst !== null && result.clearance.worst !== null) field.line(arrowLine(props, result.clearance.worst, worst.anchor));
  // What is looked at now comes before what always stands there.
  const name = props.ghost === null ? null : ghostName(props.ghost, path, plan, ray, scale);
  const ghost = name === null ? null : field.place([...spotCandidates(name.text, name.x, name.y)]);
  const lower = props.zones.map((z) => alongRay(z.ray, scale, -result.clearance.policyShare));
  const zones = props.zones.flatMap((z, i) => {
    const spots = ZONE_NAMES_AT.map((share) => lower[i]![Math.round(share * (lower[i]!.length - 1))]!);
    const place = field.place(spots.flatMap(([x, y]) => [...spotCandidates(z.name, x, y, 2)]));
    return place === null ? [] : [{ ...place, text: z.name }];
  });
  const years = growthYears(props).filter((y) => field.place([{ box: textBox(y.text, y.x, y.y, 12, "start") }]) !== null);
  const atM = result.clearance.worst?.atM ?? path.profile.pathM / 2;
  const zoneText = `F1, ${lengthText(units, f1RadiusM(ray, atM))} at the worst place`;
  const zone = field.place([...zoneCandidates(props, zoneText)]);
  const tide = tideCaption(path, ray, scale, plan.water.tideRangeM, units);
  return {
    worst,
    years,
    zone: zone === null ? null : { ...zone, text: zoneText },
    // The water's own caption stands on its surface: the water is not a line to it.
    tide:
      tide === null
        ? null
        : field.place(
            [0, -120, 120, -240, 240].map((dx) => ({
              box: textBox(tide.text, tide.x + dx, tide.y, 12, "middle"),
              x: tide.x + dx,
              y: tide.y,
              anchor: "middle" as const,
            })),
          ),
    zones,
    ghost: ghost === null || name === null ? null : { ...ghost, text: name.text },
  };
};
