import { z } from "zod";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { PLAN_RESOLUTIONS_M, planTileBox } from "@/contract";
import { planeProjection, utmCrsOf } from "@/core/geo";
import { obstacleTile } from "@/data/obstacle-tiles";

type Context = { params: Promise<{ jobId: string; z: string; x: string; y: string }> };
const whole = z.coerce.number().int().min(-30_000).max(30_000);
const place = z.object({
  z: z.coerce
    .number()
    .int()
    .min(0)
    .max(PLAN_RESOLUTIONS_M.length - 1),
  x: whole,
  y: whole,
});

/** Everything drawn in one square of the plan, however much it is. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-ground", params, async (job) => {
    const at = place.parse(await params);
    const square = planTileBox(at.z, at.x, at.y);
    const crs = utmCrsOf({ latDeg: job.centreLatDeg, lonDeg: job.centreLonDeg });
    const plane = planeProjection(crs);
    const { west, south, sideM } = square;
    const corners = [
      plane.inverse(west, south),
      plane.inverse(west + sideM, south),
      plane.inverse(west, south + sideM),
      plane.inverse(west + sideM, south + sideM),
    ];
    const lat = corners.map((c) => c.latDeg);
    const lon = corners.map((c) => c.lonDeg);
    // Parallels bend in the plane: a little more than the corners reach.
    const beyondDeg = 0.002;
    const boxDeg = {
      westDeg: Math.min(...lon) - beyondDeg,
      southDeg: Math.min(...lat) - beyondDeg,
      eastDeg: Math.max(...lon) + beyondDeg,
      northDeg: Math.max(...lat) + beyondDeg,
    };
    // Far from the zone there is no such square.
    if (!Object.values(boxDeg).every(Number.isFinite) || boxDeg.eastDeg - boxDeg.westDeg > 10) return new Response(null, { status: 204 });
    const tile = await obstacleTile(db(), job.id, Number(crs.slice(5)), square, boxDeg, PLAN_RESOLUTIONS_M[at.z]!);
    return new Response(new Uint8Array(tile), {
      headers: { "content-type": "application/vnd.mapbox-vector-tile", "cache-control": "no-store" },
    });
  });
