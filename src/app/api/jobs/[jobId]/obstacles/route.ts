import { db } from "@/app/_server/db";
import { handle, parseBody, parseQuery } from "@/app/_server/handle";
import { boxSchema, type FeatureDto, latLons, obstacleFieldsSchema, uuid } from "@/contract";
import { createObstacle } from "@/data/obstacle-edits";
import { featuresOf, obstaclesOf } from "@/data/obstacles";
import { obstacleDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => {
    const jobId = uuid.parse((await params).jobId);
    const [rows, features] = await Promise.all([obstaclesOf(db(), jobId, parseQuery(request, boxSchema)), featuresOf(db(), jobId)]);
    return {
      obstacles: rows.map(obstacleDto),
      features: features.map(
        (f): FeatureDto => ({ id: f.id, name: f.name, version: f.version, points: f.points.map((p) => [p.lonDeg, p.latDeg]) }),
      ),
    };
  });

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const jobId = uuid.parse((await params).jobId);
    const { outline, ...fields } = await parseBody(request, obstacleFieldsSchema);
    return { id: await createObstacle(db(), jobId, { ...fields, outline: latLons(outline) }) };
  });
