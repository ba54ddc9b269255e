import { parseBody } from "@/app/_server/body";
import { needOwnSignIn } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { tokenSchema } from "@/contract";
import { makeToken, tokenList } from "@/service/people/tokens";

/** Tokens by which programs come in, newest first. */
export const GET = (request: Request): Promise<Response> => handle(request, "see-people", () => tokenList(doors()));

/** Makes a token; it is told once, in the answer. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "edit-people", async () => {
    needOwnSignIn();
    return makeToken(doors(), await parseBody(request, tokenSchema));
  });
