import { parseBody } from "@/app/_server/body";
import { countComing, needSignIn } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { resetSchema } from "@/contract";
import { resetPassword } from "@/service/people/come-in";

/** Sets a new password by a letter that was asked for. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "open", async () => {
    needSignIn();
    const { token, password } = await parseBody(request, resetSchema);
    await countComing(request, null);
    await resetPassword(doors(), token, password);
    return { ok: true };
  });
