import { needOwnSignIn } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { endOwnSession } from "@/service/people/account";

/** Ends one of one's own sessions. */
export const DELETE = (request: Request, { params }: { params: Promise<{ sessionId: string }> }): Promise<Response> =>
  handle(request, "own-account", async () => {
    needOwnSignIn();
    await endOwnSession(doors(), uuid.parse((await params).sessionId));
  });
