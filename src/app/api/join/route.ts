import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { countComing, letIn, needSignIn } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { acceptSchema, invitationLookSchema } from "@/contract";
import { acceptInvitation, lookAtInvitation } from "@/service/people/come-in";

const asked = z.union([acceptSchema, invitationLookSchema]);

/** Looks at an invitation, or joins by it. Its secret is posted, never in an address. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "open", async () => {
    needSignIn();
    const body = await parseBody(request, asked);
    await countComing(request, null);
    if (!("password" in body)) return lookAtInvitation(doors(), body.token);
    const { userId } = await acceptInvitation(doors(), body);
    return letIn(request, userId, "invitation");
  });
