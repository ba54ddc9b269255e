import { createHash } from "node:crypto";
import { z } from "zod";
import { type ErrorBody, mayAsk, type Right, rightOf, seesPrices, uuid, VEILED_RIGHTS, withoutPrices } from "@/contract";
import { type Asker, asAsker, asClient, askerNow, inJob } from "@/data/actor";
import { NotFound, Refused, VersionClash } from "@/data/clash";
import { isBrokenReference, isUnreachable } from "@/data/client";
import { isDiskFull } from "@/data/files";
import { getJob, type JobRow } from "@/data/jobs";
import { logFault, logRefusal } from "@/data/log";
import { onceOnly } from "@/data/made-edits";
import { FileFault } from "@/formats";
import { ReaderEnded } from "@/jobs/reader-pool";
import { refusalOf } from "./authorise";
import { BadBody, bodyAhead } from "./body";
import { db } from "./db";
import { inTurn, turnOf } from "./in-turn";
import { isNews, veiled } from "./veiled";
import { whoAsks } from "./who";

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

/** Refusals that have a status of their own. */
const STATUS: Readonly<Partial<Record<ErrorBody["code"], number>>> = {
  busy: 503,
  "not-allowed": 403,
  "signed-out": 401,
  "wrong-sign-in": 401,
  "second-factor": 401,
  "wrong-code": 401,
  "too-many-tries": 429,
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
  if (error instanceof Refused) {
    const answer = fault(STATUS[error.code] ?? 422, { code: error.code, path: error.path, message: error.told, values: error.values });
    if (error.values.waitS !== undefined) answer.headers.set("retry-after", String(error.values.waitS));
    return answer;
  }
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

/** The number of an edit, of one person: another who sends the same number makes another edit. */
const editOf = (who: Asker | null, given: string): string => {
  const id = uuid.parse(given);
  if (who === null || who.personId === null) return id;
  const h = createHash("sha256").update(`${who.personId} ${id}`).digest("hex");
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-4${h.slice(13, 16)}-8${h.slice(17, 20)}-${h.slice(20, 32)}`;
};

/** Who may ask for a route: anybody, or whoever has a right. */
export type Gate = Right | "open";

/** What whoever asks may be told of an answer. */
const forWhom = async (request: Request, result: unknown): Promise<unknown> => {
  const who = askerNow();
  const given = seesPrices(who?.role ?? "owner") ? result : withoutPrices(result);
  return who === null || who.veil === null ? given : veiled(request, who, who.veil, given);
};

/**
 * Runs a route: checks where it comes from, who asks and whether they may, turns what goes wrong into an error as data. An edit
 * that carries a number of its browser is made once, whatever becomes of its answer.
 */
export const handle = async (request: Request, gate: Gate, work: () => Promise<unknown>): Promise<Response> => {
  const refusal = refusalOf(request);
  const asked = `${request.method} ${new URL(request.url).pathname}`;
  if (refusal !== null) {
    logRefusal(asked, refusal, null);
    return strict(fault(403, { code: refusal }));
  }
  try {
    if (gate === "open") return await answer(request, null, false, work);
    const who = await whoAsks(request);
    if (who === null) return strict(fault(401, { code: "signed-out" }));
    const made = request.headers.get("x-person");
    if (made !== null && who.personId !== null && made !== who.personId) return strict(fault(409, { code: "other-person" }));
    if (!mayAsk(gate, who.role, who.sheets) || (who.veil !== null && !VEILED_RIGHTS.includes(gate))) {
      logRefusal(asked, gate, who);
      return strict(fault(403, { code: "not-allowed", path: gate }));
    }
    return await asAsker(who, () => answer(request, who, rightOf(gate).writes === true, work));
  } catch (error) {
    return strict(error instanceof Answered ? error.response : faultOf(error));
  }
};

const answer = async (request: Request, who: Asker | null, writes: boolean, work: () => Promise<unknown>): Promise<Response> => {
  const editId = writes ? request.headers.get("x-edit") : null;
  const run = (): Promise<unknown> => asClient(clientOf(request), work);
  const once = async (): Promise<unknown> => {
    const given = await run();
    // An answer of another form is a refusal: nothing was made, and nothing is kept of it.
    if (given instanceof Response) throw new Answered(given);
    return given;
  };
  if (editId !== null) await bodyAhead(request);
  const turn = editId === null ? null : turnOf(new URL(request.url).pathname);
  const made = (): Promise<unknown> => (editId === null ? run() : onceOnly(db(), editOf(who, editId), once));
  const result = turn === null ? await made() : await inTurn(turn, made);
  if (!(result instanceof Response)) return strict(json(await forWhom(request, result ?? { ok: true })));
  // A file tells what it tells; news name rows, and nothing of them.
  if (who !== null && who.veil !== null && !isNews(result)) return strict(fault(403, { code: "not-allowed", path: "identity" }));
  return strict(result);
};

/** The same for a route of a job: the job must be there, and all that is touched must belong to it. */
export const handleJob = (
  request: Request,
  gate: Right,
  params: Promise<{ jobId: string }>,
  work: (job: JobRow) => Promise<unknown>,
): Promise<Response> =>
  handle(request, gate, async () => {
    const job = await getJob(db(), uuid.parse((await params).jobId));
    return inJob(job.id, () => work(job));
  });
