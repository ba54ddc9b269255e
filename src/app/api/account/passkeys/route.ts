import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { needSignIn, passkeysHere, placeOf } from "@/app/_server/come-in";
import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { askerNow } from "@/data/actor";
import { writeAudit } from "@/data/people";
import { accountOf } from "@/service/people/account";
import { beginKey, forgetKey, keepKey } from "@/service/people/passkeys";

const asked = z.discriminatedUnion("do", [
  z.strictObject({ do: z.literal("begin") }),
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
    needSignIn();
    const body = await parseBody(request, asked);
    const userId = askerNow()!.personId!;
    if (body.do === "begin") return beginKey(db(), userId, placeOf(request));
    if (body.do === "keep") await keepKey(db(), userId, placeOf(request), body as never);
    else await forgetKey(db(), userId, body.id);
    await writeAudit(db(), body.do === "keep" ? "passkey-made" : "passkey-forgotten");
    return accountOf(db(), passkeysHere(request));
  });
