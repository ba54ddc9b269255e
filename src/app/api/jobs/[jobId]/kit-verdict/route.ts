import { z } from "zod";
import { parseQuery } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { kitVerdict } from "@/service/kit-verdict";

type Context = { params: Promise<{ jobId: string }> };

const query = z.object({ link: z.uuid("that is no link").nullable().default(null) });

/** What the kit comes to, of one link's ends or of the job. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-kit", params, async (job) => {
    const { link } = parseQuery(request, query);
    return { verdict: await kitVerdict(db(), job, link) };
  });
