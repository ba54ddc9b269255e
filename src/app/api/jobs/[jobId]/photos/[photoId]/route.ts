import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { patchPhotoSchema, uuid } from "@/contract";
import { photoBytes, updatePhoto } from "@/data/photos";
import { photoDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string; photoId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "read", params, async (job) => {
    const { mime, bytes } = await photoBytes(db(), job.id, uuid.parse((await params).photoId));
    return new Response(new Uint8Array(bytes), { headers: { "content-type": mime, "cache-control": "private, max-age=86400" } });
  });

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "write", params, async () => {
    const { version, ...fields } = await parseBody(request, patchPhotoSchema);
    return photoDto(await updatePhoto(db(), uuid.parse((await params).photoId), version, fields));
  });
