import { z } from "zod";
import { parseQuery } from "@/app/_server/body";
import { handleJob } from "@/app/_server/handle";
import { readers, WRITE } from "@/app/_server/readers";
import { sendFile } from "@/app/_server/send-file";
import { tookOut } from "@/app/_server/took-out";
import { exportHead } from "@/service/export";

type Context = { params: Promise<{ jobId: string }> };

const schema = z.object({ what: z.enum(["sites", "links", "obstacles", "features"]), format: z.enum(["geojson", "kml", "gpx", "csv"]) });

/** A part of the job as an open file. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "take-out", params, async (job) => {
    const { what, format } = parseQuery(request, schema);
    await tookOut(request, "took-out-places", job.id);
    return sendFile(exportHead(job, what, format), (path) =>
      readers().long.run("export", { jobId: job.id, what, format, path }, WRITE, request.signal),
    );
  });
