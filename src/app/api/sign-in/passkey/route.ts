import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { countComing, letIn, needSignIn, placeOf } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { beginKeySignIn, keySignIn } from "@/service/people/passkeys";

const asked = z.union([
  z.strictObject({ begin: z.literal(true) }),
  z.strictObject({ id: uuid, response: z.looseObject({ id: z.string().max(1500) }) }),
]);

/** Comes in by a passkey: asks for what is to be signed, or hands in what was. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "open", async () => {
    needSignIn();
    const body = await parseBody(request, asked);
    await countComing(request, null);
    if ("begin" in body) return beginKeySignIn(doors(), placeOf(request));
    const { userId } = await keySignIn(doors(), placeOf(request), body as never);
    return letIn(request, userId, "passkey");
  });
