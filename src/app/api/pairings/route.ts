import { parseBody } from "@/app/_server/body";
import { needSignIn, originOf } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { pairingSchema } from "@/contract";
import { makePairing } from "@/service/people/come-in";

/** Makes a code that lets one phone in; told once, here. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "edit-people", async () => {
    needSignIn();
    const made = await makePairing(doors(), await parseBody(request, pairingSchema), originOf(request));
    // Where a phone that does not trust this server yet gets its certificate.
    return { ...made, trustUrl: process.env.DRYARC_TRUST_URL ?? "" };
  });
