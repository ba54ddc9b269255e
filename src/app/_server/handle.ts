import { z } from "zod";
import { type ErrorBody, uuid } from "@/contract";
import { asClient, inJob } from "@/data/actor";
import { NotFound, Refused, VersionClash } from "@/data/clash";
import { isBrokenReference, isUnreachable } from "@/data/client";
import { isDiskFull } from "@/data/files";
import { getJob, type JobRow } from "@/data/jobs";
import { logFault } from "@/data/log";
import { onceOnly } from "@/data/made-edits";
import { FileFault } from "@/formats";
import { ReaderEnded } from "@/jobs/reader-pool";
import { type Access, refusalOf } from "./authorise";
import { BadBody } from "./body";
import { db } from "./db";

/** What an answer that is no page may do: nothing. */
const STRICT: Readonly<Record<string, string>> = {
  "content-security-policy": "default-src 'none'; sandbox; frame-ancestors 'none'",
  "x-content-type-options": "nosniff",
  "cross-origin-resource-policy": "same-origin",
  "referrer-policy": "same-origin",
};

const json = (body: unknown, status = 200): Response => Response.json(body, { status, headers: { "cache-control": "no-store" } });
const fault = (status: number, body: ErrorBody): Response => json(body, status);

/** The browser that asks, as it names itself; null when it does not, or not in the form of one. */
const clientOf = (request: Request): string | null => {
  const name = request.headers.get("x-client");
  return name !== null && /^[\w-]{8,40}$/.test(name) ? name : null;
};

/** A fault as an answer; what nobody foresaw goes into the log. */
export const faultOf = (error: unknown): Response => {
  if (error instanceof z.ZodError) {
    const [issue] = error.issues;
    return fault(400, { code: "invalid", path: issue?.path.join(".") ?? "", message: issue?.message });
  }
  if (error instanceof BadBody) return fault(400, { code: "bad-body", message: error.message });
  if (error instanceof FileFault) return fault(422, { code: "file-fault", message: error.message, path: error.asks ?? "file" });
  if (error instanceof VersionClash) return fault(409, { code: "clash", path: error.entity, current: error.current });
  if (error instanceof NotFound) return fault(404, { code: "not-found", path: error.entity });
  if (error instanceof Refused)
    return fault(error.code === "busy" ? 503 : 422, { code: error.code, path: error.path, values: error.values });
  if (error instanceof ReaderEnded) return fault(422, { code: "file-fault", message: error.message, path: "file" });
  if (isDiskFull(error)) return fault(507, { code: "disk-full", path: "file", values: { freeMb: 0 } });
  if (isBrokenReference(error)) return fault(422, { code: "unknown-reference" });
  if (isUnreachable(error)) return fault(503, { code: "database-unreachable" });
  logFault("request", error);
  return fault(500, { code: "internal" });
};

const strict = (response: Response): Response => {
  for (const [name, value] of Object.entries(STRICT)) if (!response.headers.has(name)) response.headers.set(name, value);
  return response;
};

/** Carries an answer out of an edit that was not made. */
class Answered extends Error {
  constructor(readonly response: Response) {
    super("answered");
  }
}

/**
 * Runs a route: checks who asks, turns what goes wrong into an error as data. An edit that carries a number of its
 * browser is made once, whatever becomes of its answer.
 */
export const handle = async (request: Request, access: Access, work: () => Promise<unknown>): Promise<Response> => {
  const refusal = refusalOf(request);
  if (refusal !== null) return strict(fault(403, { code: refusal }));
  try {
    const editId = access === "write" ? request.headers.get("x-edit") : null;
    const run = (): Promise<unknown> => asClient(clientOf(request), work);
    const once = async (): Promise<unknown> => {
      const answer = await run();
      // An answer of another form is a refusal: nothing was made, and nothing is kept of it.
      if (answer instanceof Response) throw new Answered(answer);
      return answer;
    };
    const result = editId === null ? await run() : await onceOnly(db(), uuid.parse(editId), once);
    return strict(result instanceof Response ? result : json(result ?? { ok: true }));
  } catch (error) {
    return strict(error instanceof Answered ? error.response : faultOf(error));
  }
};

/** The same for a route of a job: the job must be there, and all that is touched must belong to it. */
export const handleJob = (
  request: Request,
  access: Access,
  params: Promise<{ jobId: string }>,
  work: (job: JobRow) => Promise<unknown>,
): Promise<Response> =>
  handle(request, access, async () => {
    const job = await getJob(db(), uuid.parse((await params).jobId));
    return inJob(job.id, () => work(job));
  });
