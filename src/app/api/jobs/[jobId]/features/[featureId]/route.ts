import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { latLons, patchFeatureSchema, uuid } from "@/contract";
import { updateDrawn } from "@/data/obstacle-edits";

type Context = { params: Promise<{ jobId: string; featureId: string }> };

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "write", params, async () => {
    const id = uuid.parse((await params).featureId);
    const { version, deleted, fields } = await parseBody(request, patchFeatureSchema);
    const set = fields === undefined ? {} : { name: fields.name, points: latLons(fields.points) };
    return { id, version: await updateDrawn(db(), "feature", id, version, set, deleted) };
  });
