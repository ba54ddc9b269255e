import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { endWebhook } from "@/service/people/webhooks";

type Context = { params: Promise<{ webhookId: string }> };

/** Ends an address: it is told nothing more. */
export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "edit-people", async () => endWebhook(doors(), uuid.parse((await params).webhookId)));
