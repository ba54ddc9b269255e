import type { HardwareDto, JobDto, LinkDto, SiteDto } from "../contract";
import type { Db } from "../data/client";
import { listAntennas, listRadios } from "../data/hardware";
import type { DesignRow, JobRow, LinkWithDesign, SiteRow } from "../data/jobs";
import { antennaSchema, radioSchema } from "../formats";

export const jobDto = (row: JobRow): JobDto => {
  const { createdAt: _c, deletedAt: _d, updatedAt, ...rest } = row;
  return { ...rest, updatedAt: updatedAt.toISOString() } as JobDto;
};

export const siteDto = (row: SiteRow): SiteDto => {
  const { createdAt: _c, deletedAt: _d, updatedAt: _u, jobId: _j, ...rest } = row;
  return rest;
};

export const designDto = (row: DesignRow): LinkDto["design"] => {
  const { createdAt: _c, deletedAt: _d, updatedAt: _u, linkId: _l, chosen: _h, ...rest } = row;
  return rest as LinkDto["design"];
};

export const linkDto = (row: LinkWithDesign): LinkDto => ({
  id: row.id,
  number: row.number,
  nearSiteId: row.nearSiteId,
  farSiteId: row.farSiteId,
  label: row.label,
  stage: row.stage,
  version: row.version,
  updatedAt: (row.design.updatedAt > row.updatedAt ? row.design.updatedAt : row.updatedAt).toISOString(),
  design: designDto(row.design),
});

/** The catalogue; a stored sheet that no longer fits its schema is left out rather than trusted. */
export const hardwareDto = async (db: Db): Promise<HardwareDto> => {
  const [radios, antennas] = await Promise.all([listRadios(db), listAntennas(db)]);
  return {
    radios: radios.flatMap((r) => {
      const sheet = radioSchema.safeParse(r.sheet);
      return sheet.success ? [{ ...sheet.data, source: r.source }] : [];
    }),
    antennas: antennas.flatMap((a) => {
      const sheet = antennaSchema.safeParse(a.sheet);
      return sheet.success ? [{ ...sheet.data, source: a.source }] : [];
    }),
  };
};
