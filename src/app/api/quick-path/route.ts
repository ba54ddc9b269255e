import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { quickPathSchema } from "@/contract";
import { quickPath } from "@/service/quick-path";

/** A job of one path out of what is known of it. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "work-out", async () => quickPath(db(), await parseBody(request, quickPathSchema)));
