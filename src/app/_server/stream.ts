import { AsyncLocalStorage } from "node:async_hooks";
import { type Right, type Streamed, seesPrices, withoutPrices } from "@/contract";
import { roleNow } from "@/data/actor";
import type { JobRow } from "@/data/jobs";
import { logFault } from "@/data/log";
import { handleJob } from "./handle";

/**
 * Answers with rows as they are worked out, a line of JSON each. What goes wrong before the first row is an ordinary
 * error; later it is the last line. When the browser leaves, the work stops at the next row. Nothing is written, but it is
 * work: only our own pages may ask.
 */
export const streamed = <Row>(
  request: Request,
  gate: Right,
  params: Promise<{ jobId: string }>,
  work: (job: JobRow) => Promise<AsyncGenerator<Streamed<Row>>>,
): Promise<Response> =>
  handleJob(request, gate, params, async (job) => {
    const rows = await work(job);
    const first = await rows.next();
    const encoder = new TextEncoder();
    const priced = seesPrices(roleNow());
    const line = (row: Streamed<Row>): Uint8Array => encoder.encode(`${JSON.stringify(priced ? row : withoutPrices(row))}\n`);
    // Rows are worked out while the answer is read, by then outside the request: still on behalf of whoever asked.
    const onBehalf = AsyncLocalStorage.snapshot();
    let sent = false;
    const body = new ReadableStream<Uint8Array>({
      pull: async (controller) => {
        try {
          const next = sent ? await onBehalf(() => rows.next()) : first;
          sent = true;
          if (next.done === true || request.signal.aborted) controller.close();
          else controller.enqueue(line(next.value));
        } catch (error) {
          logFault("stream", error);
          controller.enqueue(line({ kind: "fault", fault: { code: "internal" } }));
          controller.close();
        }
      },
      cancel: async () => {
        await onBehalf(() => rows.return(undefined));
      },
    });
    return new Response(body, { headers: { "content-type": "application/x-ndjson", "cache-control": "no-store" } });
  });
