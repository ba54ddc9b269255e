import { timingSafeEqual } from "node:crypto";
import { parseBody } from "@/app/_server/body";
import { countComing, letIn, needSignIn } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { firstOwnerSchema } from "@/contract";
import { Refused } from "@/data/clash";
import { makeFirstOwner } from "@/service/people/come-in";

/** The code that was shown where the server was started: who reads it there may become the owner. */
const isCode = (given: string): boolean => {
  const [want, is] = [Buffer.from(process.env.DRYARC_FIRST_CODE ?? ""), Buffer.from(given)];
  return want.length > 0 && want.length === is.length && timingSafeEqual(want, is);
};

/** Makes the first owner, once, and lets them in. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "open", async () => {
    needSignIn();
    const { code, ...owner } = await parseBody(request, firstOwnerSchema);
    await countComing(request, null);
    if (!isCode(code)) throw new Refused("wrong-code", "code");
    const { userId } = await makeFirstOwner(doors(), owner);
    return letIn(request, userId, "first owner");
  });
