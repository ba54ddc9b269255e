import { parseBody } from "@/app/_server/body";
import { countComing, letIn, needSignIn } from "@/app/_server/come-in";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { addressOf } from "@/app/_server/who";
import { pairSchema } from "@/contract";
import { pairPhone } from "@/service/people/come-in";

/** Kept a while beyond its end: a phone that comes too late learns by it that it must forget. */
const BEYOND_MS = 30 * 86_400_000;

/** Lets a phone in by its code: once. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "open", async () => {
    needSignIn();
    const { code, name } = await parseBody(request, pairSchema);
    await countComing(request, null);
    const { userId, deviceId, endsAt } = await pairPhone(doors(), { code, name, from: addressOf(request) });
    return letIn(request, userId, "phone", { id: deviceId, endsAt: new Date(endsAt.getTime() + BEYOND_MS) });
  });
