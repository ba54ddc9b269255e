import { z } from "zod";
import { parseQuery } from "@/app/_server/body";
import { handleJob } from "@/app/_server/handle";
import { readers, WRITE } from "@/app/_server/readers";
import { sendFile } from "@/app/_server/send-file";
import { tookOut } from "@/app/_server/took-out";
import { quoteHead } from "@/service/quote";

type Context = { params: Promise<{ jobId: string }> };

const schema = z.object({
  link: z.uuid("that is no link").nullable().default(null),
  as: z.enum(["pdf", "csv"]).default("pdf"),
  units: z.enum(["metric", "imperial"]).default("metric"),
});

/** The quote of a job, or of one link's ends, as PDF, or as a table, without what things cost. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "take-out-all", params, async (job) => {
    const { link: linkId, as, units } = parseQuery(request, schema);
    await tookOut(request, "took-out-quote", job.id);
    return sendFile(quoteHead(job, as), (path) =>
      readers().long.run("quote", { jobId: job.id, linkId, as, units, path }, WRITE, request.signal),
    );
  });
