import { parseBody } from "@/app/_server/body";
import { countComing, needSignIn, settle } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { addressOf, auth } from "@/app/_server/who";
import { secondFactorSchema } from "@/contract";
import { Refused } from "@/data/clash";
import { noteWrongCode } from "@/service/people/come-in";

/** What the first step left with the browser, without its signature; empty where there is none. */
const markOf = (request: Request): string => {
  const cookie = (request.headers.get("cookie") ?? "").split(/;\s*/).find((c) => /^(?:__Host-)?dryarc\.two_factor=/.test(c));
  // Signature and mark are parted by a dot, which nothing else in them is.
  return (cookie?.split("=")[1] ?? "").split(".")[0]!;
};

/** The second step of coming in: a code of the authenticator, or one of the recovery codes. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "open", async () => {
    needSignIn();
    const { code, kind } = await parseBody(request, secondFactorSchema);
    await countComing(request, null);
    const asked = { body: { code }, headers: request.headers, asResponse: true } as const;
    const answer = kind === "app" ? await auth().api.verifyTOTP(asked) : await auth().api.verifyBackupCode(asked);
    if (!answer.ok) {
      await noteWrongCode(doors(), markOf(request), addressOf(request));
      throw new Refused("wrong-code", "code");
    }
    return settle(request, answer, kind === "app" ? "password and code" : "password and recovery code");
  });
