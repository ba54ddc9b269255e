import { open } from "node:fs/promises";
import type { JobDto } from "../contract";
import { inverse } from "../core/geo";
import type { Db } from "../data/client";
import { type JobRow, linksOf, sitesOf } from "../data/jobs";
import { everyObstacle, featuresOf } from "../data/obstacles";
import { type Placed, type Written, writeAll, writePlaces } from "../formats";
import { linkDto, obstacleDto, siteDto } from "./dto";
import { endPositions } from "./profile";

export type ExportWhat = "sites" | "links" | "obstacles" | "features";
export type ExportFormat = Written;

async function* thingsOf(db: Db, job: JobRow, what: ExportWhat): AsyncGenerator<readonly Placed[]> {
  if (what === "obstacles") {
    for await (const rows of everyObstacle(db, job.id))
      yield rows.map((o): Placed => {
        const { id: _i, version: _v, outline: _o, holes: _h, name, ...properties } = obstacleDto(o);
        return { name, shape: "polygon", points: o.outline, holes: o.holes, properties };
      });
    return;
  }
  if (what === "features") {
    const rows = await featuresOf(db, job.id);
    // Points before lines: some formats want them in this order. All at once: a table's columns are those of both.
    const ordered = [...rows.filter((f) => f.points.length === 1), ...rows.filter((f) => f.points.length > 1)];
    yield ordered.map((f) => ({ name: f.name, shape: f.points.length === 1 ? "point" : "line", points: f.points, properties: {} }));
    return;
  }
  const sites = await sitesOf(db, job.id);
  if (what === "sites") {
    yield sites.map((row) => {
      const { id: _i, version: _v, name, latDeg, lonDeg, ...properties } = siteDto(row);
      return { name, shape: "point", points: [{ latDeg, lonDeg }], properties };
    });
    return;
  }
  const at = new Map(sites.map((x) => [x.id, x]));
  yield (await linksOf(db, job.id)).flatMap((row): Placed[] => {
    const near = at.get(row.nearSiteId);
    const far = at.get(row.farSiteId);
    if (near === undefined || far === undefined) return [];
    const ends = endPositions(row, near, far);
    const { id: _d, version: _v, trimsM: _t, ...design } = linkDto(row).design;
    return [
      {
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
      },
    ];
  });
}

const TYPES: Readonly<Record<ExportFormat, string>> = {
  geojson: "application/geo+json",
  kml: "application/vnd.google-earth.kml+xml",
  gpx: "application/gpx+xml",
  csv: "text/csv; charset=utf-8",
};

/** Type of such a file, and a name for it. */
export const exportHead = (job: JobRow, what: ExportWhat, format: ExportFormat): { type: string; name: string } => ({
  type: TYPES[format],
  name: `${fileName(job.name)}-${what}.${format}`,
});

/** Writes a part of a job as an open file, piece by piece. */
export const writeExport = async (db: Db, job: JobRow, what: ExportWhat, format: ExportFormat, path: string): Promise<void> => {
  const out = await open(path, "w");
  try {
    for await (const text of writePlaces(format, `${job.name}, ${what}`, thingsOf(db, job, what)))
      await writeAll(out, Buffer.from(text, "utf8"));
  } finally {
    await out.close();
  }
};

/** A job's name as a file's. */
export const fileName = (name: JobDto["name"]): string =>
  name
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, "-")
    .replaceAll(/^-|-$/g, "") || "job";
