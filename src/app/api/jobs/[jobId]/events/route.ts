import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { comeHere } from "@/app/_server/here";
import { news } from "@/app/_server/news";
import { whoAsks } from "@/app/_server/who";
import { mayAsk, OPEN_SHEETS } from "@/contract";
import { askerNow } from "@/data/actor";
import { NotFound, Refused } from "@/data/clash";
import { getJob } from "@/data/jobs";

type Context = { params: Promise<{ jobId: string }> };

const BEAT_MS = 20_000;
/** Lines of news that are open at a time: of one person, and of this process. */
const MOST_OF_ONE = 40;
const MOST = 1000;
const open = new Map<string, number>();
let all = 0;

const take = (key: string): (() => void) => {
  const mine = open.get(key) ?? 0;
  if (mine >= MOST_OF_ONE || all >= MOST) throw new Refused("busy", "news");
  open.set(key, mine + 1);
  all++;
  let given = false;
  return () => {
    if (given) return;
    given = true;
    all--;
    const left = (open.get(key) ?? 1) - 1;
    if (left === 0) open.delete(key);
    else open.set(key, left);
  };
};

/** Whether whoever opened a line may still hear it: their session, their role and their jobs as they are now. */
const stillMay = async (request: Request, jobId: string): Promise<boolean> => {
  try {
    const who = await whoAsks(request);
    if (who === null || !mayAsk("see-job", who.role, who.sheets)) return false;
    const job = await getJob(db(), jobId);
    return job.organisationId === who.organisationId && (who.jobIds === null || who.jobIds.includes(job.id));
  } catch (error) {
    // A database that is away says nothing about rights: the line stays, and there is no news meanwhile.
    return !(error instanceof NotFound);
  }
};

/** What changes in a job, as it changes: server-sent events, each with what changed and whether this browser did it. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-job", params, async (job) => {
    const who = askerNow();
    const asked = new URL(request.url).searchParams;
    const client = asked.get("client") ?? "";
    const sheet = OPEN_SHEETS.find((s) => s === asked.get("sheet"));
    const give = take(who?.personId ?? "this machine");
    const encoder = new TextEncoder();
    let end = (): void => give();
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
          if (n.jobId !== job.id && n.jobId !== "*") return;
          // Names of browsers stay here: with one, another could speak for it.
          const told = { entity: n.entity, id: n.id, own: n.clientId !== null && n.clientId === client, byPerson: n.clientId !== null };
          send(`data: ${JSON.stringify(told)}\n\n`);
        });
        const here =
          sheet === undefined ? null : comeHere(who, job.id, sheet, (others) => send(`event: here\ndata: ${JSON.stringify(others)}\n\n`));
        const still = (): void => {
          send(": still here\n\n");
          here?.again();
          void stillMay(request, job.id).then((may) => {
            if (!may) end();
          });
        };
        // Lines that were opened in one moment, as after a restart, do not all ask in one moment ever after.
        let beat = setTimeout(() => {
          still();
          beat = setInterval(still, BEAT_MS);
        }, BEAT_MS * Math.random());
        let over = false;
        end = () => {
          if (over) return;
          over = true;
          give();
          stop();
          here?.leave();
          clearTimeout(beat);
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
  });
