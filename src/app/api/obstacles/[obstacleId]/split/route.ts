import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { latLons, splitObstacleSchema, uuid } from "@/contract";
import { splitObstacle } from "@/data/obstacle-edits";

type Context = { params: Promise<{ obstacleId: string }> };

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const { version, parts } = await parseBody(request, splitObstacleSchema);
    await splitObstacle(db(), uuid.parse((await params).obstacleId), version, parts.map(latLons));
  });
