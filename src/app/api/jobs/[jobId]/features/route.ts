import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { featureFieldsSchema, latLons, uuid } from "@/contract";
import { createFeature } from "@/data/obstacle-edits";

type Context = { params: Promise<{ jobId: string }> };

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const jobId = uuid.parse((await params).jobId);
    const { name, points } = await parseBody(request, featureFieldsSchema);
    return { id: await createFeature(db(), jobId, { name, points: latLons(points) }) };
  });
