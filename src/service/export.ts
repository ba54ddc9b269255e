import type { JobDto } from "../contract";
import { inverse } from "../core/geo";
import type { Db } from "../data/client";
import { type JobRow, linksOf, sitesOf } from "../data/jobs";
import { featuresOf, obstaclesOf } from "../data/obstacles";
import {
  csvText,
  featureCollection,
  gpxText,
  kmlText,
  lineFeature,
  type Placed,
  pointFeature,
  polygonFeature,
  tableRows,
} from "../formats";
import { linkDto, obstacleDto, siteDto } from "./dto";
import { endPositions } from "./profile";

export type ExportWhat = "sites" | "links" | "obstacles" | "features";
export type ExportFormat = "geojson" | "kml" | "gpx" | "csv";

const EVERYWHERE = { westDeg: -180, southDeg: -90, eastDeg: 180, northDeg: 90 };
const MOST_ROWS = 1_000_000;

const thingsOf = async (db: Db, job: JobRow, what: ExportWhat): Promise<Placed[]> => {
  if (what === "obstacles") {
    const rows = await obstaclesOf(db, job.id, EVERYWHERE, MOST_ROWS);
    return rows.map((o) => {
      const { id: _i, version: _v, outline: _o, name, ...properties } = obstacleDto(o);
      return { name, shape: "polygon", points: o.outline, properties };
    });
  }
  if (what === "features") {
    const rows = await featuresOf(db, job.id);
    return rows.map((f) => ({ name: f.name, shape: f.points.length === 1 ? "point" : "line", points: f.points, properties: {} }));
  }
  const sites = await sitesOf(db, job.id);
  if (what === "sites") {
    return sites.map((row) => {
      const { id: _i, version: _v, name, latDeg, lonDeg, ...properties } = siteDto(row);
      return { name, shape: "point", points: [{ latDeg, lonDeg }], properties };
    });
  }
  return (await linksOf(db, job.id)).flatMap((row) => {
    const near = sites.find((s) => s.id === row.nearSiteId);
    const far = sites.find((s) => s.id === row.farSiteId);
    if (near === undefined || far === undefined) return [];
    const ends = endPositions(row, near, far);
    const { id: _d, version: _v, trimsM: _t, ...design } = linkDto(row).design;
    return {
      name: `${near.name} to ${far.name}`,
      shape: "line",
      points: [ends.near, ends.far],
      properties: {
        number: row.number,
        near: near.name,
        far: far.name,
        label: row.label,
        stage: row.stage,
        distanceM: inverse(ends.near, ends.far).distanceM,
        ...design,
      },
    };
  });
};

const asGeoJson = (things: readonly Placed[]): string =>
  featureCollection(
    things.map((t) => {
      const properties = { name: t.name, ...t.properties };
      if (t.shape === "point") return pointFeature(t.points[0]!, properties);
      return t.shape === "line" ? lineFeature(t.points, properties) : polygonFeature(t.points, properties);
    }),
  );

const TYPES: Readonly<Record<ExportFormat, string>> = {
  geojson: "application/geo+json",
  kml: "application/vnd.google-earth.kml+xml",
  gpx: "application/gpx+xml",
  csv: "text/csv; charset=utf-8",
};

/** A part of a job as an open file: its text, its type, and a name for it. */
export const exportJob = async (
  db: Db,
  job: JobRow,
  what: ExportWhat,
  format: ExportFormat,
): Promise<{ text: string; type: string; name: string }> => {
  const things = await thingsOf(db, job, what);
  const title = `${job.name}, ${what}`;
  const text =
    format === "geojson"
      ? asGeoJson(things)
      : format === "kml"
        ? kmlText(title, things)
        : format === "gpx"
          ? gpxText(title, things)
          : csvText(tableRows(things));
  return { text, type: TYPES[format], name: `${fileName(job.name)}-${what}.${format}` };
};

/** A job's name as a file's. */
export const fileName = (name: JobDto["name"]): string =>
  name
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, "-")
    .replaceAll(/^-|-$/g, "") || "job";
