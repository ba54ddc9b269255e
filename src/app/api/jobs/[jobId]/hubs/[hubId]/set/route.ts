import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { setHubSchema } from "@/contract";
import { asOneStep } from "@/data/actor";
import { edit } from "@/data/records";

/** Changes a hub and the designs of the links that hang on it as one step: all of it or nothing. */
export const POST = (request: Request, { params }: { params: Promise<{ jobId: string; hubId: string }> }): Promise<Response> =>
  handleJob(request, "write", params, async (job) => {
    const { hubId } = await params;
    const { version, fields, designs } = await parseBody(request, setHubSchema);
    return edit(db(), job.id, (door) =>
      asOneStep(async () => {
        const hub = await door.patch("hub", hubId, version, fields as never);
        const rows = [];
        for (const d of designs) rows.push(await door.patch("design", d.id, d.version, d.fields as never));
        return { hub, designs: rows };
      }),
    );
  });
