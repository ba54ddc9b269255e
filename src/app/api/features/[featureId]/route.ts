import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { latLons, patchFeatureSchema, uuid } from "@/contract";
import { updateDrawn } from "@/data/obstacle-edits";

type Context = { params: Promise<{ featureId: string }> };

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const id = uuid.parse((await params).featureId);
    const { version, deleted, fields } = await parseBody(request, patchFeatureSchema);
    const set = fields === undefined ? {} : { name: fields.name, points: latLons(fields.points) };
    return { id, version: await updateDrawn(db(), "feature", id, version, set, deleted) };
  });
