import { needSignIn, withCookies } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { auth, shareCookieEnd } from "@/app/_server/who";
import { hasForgotten } from "@/service/people/come-in";

/** Ends the session that the request comes with. A phone that was ended says by it that it has forgotten what it kept. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "open", async () => {
    needSignIn();
    const held = await auth().api.getSession({ headers: request.headers });
    const deviceId = (held?.session as { deviceId?: string | null } | undefined)?.deviceId ?? null;
    const answer = await auth().api.signOut({ headers: request.headers, asResponse: true });
    if (deviceId !== null) await hasForgotten(doors(), deviceId);
    // Whoever signs out is nobody here any more, by no link either.
    const out = withCookies({ ok: true }, answer);
    out.headers.append("set-cookie", shareCookieEnd());
    return out;
  });
