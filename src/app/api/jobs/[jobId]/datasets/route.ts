import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { datasetsCovering } from "@/data/terrain-store";
import { datasetDto } from "@/service/dto";

/** Terrain is shared by all jobs; each of them may see what there is. */
export const GET = (request: Request): Promise<Response> =>
  handle(request, "read", async () =>
    (await datasetsCovering(db(), { westDeg: -180, southDeg: -90, eastDeg: 180, northDeg: 90 })).map(datasetDto),
  );
