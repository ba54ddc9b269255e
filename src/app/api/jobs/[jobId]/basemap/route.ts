import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { LOOK, readers } from "@/app/_server/readers";
import { type BasemapDto, basemapSchema } from "@/contract";
import { type BasemapRow, basemapOf, setBasemap } from "@/data/basemaps";
import { NotFound } from "@/data/clash";
import { getUpload } from "@/data/imports";

type Context = { params: Promise<{ jobId: string }> };

const dto = (row: BasemapRow | null): { basemap: BasemapDto | null } => ({
  basemap: row === null ? null : { id: row.id, kind: row.kind === "xyz" ? "xyz" : "pmtiles", name: row.name, credit: row.credit },
});

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-ground", params, async (job) => dto(await basemapOf(db(), job.id)));

/** Lays a map beneath the drawing; null takes it away. */
export const PUT = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, async (job) => {
    const { basemap } = await parseBody(request, z.object({ basemap: basemapSchema.nullable() }));
    if (basemap?.kind === "pmtiles") {
      const file = await getUpload(db(), basemap.uploadId, job.id);
      if (file.receivedBytes < file.sizeBytes) throw new NotFound("file");
      await readers().quick.run("checkTiles", { uploadId: file.id }, LOOK, request.signal);
    }
    return dto(await setBasemap(db(), job.id, basemap));
  });
