import { z } from "zod";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { LOOK, readers } from "@/app/_server/readers";
import { basemapOf } from "@/data/basemaps";
import { NotFound } from "@/data/clash";
import { fetchTile } from "@/service/tiles";

type Context = { params: Promise<{ jobId: string; z: string; x: string; y: string }> };
const whole = z.coerce.number().int().min(0);
const place = z.object({ z: whole.max(24), x: whole.max(2 ** 24), y: whole.max(2 ** 24) });

/** A tile of the job's own map. The server fetches it, so that the browser speaks to nobody else. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-ground", params, async (job) => {
    const at = place.parse(await params);
    const row = await basemapOf(db(), job.id);
    if (row === null) throw new NotFound("map");
    const tile =
      row.kind === "xyz"
        ? await fetchTile(row.address ?? "", at)
        : await readers().quick.run("tile", { uploadId: row.uploadId ?? "", ...at }, LOOK, request.signal);
    return tile === null
      ? new Response(null, { status: 204 })
      : new Response(tile.bytes as BodyInit, { headers: { "content-type": tile.type, "cache-control": "private, max-age=3600" } });
  });
