import { parseBody } from "@/app/_server/body";
import { needOwnSignIn } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { webhookSchema } from "@/contract";
import { makeWebhook, webhookList } from "@/service/people/webhooks";

/** Addresses that are told of changes, newest first. */
export const GET = (request: Request): Promise<Response> => handle(request, "see-people", () => webhookList(doors()));

/** Makes one; what its calls are signed by is told once, in the answer. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "edit-people", async () => {
    needOwnSignIn();
    return makeWebhook(doors(), await parseBody(request, webhookSchema));
  });
