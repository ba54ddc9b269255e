import { z } from "zod";
import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { basemapOf } from "@/data/basemaps";
import { NotFound } from "@/data/clash";
import { tileOf } from "@/service/tiles";

type Context = { params: Promise<{ jobId: string; z: string; x: string; y: string }> };
const whole = z.coerce.number().int().min(0);
const place = z.object({ z: whole.max(24), x: whole, y: whole });

/** A tile of the job's own map. The server fetches it, so that the browser speaks to nobody else. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => {
    const given = await params;
    const row = await basemapOf(db(), uuid.parse(given.jobId));
    if (row === null) throw new NotFound("map");
    const tile = await tileOf(row, place.parse(given));
    return tile === null
      ? new Response(null, { status: 204 })
      : new Response(tile.bytes as BodyInit, {
          headers: {
            "content-type": tile.type,
            "cache-control": "private, max-age=3600",
            "content-security-policy": "default-src 'none'; sandbox",
          },
        });
  });
