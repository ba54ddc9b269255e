import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { revokePhone } from "@/service/people/come-in";

/** Ends a phone. */
export const DELETE = (request: Request, { params }: { params: Promise<{ deviceId: string }> }): Promise<Response> =>
  handle(request, "edit-people", async () => revokePhone(doors(), uuid.parse((await params).deviceId)));
