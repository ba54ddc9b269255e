import { parseBody } from "@/app/_server/body";
import { countComing, needOwnSignIn, withCookies } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { auth } from "@/app/_server/who";
import { passwordSchema } from "@/contract";
import { askerNow } from "@/data/actor";
import { Refused } from "@/data/clash";
import { writeAudit } from "@/data/people";
import { accountOf } from "@/service/people/account";
import { refuseWeak } from "@/service/people/password-rules";

/** Changes one's password; every other session ends. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "own-account", async () => {
    needOwnSignIn();
    const { current, next } = await parseBody(request, passwordSchema);
    const { name, email } = await accountOf(doors(), false);
    refuseWeak(next, [name, email.split("@")[0] ?? ""]);
    await countComing(request, `password ${askerNow()!.personId}`);
    const answer = await auth().api.changePassword({
      body: { currentPassword: current, newPassword: next, revokeOtherSessions: true },
      headers: request.headers,
      asResponse: true,
    });
    if (!answer.ok) throw new Refused("wrong-sign-in", "current");
    await writeAudit(doors(), "password-changed");
    return withCookies({ ok: true }, answer);
  });
