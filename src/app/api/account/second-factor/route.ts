import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { countComing, needOwnSignIn, withCookies } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { auth } from "@/app/_server/who";
import { askerNow } from "@/data/actor";
import { Refused } from "@/data/clash";
import { writeAudit } from "@/data/people";

const password = z.string().min(1, "the password is needed").max(128);
const asked = z.discriminatedUnion("do", [
  z.strictObject({ do: z.literal("begin"), password }),
  z.strictObject({ do: z.literal("confirm"), code: z.string().trim().min(6, "the code has six figures").max(8) }),
  z.strictObject({ do: z.literal("end"), password }),
  z.strictObject({ do: z.literal("new-codes"), password }),
]);

/** Begins, confirms or ends the second factor, or makes new recovery codes; each step but the code asks for the password again. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "own-account", async () => {
    needOwnSignIn();
    const body = await parseBody(request, asked);
    await countComing(request, `password ${askerNow()!.personId}`);
    const { headers } = request;
    if (body.do === "confirm") {
      const answer = await auth().api.verifyTOTP({ body: { code: body.code }, headers, asResponse: true });
      if (!answer.ok) throw new Refused("wrong-code", "code");
      await writeAudit(doors(), "second-factor-on");
      return withCookies({ ok: true }, answer);
    }
    const given = { body: { password: body.password }, headers, asResponse: true } as const;
    const answer =
      body.do === "begin"
        ? await auth().api.enableTwoFactor(given)
        : body.do === "end"
          ? await auth().api.disableTwoFactor(given)
          : await auth().api.generateBackupCodes(given);
    if (!answer.ok) throw new Refused("wrong-sign-in", "password");
    if (body.do === "end") await writeAudit(doors(), "second-factor-off");
    const { totpURI, backupCodes } = (await answer.clone().json()) as { totpURI?: string; backupCodes?: string[] };
    return withCookies({ uri: totpURI ?? null, codes: backupCodes ?? [] }, answer);
  });
