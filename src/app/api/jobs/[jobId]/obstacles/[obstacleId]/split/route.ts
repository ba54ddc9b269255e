import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { splitObstacleSchema, uuid } from "@/contract";
import { splitObstacle } from "@/data/obstacle-edits";

type Context = { params: Promise<{ jobId: string; obstacleId: string }> };

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, async (job) => {
    const { version, parts } = await parseBody(request, splitObstacleSchema);
    return splitObstacle(db(), job.id, uuid.parse((await params).obstacleId), version, parts);
  });
