import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { calendarOf } from "@/service/calendar";

type Context = { params: Promise<{ jobId: string }> };

/** The days of a job as a calendar file. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "take-out", params, async (job) => {
    const { name, text } = await calendarOf(db(), job);
    return new Response(text, {
      headers: {
        "content-type": "text/calendar; charset=utf-8",
        "content-disposition": `attachment; filename="days.ics"; filename*=UTF-8''${encodeURIComponent(`${name}, days.ics`)}`,
      },
    });
  });
