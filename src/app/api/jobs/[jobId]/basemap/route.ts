import { z } from "zod";
import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { type BasemapDto, basemapSchema, uuid } from "@/contract";
import { type BasemapRow, basemapOf, setBasemap } from "@/data/basemaps";
import { NotFound } from "@/data/clash";
import { getUpload } from "@/data/imports";
import { getJob } from "@/data/jobs";
import { checkPmtiles } from "@/service/tiles";

type Context = { params: Promise<{ jobId: string }> };

const dto = (row: BasemapRow | null): { basemap: BasemapDto | null } => ({
  basemap: row === null ? null : { id: row.id, kind: row.kind === "xyz" ? "xyz" : "pmtiles", name: row.name, credit: row.credit },
});

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => dto(await basemapOf(db(), uuid.parse((await params).jobId))));

/** Lays a map beneath the drawing; null takes it away. */
export const PUT = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const job = await getJob(db(), uuid.parse((await params).jobId));
    const { basemap } = await parseBody(request, z.object({ basemap: basemapSchema.nullable() }));
    if (basemap?.kind === "pmtiles") {
      const file = await getUpload(db(), basemap.uploadId);
      if (file.jobId !== job.id || file.receivedBytes < file.sizeBytes) throw new NotFound("file");
      await checkPmtiles(file.id);
    }
    return dto(await setBasemap(db(), job.id, basemap));
  });
