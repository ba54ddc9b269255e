import { z } from "zod";
import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { latLons } from "@/contract";
import { heightProposal, heightsAt } from "@/service/heights";

const position = z.tuple([z.number().min(-180).max(180), z.number().min(-90).max(90)]);
const schema = z.object({ points: z.array(position).min(1).max(500), outline: z.boolean().default(false) });

/** Ground at some places; for an outline, also the height a surface model proposes. Asks only, changes nothing. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "read", async () => {
    const { points, outline } = await parseBody(request, schema);
    const places = latLons(points);
    return { heights: await heightsAt(db(), places), proposal: outline ? await heightProposal(db(), places) : null };
  });
