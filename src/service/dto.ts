import {
  type DatasetDto,
  groundToldSchema,
  type HardwareDto,
  type ImportDto,
  type JobDto,
  type KeptDesignDto,
  type LinkDto,
  lonLats,
  type ObstacleDto,
  type PartDto,
  type SiteDto,
  type UploadDto,
} from "../contract";
import type { Db } from "../data/client";
import { hardwareKey, listAntennas, listParts, listRadios, partsKey } from "../data/hardware";
import type { ImportRow, UploadRow } from "../data/imports";
import type { DesignRow, JobRow, LinkWithDesign, SiteRow } from "../data/jobs";
import type { ObstacleRow } from "../data/obstacles";
import type { datasetsCovering } from "../data/terrain-store";
import { antennaSchema, partSchema, radioSchema } from "../formats";

export const jobDto = (row: JobRow): JobDto => {
  const { createdAt: _c, deletedAt: _d, organisationId: _o, updatedAt, ...rest } = row;
  return { ...rest, updatedAt: updatedAt.toISOString() } as JobDto;
};

export const siteDto = (row: SiteRow): SiteDto => {
  const { createdAt: _c, deletedAt: _d, updatedAt: _u, jobId: _j, importId: _i, ...rest } = row;
  return rest;
};

export const designDto = (row: DesignRow): LinkDto["design"] => {
  const { createdAt: _c, deletedAt: _d, updatedAt: _u, linkId: _l, chosen: _h, name: _n, ...rest } = row;
  return rest as LinkDto["design"];
};

export const keptDesignDto = (row: DesignRow): KeptDesignDto => ({ ...designDto(row), name: row.name });

export const linkDto = (row: LinkWithDesign): LinkDto => ({
  id: row.id,
  number: row.number,
  nearSiteId: row.nearSiteId,
  farSiteId: row.farSiteId,
  label: row.label,
  stage: row.stage,
  groundTold: groundToldSchema
    .nullable()
    .catch(null)
    .parse(row.groundTold ?? null),
  version: row.version,
  updatedAt: (row.design.updatedAt > row.updatedAt ? row.design.updatedAt : row.updatedAt).toISOString(),
  design: designDto(row.design),
});

/** Sheets checked before, by what they are: checking a catalogue takes longer than reading it. */
let checkedSheets: { readonly key: string; readonly dto: HardwareDto } | null = null;

/** The catalogue; a stored sheet that no longer fits its schema is left out rather than trusted. */
export const hardwareDto = async (db: Db): Promise<HardwareDto> => {
  const key = await hardwareKey(db);
  if (checkedSheets?.key === key) return checkedSheets.dto;
  const [radios, antennas] = await Promise.all([listRadios(db), listAntennas(db)]);
  const dto: HardwareDto = {
    radios: radios.flatMap((r) => {
      const sheet = radioSchema.safeParse(r.sheet);
      return sheet.success ? [{ ...sheet.data, source: r.source }] : [];
    }),
    antennas: antennas.flatMap((a) => {
      const sheet = antennaSchema.safeParse(a.sheet);
      return sheet.success ? [{ ...sheet.data, source: a.source }] : [];
    }),
  };
  checkedSheets = { key, dto };
  return dto;
};

let checkedParts: { readonly key: string; readonly parts: readonly PartDto[] } | null = null;

/** Sheets of what is wired, each checked; one that a later program would write is left out. */
export const partsDto = async (db: Db): Promise<readonly PartDto[]> => {
  const key = await partsKey(db);
  if (checkedParts?.key === key) return checkedParts.parts;
  const parts = (await listParts(db)).flatMap((p): PartDto[] => {
    const sheet = partSchema.safeParse(p.sheet);
    return sheet.success ? [{ ...sheet.data, source: p.source }] : [];
  });
  checkedParts = { key, parts };
  return parts;
};

export const obstacleDto = (o: ObstacleRow): ObstacleDto => ({
  id: o.id,
  name: o.name,
  kind: o.kind,
  outline: lonLats(o.outline),
  holes: o.holes.map(lonLats),
  baseAmslM: o.baseAmslM,
  heightM: o.heightM,
  crownBaseM: o.crownBaseM,
  freeBelowM: o.freeBelowM ?? 0,
  growthMPerYear: o.growthMPerYear,
  heightSigmaM: o.heightSigmaM,
  species: o.species,
  leaf: o.leaf as ObstacleDto["leaf"],
  source: o.source,
  heightSource: o.heightSource,
  surveyedOn: o.surveyedOn,
  version: o.version,
});

export const datasetDto = (d: Awaited<ReturnType<typeof datasetsCovering>>[number]): DatasetDto => ({
  id: d.id,
  name: d.name,
  kind: d.kind === "dsm" ? "dsm" : "dtm",
  crs: d.crs,
  cols: d.cols,
  rows: d.rows,
  cellM: d.cellM,
  sigmaM: d.sigmaM,
  verticalDatum: d.verticalDatum,
  datumOffsetM: d.datumOffsetM,
  source: d.source,
  importId: d.importId,
  ring: d.ring,
});

export const importDto = (row: ImportRow): ImportDto => ({
  id: row.id,
  fileName: row.fileName,
  what: row.what as ImportDto["what"],
  state: row.state as ImportDto["state"],
  doneShare: row.doneShare,
  result: row.result as ImportDto["result"],
  fault: row.fault,
  updatedAt: row.updatedAt.toISOString(),
});

export const uploadDto = (row: UploadRow): UploadDto => ({
  id: row.id,
  name: row.name,
  sizeBytes: row.sizeBytes,
  receivedBytes: row.receivedBytes,
});
