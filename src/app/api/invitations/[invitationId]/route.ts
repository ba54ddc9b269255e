import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { endInvitation } from "@/service/people/come-in";

/** Takes an invitation back. */
export const DELETE = (request: Request, { params }: { params: Promise<{ invitationId: string }> }): Promise<Response> =>
  handle(request, "edit-people", async () => endInvitation(doors(), uuid.parse((await params).invitationId)));
