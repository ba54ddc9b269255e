import { z } from "zod";
import { parseBody, parseQuery } from "@/app/_server/body";
import { handle } from "@/app/_server/handle";
import { epsgOfWkt, positionInSystem, searchSystems } from "@/formats";

/** Coordinate systems by code or name. */
export const GET = (request: Request): Promise<Response> =>
  handle(request, "work-out", async () => searchSystems(parseQuery(request, z.object({ q: z.string().max(80) })).q));

const asked = z.union([z.object({ wkt: z.string().max(20_000) }), z.object({ epsg: z.number().int(), x: z.number(), y: z.number() })]);

/** The code of a system described as well-known text, or where a position typed in a system's own figures lies. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "work-out", async () => {
    const q = await parseBody(request, asked);
    return "wkt" in q ? { epsg: epsgOfWkt(q.wkt) } : positionInSystem(q.epsg, q.x, q.y);
  });
