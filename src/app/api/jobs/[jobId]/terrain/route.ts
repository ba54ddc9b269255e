import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { inTime } from "@/app/_server/in-time";
import { terrainWindowSchema } from "@/contract";
import { terrainWindow } from "@/service/terrain-window";

type Context = { params: Promise<{ jobId: string }> };

/** Heights as little-endian 32-bit floats; what is in force, and what was too fine for so wide a window, stands in a header. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-ground", params, async () => {
    const { heightsM, datasets } = await terrainWindow(db(), await parseBody(request, terrainWindowSchema), inTime(request));
    return new Response(heightsM.buffer as ArrayBuffer, {
      headers: {
        "content-type": "application/octet-stream",
        "cache-control": "no-store",
        "x-datasets": encodeURIComponent(JSON.stringify(datasets)),
      },
    });
  });
