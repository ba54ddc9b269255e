import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { endToken } from "@/service/people/tokens";

type Context = { params: Promise<{ tokenId: string }> };

/** Ends a token: at its next request. */
export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "edit-people", async () => endToken(doors(), uuid.parse((await params).tokenId)));
