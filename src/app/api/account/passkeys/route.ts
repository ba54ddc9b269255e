import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { countComing, needOwnSignIn, passkeysHere, placeOf } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { askerNow } from "@/data/actor";
import { writeAudit } from "@/data/people";
import { accountOf, provePassword } from "@/service/people/account";
import { beginKey, forgetKey, keepKey } from "@/service/people/passkeys";

const asked = z.discriminatedUnion("do", [
  z.strictObject({ do: z.literal("begin"), password: z.string("the password is needed").min(1, "the password is needed").max(128) }),
  z.strictObject({
    do: z.literal("keep"),
    id: uuid,
    name: z.string().trim().min(1, "a name is needed").max(60),
    response: z.looseObject({ id: z.string().max(1500) }),
  }),
  z.strictObject({ do: z.literal("forget"), id: z.string().max(1500) }),
]);

/** Begins a passkey, keeps what the person's device made of it, or forgets one. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "own-account", async () => {
    needOwnSignIn();
    const body = await parseBody(request, asked);
    const userId = askerNow()!.personId!;
    if (body.do === "begin") {
      await countComing(request, `password ${userId}`);
      await provePassword(doors(), body.password);
      return beginKey(doors(), userId, placeOf(request));
    }
    if (body.do === "keep") await keepKey(doors(), userId, placeOf(request), body as never);
    else await forgetKey(doors(), userId, body.id);
    await writeAudit(doors(), body.do === "keep" ? "passkey-made" : "passkey-forgotten");
    return accountOf(doors(), passkeysHere(request));
  });
