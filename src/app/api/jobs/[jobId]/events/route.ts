import { refusalOf } from "@/app/_server/authorise";
import { db } from "@/app/_server/db";
import { faultOf } from "@/app/_server/handle";
import { news } from "@/app/_server/news";
import { uuid } from "@/contract";
import { getJob } from "@/data/jobs";

type Context = { params: Promise<{ jobId: string }> };

const BEAT_MS = 20_000;

/** What changes in a job, as it changes: server-sent events, each with what changed and which browser did it. */
export const GET = async (request: Request, { params }: Context): Promise<Response> => {
  if (refusalOf(request) !== null) return new Response(null, { status: 403 });
  let jobId: string;
  try {
    jobId = (await getJob(db(), uuid.parse((await params).jobId))).id;
  } catch (error) {
    return faultOf(error);
  }
  const encoder = new TextEncoder();
  let end = (): void => undefined;
  const body = new ReadableStream<Uint8Array>({
    start: (controller) => {
      const send = (text: string): void => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          end();
        }
      };
      const left = (): void => end();
      const stop = news().listen((n) => {
        if (n.jobId === jobId || n.jobId === "*") send(`data: ${JSON.stringify({ entity: n.entity, id: n.id, clientId: n.clientId })}\n\n`);
      });
      const beat = setInterval(() => send(": still here\n\n"), BEAT_MS);
      let over = false;
      end = () => {
        if (over) return;
        over = true;
        stop();
        clearInterval(beat);
        request.signal.removeEventListener("abort", left);
        try {
          controller.close();
        } catch {
          // Closed by the other side already.
        }
      };
      request.signal.addEventListener("abort", left);
      if (request.signal.aborted) return end();
      send(": hello\n\n");
    },
    cancel: () => end(),
  });
  return new Response(body, {
    headers: { "content-type": "text/event-stream", "cache-control": "no-store, no-transform", "x-accel-buffering": "no" },
  });
};
