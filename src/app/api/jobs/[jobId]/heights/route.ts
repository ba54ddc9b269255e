import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { inTime } from "@/app/_server/in-time";
import { latLons } from "@/contract";
import { heightProposal, heightsAt } from "@/service/heights";

type Context = { params: Promise<{ jobId: string }> };
const position = z.tuple([z.number().min(-180).max(180), z.number().min(-90).max(90)]);
const schema = z.object({ points: z.array(position).min(1).max(500), outline: z.boolean().default(false) });

/** Ground at some places; for an outline, also the height a surface model proposes. Asks only, changes nothing. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-ground", params, async () => {
    const { points, outline } = await parseBody(request, schema);
    const places = latLons(points);
    const signal = inTime(request);
    return { heights: await heightsAt(db(), places, signal), proposal: outline ? await heightProposal(db(), places, signal) : null };
  });
