import { parseBody } from "@/app/_server/body";
import { needOwnSignIn, needSignIn, passkeysHere } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { nameSchema } from "@/contract";
import { accountOf, nameSelf } from "@/service/people/account";

/** Oneself: name, address, where one is signed in, passkeys. */
export const GET = (request: Request): Promise<Response> =>
  handle(request, "own-account", () => {
    needSignIn();
    return accountOf(doors(), passkeysHere(request));
  });

export const PATCH = (request: Request): Promise<Response> =>
  handle(request, "own-account", async () => {
    needOwnSignIn();
    await nameSelf(doors(), (await parseBody(request, nameSchema)).name);
    return accountOf(doors(), passkeysHere(request));
  });
