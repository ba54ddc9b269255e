import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { latLons, patchObstacleSchema, uuid } from "@/contract";
import { updateDrawn } from "@/data/obstacle-edits";

type Context = { params: Promise<{ jobId: string; obstacleId: string }> };

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "write", params, async () => {
    const id = uuid.parse((await params).obstacleId);
    const { version, deleted, fields } = await parseBody(request, patchObstacleSchema);
    const set = fields === undefined ? {} : { ...fields, outline: latLons(fields.outline), holes: fields.holes.map(latLons) };
    return { id, version: await updateDrawn(db(), "obstacle", id, version, set, deleted) };
  });
