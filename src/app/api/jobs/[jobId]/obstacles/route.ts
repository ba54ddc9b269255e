import { db } from "@/app/_server/db";
import { handle, parseQuery } from "@/app/_server/handle";
import { boxSchema, type ObstacleDto, uuid } from "@/contract";
import { featuresOf, obstaclesOf } from "@/data/obstacles";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => {
    const jobId = uuid.parse((await params).jobId);
    const [rows, features] = await Promise.all([obstaclesOf(db(), jobId, parseQuery(request, boxSchema)), featuresOf(db(), jobId)]);
    const obstacles = rows.map(
      (o): ObstacleDto => ({
        id: o.id,
        name: o.name,
        kind: o.kind,
        heightM: o.heightM,
        outline: o.outline.map((p) => [p.lonDeg, p.latDeg]),
      }),
    );
    return { obstacles, features };
  });
