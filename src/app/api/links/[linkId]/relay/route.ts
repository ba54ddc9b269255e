import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { newRelaySchema, uuid } from "@/contract";
import { addRelay } from "@/service/new-relay";

type Context = { params: Promise<{ linkId: string }> };

/** Puts a relay between the ends of a link: one step of the history. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => addRelay(db(), uuid.parse((await params).linkId), await parseBody(request, newRelaySchema)));
