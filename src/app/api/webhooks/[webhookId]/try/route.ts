import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { tryWebhook } from "@/service/people/webhooks";

type Context = { params: Promise<{ webhookId: string }> };

/** Calls an address now, with nothing to tell. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "edit-people", async () => tryWebhook(doors(), uuid.parse((await params).webhookId)));
