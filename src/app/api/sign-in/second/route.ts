import { parseBody } from "@/app/_server/body";
import { countComing, needSignIn, settle } from "@/app/_server/come-in";
import { handle } from "@/app/_server/handle";
import { auth } from "@/app/_server/who";
import { secondFactorSchema } from "@/contract";
import { Refused } from "@/data/clash";

/** The second step of coming in: a code of the authenticator, or one of the recovery codes. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "open", async () => {
    needSignIn();
    const { code, kind } = await parseBody(request, secondFactorSchema);
    await countComing(request, null);
    const asked = { body: { code }, headers: request.headers, asResponse: true } as const;
    const answer = kind === "app" ? await auth().api.verifyTOTP(asked) : await auth().api.verifyBackupCode(asked);
    if (!answer.ok) throw new Refused("wrong-code", "code");
    return settle(request, answer, kind === "app" ? "password and code" : "password and recovery code");
  });
