import { db } from "@/app/_server/db";
import { handle, parseQuery } from "@/app/_server/handle";
import { terrainWindowSchema } from "@/contract";
import { terrainWindow } from "@/service/terrain-window";

/** Heights as little-endian 32-bit floats; what is in force stands in a header. */
export const GET = (request: Request): Promise<Response> =>
  handle(request, "read", async () => {
    const { heightsM, datasets } = await terrainWindow(db(), parseQuery(request, terrainWindowSchema));
    return new Response(heightsM.buffer as ArrayBuffer, {
      headers: {
        "content-type": "application/octet-stream",
        "cache-control": "no-store",
        "x-datasets": encodeURIComponent(JSON.stringify(datasets)),
      },
    });
  });
