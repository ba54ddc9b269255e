import { refusalOf } from "@/app/_server/authorise";
import { news } from "@/app/_server/news";
import { uuid } from "@/contract";

type Context = { params: Promise<{ jobId: string }> };

const BEAT_MS = 20_000;

/** What changes in a job, as it changes: server-sent events, each with what changed and which browser did it. */
export const GET = async (request: Request, { params }: Context): Promise<Response> => {
  if (refusalOf(request, "read") !== null) return new Response(null, { status: 403 });
  const jobId = uuid.safeParse((await params).jobId);
  if (!jobId.success) return new Response(null, { status: 404 });
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
      const stop = news().listen((n) => {
        if (n.jobId === jobId.data || n.jobId === "*") send(`data: ${JSON.stringify({ entity: n.entity, clientId: n.clientId })}\n\n`);
      });
      const beat = setInterval(() => send(": still here\n\n"), BEAT_MS);
      end = () => {
        stop();
        clearInterval(beat);
        try {
          controller.close();
        } catch {
          // Closed by the other side already.
        }
      };
      request.signal.addEventListener("abort", () => end());
      send(": hello\n\n");
    },
    cancel: () => end(),
  });
  return new Response(body, {
    headers: { "content-type": "text/event-stream", "cache-control": "no-store, no-transform", "x-accel-buffering": "no" },
  });
};
