import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { getJob } from "@/data/jobs";
import { verdictsOf } from "@/service/verdicts";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => verdictsOf(db(), await getJob(db(), uuid.parse((await params).jobId))));
