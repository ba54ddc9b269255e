import { z } from "zod";
import { db } from "@/app/_server/db";
import { handle, parseQuery } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { Refused } from "@/data/clash";
import { filePath } from "@/data/files";
import { getUpload } from "@/data/imports";
import { previewFile } from "@/service/preview";

type Context = { params: Promise<{ uploadId: string }> };
const schema = z.object({
  epsg: z.coerce.number().int().optional(),
  lat: z.string().max(100).optional(),
  lon: z.string().max(100).optional(),
});

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => {
    const row = await getUpload(db(), uuid.parse((await params).uploadId));
    if (row.receivedBytes < row.sizeBytes) throw new Refused("upload-unfinished", "file", { name: row.name });
    const q = parseQuery(request, schema);
    return previewFile(filePath(row.id), row.name, { epsg: q.epsg ?? null, latColumn: q.lat, lonColumn: q.lon });
  });
