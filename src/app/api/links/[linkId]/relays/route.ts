import { db } from "@/app/_server/db";
import { parseBody } from "@/app/_server/handle";
import { streamed } from "@/app/_server/stream";
import { relaysSchema, uuid } from "@/contract";
import { relaysAt } from "@/service/relays";

type Context = { params: Promise<{ linkId: string }> };

/** Both legs of a relay at each spot asked for. Nothing is changed. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  streamed(request, async () => relaysAt(db(), uuid.parse((await params).linkId), await parseBody(request, relaysSchema)));
