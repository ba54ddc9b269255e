import { readFileSync } from "node:fs";
import path from "node:path";
import { type LatLon, planeProjection } from "../core/geo";
import { FileFault } from "./file-fault";

export interface CoordinateSystem {
  readonly epsg: number;
  readonly name: string;
  /** proj definition, as the core's projections take it; null where the core knows the code itself. */
  readonly definition: string | null;
  /** Name to keep beside it, "EPSG:27700". */
  readonly crs: string;
  readonly geographic: boolean;
  /** How far positions may be off for want of a datum grid; 0 where the definition is exact. */
  readonly offM: number;
}

interface Entry {
  readonly kind: string;
  readonly name: string;
  readonly proj4: string | null;
  readonly area?: string;
}

/** Datums whose exact shift is a grid file that is not shipped, with the usual seven parameters instead (EPSG 1314, 1777, 1173). */
const GRID_INSTEAD: readonly { readonly grid: string; readonly towgs84: string; readonly offM: number }[] = [
  { grid: "OSTN15_NTv2_OSGBtoETRS.gsb", towgs84: "446.448,-125.157,542.06,0.15,0.247,0.842,-20.489", offM: 5 },
  { grid: "BETA2007.gsb", towgs84: "598.1,73.7,418.2,0.202,0.045,-2.455,6.7", offM: 3 },
  { grid: "NTv2_0.gsb", towgs84: "-8,160,176", offM: 10 },
];

let list: Record<string, Entry | undefined> | null = null;

/** The whole list, read once: 8 MB of a package, on the server only. */
const entries = (): Record<string, Entry | undefined> => {
  list ??= JSON.parse(readFileSync(path.join(process.cwd(), "node_modules/epsg-index/all.json"), "utf8")) as Record<
    string,
    Entry | undefined
  >;
  return list;
};

const usable = (e: Entry | undefined): e is Entry & { proj4: string } =>
  e !== undefined && e !== null && e.proj4 !== null && /^CRS-(PROJCRS|GEOGCRS|GEOG3DCRS)$/.test(e.kind);

/** A coordinate system by its EPSG code. @throws FileFault when it is not known, is no ground system, or needs a grid not shipped. */
export const coordinateSystem = (epsg: number): CoordinateSystem => {
  const crs = `EPSG:${epsg}`;
  if (epsg === 4326) return { epsg, name: "WGS 84", definition: null, crs, geographic: true, offM: 0 };
  const entry = entries()[String(epsg)];
  if (!usable(entry)) throw new FileFault(`${crs} is not a coordinate system for places on the ground that is known here`, "crs");
  const grid = /\+nadgrids=("[^"]*"|\S+)/.exec(entry.proj4);
  const base = { epsg, name: entry.name, crs, geographic: !entry.kind.includes("PROJ") };
  if (grid === null || grid[1] === "@null") return { ...base, definition: entry.proj4, offM: 0 };
  const instead = GRID_INSTEAD.find((g) => g.grid === grid[1]);
  if (instead === undefined) {
    throw new FileFault(
      `${crs} (${entry.name}) needs the datum grid ${grid[1]}, which does not ship; reproject the file to EPSG:4326 or a UTM zone first`,
      "crs",
    );
  }
  return { ...base, definition: entry.proj4.replace(grid[0]!, `+towgs84=${instead.towgs84}`), offM: instead.offM };
};

/** Systems whose code or name holds all the words asked for, projected ones first. */
export const searchSystems = (text: string, most = 20): { epsg: number; name: string; area: string }[] => {
  const words = text
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w !== "");
  if (words.length === 0) return [];
  const found: { epsg: number; name: string; area: string }[] = [];
  for (const [code, e] of Object.entries(entries())) {
    if (!usable(e)) continue;
    const hay = `epsg:${code} ${e.name}`.toLowerCase();
    if (words.every((w) => hay.includes(w))) found.push({ epsg: Number(code), name: e.name, area: e.area ?? "" });
    if (found.length >= most * 4) break;
  }
  const exact = Number(text.replace(/\D/g, ""));
  return found.sort((a, b) => Number(b.epsg === exact) - Number(a.epsg === exact) || a.name.length - b.name.length).slice(0, most);
};

/** The code within a name as files write it: EPSG:32627, urn:ogc:def:crs:EPSG::32627, OGC CRS84. */
export const epsgInName = (name: string): number | null => {
  if (/CRS:?:?84\b|CRS84/i.test(name)) return 4326;
  const m = /EPSG[:/]+(?:[\d.]*[:/])?(\d{4,6})\b/i.exec(name);
  return m === null ? null : Number(m[1]);
};

const onlyLetters = (name: string): string => name.toLowerCase().replace(/[^a-z0-9]/g, "");
/** Ways in which other writers name the same datums. */
const SPELLINGS: readonly (readonly [RegExp, string])[] = [
  [/wgs[_ ]1984/i, "WGS 84"],
  [/etrs[_ ]1989/i, "ETRS89"],
  [/nad[_ ]1983/i, "NAD83"],
  [/nad[_ ]1927/i, "NAD27"],
];

/**
 * The code of a system described as well-known text, as a .prj file has it: by its own code, else by its name.
 * @returns null when neither is known.
 */
export const epsgOfWkt = (wkt: string): number | null => {
  const text = wkt.slice(0, 20_000);
  const codes = [...text.matchAll(/(?:AUTHORITY|ID)\s*\[\s*"EPSG"\s*,\s*"?(\d{4,6})"?\s*\]\s*\]\s*$/gi)];
  const own = codes[codes.length - 1];
  if (own !== undefined && usable(entries()[own[1]!])) return Number(own[1]);
  const name = /^\s*(?:PROJCS|PROJCRS|GEOGCS|GEOGCRS)\s*\[\s*"([^"]{1,200})"/i.exec(text)?.[1];
  if (name === undefined) return null;
  const wanted = onlyLetters(SPELLINGS.reduce((n, [from, to]) => n.replace(from, to), name.replace(/^GCS_/i, "")));
  for (const [code, e] of Object.entries(entries())) if (usable(e) && onlyLetters(e.name) === wanted) return Number(code);
  return null;
};

/** Where a position in a system's own figures lies. @throws FileFault when the system is not known, or the place is none on earth. */
export const positionInSystem = (epsg: number, x: number, y: number): LatLon => {
  const system = coordinateSystem(epsg);
  const p = planeProjection(system.definition ?? system.crs).inverse(x, y);
  if (!(Math.abs(p.latDeg) <= 90 && Math.abs(p.lonDeg) <= 180))
    throw new FileFault(`${x}, ${y} lies outside ${system.crs} (${system.name})`, "crs");
  return p;
};
