import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { patchPhotoSchema, uuid } from "@/contract";
import { photoBytes, updatePhoto } from "@/data/photos";
import { photoDto } from "@/service/dto";

type Context = { params: Promise<{ photoId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => {
    const { mime, bytes } = await photoBytes(db(), uuid.parse((await params).photoId));
    return new Response(new Uint8Array(bytes), {
      headers: {
        "content-type": mime,
        "cache-control": "private, max-age=86400",
        "content-security-policy": "default-src 'none'; sandbox",
      },
    });
  });

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const { version, ...fields } = await parseBody(request, patchPhotoSchema);
    return photoDto(await updatePhoto(db(), uuid.parse((await params).photoId), version, fields));
  });
