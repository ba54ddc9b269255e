import { z } from "zod";
import { parseQuery } from "@/app/_server/body";
import { originOf } from "@/app/_server/come-in";
import { handleJob } from "@/app/_server/handle";
import { readers, WRITE } from "@/app/_server/readers";
import { sendFile } from "@/app/_server/send-file";
import { tookOut } from "@/app/_server/took-out";
import { PACK_FOR } from "@/contract";
import { type PackAsk, packHead } from "@/service/pack";

type Context = { params: Promise<{ jobId: string }> };

const schema = z.object({
  link: z.uuid("that is no link").nullable().default(null),
  for: z.enum(PACK_FOR).default("installer"),
  paper: z.enum(["a4", "letter"]).default("a4"),
  units: z.enum(["metric", "imperial"]).default("metric"),
});

const LOOPBACK = /^(localhost|127\.|\[?::1)/;

const askOf = (request: Request, jobId: string): PackAsk => {
  const { link, for: isFor, paper, units } = parseQuery(request, schema);
  const origin = new URL(originOf(request));
  // A phone does not reach this machine's own loopback: a code with it would lead nowhere.
  const address = LOOPBACK.test(origin.hostname) ? null : `${origin.origin}/jobs/${jobId}/survey`;
  return { linkId: link, isFor, paper, units, address };
};

/** The pages of the pack, as marks: what the screen shows, and what the file is drawn from. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "take-out", params, (job) =>
    readers().long.run("packPages", { jobId: job.id, ...askOf(request, job.id) }, WRITE, request.signal),
  );

/** The pack of a job, or of one link, as PDF. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "take-out", params, async (job) => {
    const ask = askOf(request, job.id);
    await tookOut(request, "took-out-pack", job.id);
    return sendFile(packHead(job, ask), (path) => readers().long.run("pack", { jobId: job.id, ...ask, path }, WRITE, request.signal));
  });
