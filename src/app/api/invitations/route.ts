import { parseBody } from "@/app/_server/body";
import { needSignIn, originOf } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { invitationSchema } from "@/contract";
import { invite } from "@/service/people/come-in";

/** Invites somebody; its link is told once, here. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "edit-people", async () => {
    needSignIn();
    return invite(doors(), await parseBody(request, invitationSchema), originOf(request));
  });
