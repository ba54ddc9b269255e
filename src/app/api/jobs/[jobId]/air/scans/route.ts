import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { getRecord } from "@/data/records";
import { scanCsv } from "@/formats";

/** One scan as a table, strangers' names hashed. */
export const GET = (request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> =>
  handleJob(request, "see-air", params, async (job) => {
    const scan = await getRecord(db(), job.id, "scan", uuid.parse(new URL(request.url).searchParams.get("scan")));
    return new Response(scanCsv(scan.rows), {
      headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": 'attachment; filename="scan.csv"' },
    });
  });
