import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { getJob } from "@/data/jobs";
import { writeBundle } from "@/service/bundle";
import { fileName } from "@/service/export";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => {
    const job = await getJob(db(), uuid.parse((await params).jobId));
    const bytes = await writeBundle(db(), job);
    return new Response(bytes as BodyInit, {
      headers: {
        "content-type": "application/zip",
        "content-disposition": `attachment; filename="${fileName(job.name)}-job.zip"`,
        "cache-control": "no-store",
      },
    });
  });
