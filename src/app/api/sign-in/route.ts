import { parseBody } from "@/app/_server/body";
import { accountKey, countComing, needSignIn, settle, withCookies } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { addressOf, auth } from "@/app/_server/who";
import { signInSchema } from "@/contract";
import { Refused } from "@/data/clash";
import { logFault } from "@/data/log";
import { forgetTries } from "@/data/tries";
import { noteRefused } from "@/service/people/come-in";

/** Comes in by address and password. Names that are known and names that are not are answered alike, and as slowly. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "open", async () => {
    needSignIn();
    const { email, password } = await parseBody(request, signInSchema);
    await countComing(request, email);
    const answer = await auth().api.signInEmail({ body: { email, password }, headers: request.headers, asResponse: true });
    if (!answer.ok) {
      // Beside the answer: how long it takes tells nothing of whether anybody has that name.
      void noteRefused(doors(), email, addressOf(request)).catch((error: unknown) => logFault("book", error));
      throw new Refused("wrong-sign-in", "password");
    }
    await forgetTries(doors(), accountKey(email));
    // With a second factor the library answers with what the next step needs, and no session.
    const told = (await answer.clone().json()) as { twoFactorRedirect?: boolean };
    return told.twoFactorRedirect === true ? withCookies({ secondFactor: true }, answer) : settle(request, answer, "password");
  });
