import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { photoBytes } from "@/data/photos";

type Context = { params: Promise<{ jobId: string; photoId: string }> };

/** The picture itself. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-photos", params, async (job) => {
    const { mime, bytes } = await photoBytes(db(), job.id, uuid.parse((await params).photoId));
    return new Response(new Uint8Array(bytes), { headers: { "content-type": mime, "cache-control": "private, max-age=86400" } });
  });
