import { db } from "@/app/_server/db";
import { parseBody } from "@/app/_server/handle";
import { streamed } from "@/app/_server/stream";
import { placesSchema, uuid } from "@/contract";
import { placesAlong } from "@/service/places";

type Context = { params: Promise<{ linkId: string }> };

/** What the link comes to from other spots of one end. Nothing is changed. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  streamed(request, async () => placesAlong(db(), uuid.parse((await params).linkId), await parseBody(request, placesSchema)));
