import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { datasetsCovering } from "@/data/terrain-store";
import { datasetDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string }> };

/** Terrain is shared by all jobs; each of them may see what there is. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-ground", params, async () =>
    (await datasetsCovering(db(), { westDeg: -180, southDeg: -90, eastDeg: 180, northDeg: 90 })).map(datasetDto),
  );
