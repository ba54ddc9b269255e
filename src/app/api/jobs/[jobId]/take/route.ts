import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { takeSchema } from "@/contract";
import { asOneStep } from "@/data/actor";
import { edit } from "@/data/records";

/** Changes several designs and hubs of a job as one step, all of them or none; each as it stands at a version. */
export const POST = (request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> =>
  handleJob(request, "edit-records", params, async (job) => {
    const { designs, hubs } = await parseBody(request, takeSchema);
    return edit(db(), job.id, (door) =>
      asOneStep(async () => {
        const rows = [];
        for (const { id, version, fields } of designs) rows.push(await door.patch("design", id, version, fields as never));
        for (const { id, version, fields } of hubs) rows.push(await door.patch("hub", id, version, fields as never));
        return rows;
      }),
    );
  });
