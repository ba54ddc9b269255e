import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { featureFieldsSchema, latLons } from "@/contract";
import { createFeature } from "@/data/obstacle-edits";

type Context = { params: Promise<{ jobId: string }> };

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "write", params, async (job) => {
    const { name, points } = await parseBody(request, featureFieldsSchema);
    return { id: await createFeature(db(), job.id, { name, points: latLons(points) }), version: 1 };
  });
