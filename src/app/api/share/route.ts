import { parseBody } from "@/app/_server/body";
import { countComing, needSignIn } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { isSecure, shareCookie } from "@/app/_server/who";
import { shareOpenSchema } from "@/contract";
import { openShared } from "@/service/people/share";

/** Kept a while beyond its end: who comes too late is told so. */
const BEYOND_MS = 30 * 86_400_000;

/** Opens a link that was shared. Its secret is posted, and kept where no script reads it. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "open", async () => {
    needSignIn();
    const { token } = await parseBody(request, shareOpenSchema);
    await countComing(request, null);
    const { jobId, expiresAt } = await openShared(doors(), token);
    const answer = Response.json({ jobId }, { headers: { "cache-control": "no-store" } });
    const secure = isSecure() ? "; Secure" : "";
    answer.headers.append(
      "set-cookie",
      `${shareCookie()}=${token}; Path=/; HttpOnly; SameSite=Strict; Expires=${new Date(expiresAt.getTime() + BEYOND_MS).toUTCString()}${secure}`,
    );
    return answer;
  });
