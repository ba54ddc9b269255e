import type { Streamed } from "@/contract";
import { handle } from "./handle";

/**
 * Answers with rows as they are worked out, a line of JSON each. What goes wrong before the first row is an ordinary
 * error; later it is the last line. When the browser leaves, the work stops at the next row. Nothing is written, but it is
 * work: only our own pages may ask.
 */
export const streamed = <Row>(request: Request, work: () => Promise<AsyncGenerator<Streamed<Row>>>): Promise<Response> =>
  handle(request, "write", async () => {
    const rows = await work();
    const first = await rows.next();
    const encoder = new TextEncoder();
    const line = (row: Streamed<Row>): Uint8Array => encoder.encode(`${JSON.stringify(row)}\n`);
    let sent = false;
    const body = new ReadableStream<Uint8Array>({
      pull: async (controller) => {
        try {
          const next = sent ? await rows.next() : first;
          sent = true;
          if (next.done === true || request.signal.aborted) controller.close();
          else controller.enqueue(line(next.value));
        } catch (error) {
          console.error(error);
          controller.enqueue(line({ kind: "fault", fault: { code: "internal" } }));
          controller.close();
        }
      },
      cancel: async () => {
        await rows.return(undefined);
      },
    });
    return new Response(body, { headers: { "content-type": "application/x-ndjson", "cache-control": "no-store" } });
  });
