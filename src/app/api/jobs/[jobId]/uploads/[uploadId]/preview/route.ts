import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { LOOK, readers } from "@/app/_server/readers";
import { uuid } from "@/contract";
import { Refused } from "@/data/clash";
import { filePath } from "@/data/files";
import { getUpload } from "@/data/imports";
import { placesOf } from "@/data/jobs";

type Context = { params: Promise<{ jobId: string; uploadId: string }> };
const schema = z.object({
  epsg: z.number().int().min(1).max(999_999).nullable().default(null),
  lat: z.string().max(100).optional(),
  lon: z.string().max(100).optional(),
  swapped: z.boolean().optional(),
});

/** A look into a file before it is taken in. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, async (job) => {
    const row = await getUpload(db(), uuid.parse((await params).uploadId), job.id);
    if (row.receivedBytes < row.sizeBytes) throw new Refused("upload-unfinished", "file", { name: row.name });
    const q = await parseBody(request, schema);
    const question = { epsg: q.epsg, latColumn: q.lat, lonColumn: q.lon, swapped: q.swapped };
    const known = await placesOf(db(), job.id);
    return readers().quick.run("preview", { path: filePath(row.id), name: row.name, question, known }, LOOK, request.signal);
  });
