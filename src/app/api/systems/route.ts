import { z } from "zod";
import { handle, parseQuery } from "@/app/_server/handle";
import { searchSystems } from "@/formats";

/** Coordinate systems by code or name. */
export const GET = (request: Request): Promise<Response> =>
  handle(request, "read", async () => searchSystems(parseQuery(request, z.object({ q: z.string().max(80) })).q));
