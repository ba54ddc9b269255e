import { parseBody } from "@/app/_server/body";
import { countComing, needSignIn, originOf } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { forgotSchema } from "@/contract";
import { logFault } from "@/data/log";
import { forgotPassword } from "@/service/people/come-in";

/** Asks for a letter with a new way in. It is answered at once and alike, whether anybody has that address or not. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "open", async () => {
    needSignIn();
    const { email } = await parseBody(request, forgotSchema);
    await countComing(request, `letter ${email}`);
    void forgotPassword(doors(), email, originOf(request)).catch((error: unknown) => logFault("letter", error));
    return { ok: true };
  });
