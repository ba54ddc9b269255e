import type { PreviewDto } from "../contract";
import { type LatLon, planeProjection } from "../core/geo";
import {
  cellMetres,
  columnsOf,
  coordinateSystem,
  isTerrainFile,
  lookAtTerrain,
  type RawShape,
  readVector,
  sigmaOfCell,
  type TerrainSource,
  type VectorQuestion,
} from "../formats";
import { farReason } from "./import-rows";

/** Features looked at, shapes sent for drawing, faults shown. */
const MOST_SEEN = 3000;
const MOST_SHAPES = 1500;
const MOST_FAULTS = 20;
const WINDOW_CELLS = 128;
const SIDE_POINTS = 12;

const heightsOf = async (
  source: TerrainSource,
): Promise<{ lowest: number | null; highest: number | null; unknownShare: number | null }> => {
  let lowest = Number.POSITIVE_INFINITY;
  let highest = Number.NEGATIVE_INFINITY;
  let unknown = 0;
  let all = 0;
  // A few windows tell enough: corners and the middle.
  for (const [u, v] of [
    [0.5, 0.5],
    [0, 0],
    [1, 0],
    [0, 1],
    [1, 1],
  ] as const) {
    const left = Math.floor(Math.max(0, source.cols - WINDOW_CELLS) * u);
    const top = Math.floor(Math.max(0, source.rows - WINDOW_CELLS) * v);
    const heights = await source.read(left, top, Math.min(source.cols, left + WINDOW_CELLS), Math.min(source.rows, top + WINDOW_CELLS));
    for (const h of heights) {
      all++;
      if (Number.isNaN(h)) unknown++;
      else {
        if (h < lowest) lowest = h;
        if (h > highest) highest = h;
      }
    }
  }
  return {
    lowest: Number.isFinite(lowest) ? lowest : null,
    highest: Number.isFinite(highest) ? highest : null,
    unknownShare: all === 0 ? null : unknown / all,
  };
};

const ringOf = (source: TerrainSource, crs: string): [number, number][] | null => {
  const projection = planeProjection(crs);
  const right = source.originX + (source.cols - 1) * source.stepX;
  const bottom = source.originY + (source.rows - 1) * source.stepY;
  const corners: [number, number][] = [
    [source.originX, source.originY],
    [right, source.originY],
    [right, bottom],
    [source.originX, bottom],
    [source.originX, source.originY],
  ];
  const out: [number, number][] = [];
  for (let i = 0; i < 4; i++) {
    for (let k = 0; k < SIDE_POINTS; k++) {
      const [a, b] = [corners[i]!, corners[i + 1]!];
      const p = projection.inverse(a[0] + ((b[0] - a[0]) * k) / SIDE_POINTS, a[1] + ((b[1] - a[1]) * k) / SIDE_POINTS);
      if (!Number.isFinite(p.latDeg) || !Number.isFinite(p.lonDeg) || Math.abs(p.latDeg) > 90) return null;
      out.push([p.lonDeg, p.latDeg]);
    }
  }
  return out;
};

const terrainPreview = async (path: string, name: string, question: VectorQuestion): Promise<PreviewDto> => {
  const source = await lookAtTerrain(path, name);
  try {
    const epsg = question.epsg ?? source.epsg;
    const system = epsg === null ? null : coordinateSystem(epsg);
    const cellM = system === null ? null : cellMetres(system, source.stepY);
    return {
      kind: "terrain",
      format: source.format,
      cols: source.cols,
      rows: source.rows,
      epsg,
      systemName: system?.name ?? null,
      offM: system?.offM ?? 0,
      cellM,
      verticalUnit: source.verticalUnit,
      ...(source.format === "ASCII grid" ? { lowest: null, highest: null, unknownShare: null } : await heightsOf(source)),
      ring: system === null ? null : ringOf(source, system.definition ?? system.crs),
      sigmaM: cellM === null ? null : sigmaOfCell(cellM),
    };
  } finally {
    await source.close();
  }
};

const drawn = (s: RawShape): { type: "point" | "line" | "polygon"; points: [number, number][] } => {
  const points = s.type === "point" ? [s.at] : s.type === "line" ? s.points : s.outline;
  return { type: s.type, points: points.map((p) => [p.lonDeg, p.latDeg]) };
};

const placesPreview = async (path: string, name: string, question: VectorQuestion, known: readonly LatLon[]): Promise<PreviewDto> => {
  const isFar = farReason(known);
  const notes: { row: number; reason: string }[] = [];
  let far = 0;
  let swapped = 0;
  let farKm: string | null = null;
  const samples = new Map<string, { sample: string; numeric: boolean }>();
  const counts = { point: 0, line: 0, polygon: 0 };
  const shapes: ReturnType<typeof drawn>[] = [];
  const faults: { row: number; reason: string }[] = [];
  let seen = 0;
  let own: "sites" | "obstacles" | "features" | null = null;
  const format = await readVector(path, name, question, {
    feature: (f) => {
      seen++;
      counts[f.shape.type]++;
      const away = isFar(f);
      if (away !== null) {
        far++;
        if (away.swapped) swapped++;
        farKm ??= /lies ([\d.]+) km/.exec(away.reason)?.[1] ?? null;
      }
      if (shapes.length < MOST_SHAPES) shapes.push(drawn(f.shape));
      if (seen === 1)
        own = "mountAglM" in f.properties ? "sites" : "heightM" in f.properties && "kind" in f.properties ? "obstacles" : null;
      for (const [key, value] of Object.entries(f.properties)) {
        if (value === null || value === "") continue;
        const known = samples.get(key);
        const numeric = typeof value === "number" || /^\s*-?\d+([.,]\d+)?\s*(m|ft)?\s*$/.test(String(value));
        if (known === undefined) samples.set(key, { sample: String(value).slice(0, 40), numeric });
        else if (!numeric) known.numeric = false;
      }
    },
    fault: (fault) => {
      seen++;
      if (faults.length < MOST_FAULTS) faults.push(fault);
    },
    note: (note) => {
      if (notes.length < MOST_FAULTS) notes.push(note);
    },
    enough: () => seen >= MOST_SEEN,
  });
  const columns = [...samples].map(([column, s]) => ({ name: column, ...s }));
  const guess = columnsOf(columns.map((c) => c.name));
  return {
    kind: "places",
    format,
    seen,
    more: seen >= MOST_SEEN,
    points: counts.point,
    lines: counts.line,
    polygons: counts.polygon,
    columns,
    lat: guess.lat ?? guess.position,
    lon: guess.lon,
    shapes,
    faults,
    notes,
    far,
    farKm: farKm === null ? null : Number(farKm),
    swapped,
    own,
    problem: seen > 0 && seen === faults.length ? faults[0]!.reason : null,
  };
};

/** Looks into a file: what it holds, what it says of itself, and what it leaves to be asked. @throws FileFault. */
export const previewFile = async (
  path: string,
  name: string,
  question: VectorQuestion,
  /** Where the job is at home: what lies far from there is asked about. */
  known: readonly LatLon[],
): Promise<PreviewDto> => {
  if (await isTerrainFile(path, name)) return terrainPreview(path, name, question);
  return placesPreview(path, name, question, known);
};
