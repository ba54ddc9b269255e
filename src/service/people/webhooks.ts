import { createHmac, randomBytes } from "node:crypto";
import { symmetricDecrypt, symmetricEncrypt } from "better-auth/crypto";
import type { z } from "zod";
import type { WebhookDto, WebhookMadeDto, webhookSchema } from "../../contract";
import { asAsker, askerNow, programFor } from "../../data/actor";
import { Refused } from "../../data/clash";
import type { Db } from "../../data/client";
import {
  callFailed,
  callFor,
  callTaken,
  changesBy,
  claimHook,
  endHookOf,
  type HookRow,
  hookOf,
  hooksOf,
  resumeHook,
  type ToldChange,
} from "../../data/hooks";
import { logFault } from "../../data/log";
import { writeAudit } from "../../data/people";
import { webhook } from "../../data/schema-hooks";
import { callOut, OutFault, type Reach } from "../outgoing";
import { ownJobIds } from "./bounds";
import { signInSecret } from "./secret-key";

/*
 * Calls to other programs when something changes. A call names what changed, never what it is now: who wants to know asks for it by a
 * token. It is signed (HMAC-SHA256 over its number, its time and its body, as the Standard Webhooks specification writes it), told at
 * least once, in order, and the same call has the same number at each try.
 */

const MOST = 20;
/** So that one that lies about is known for what it is. */
const SECRET_START = "whsec_";
const SECRET_BYTES = 32;

/** Hosts on this machine or within its network that an operator allows, as host or host:port. */
const reach = (): Reach => ({ outside: true, hosts: (process.env.DRYARC_CALL_HOSTS ?? "").split(",").filter((h) => h !== "") });

const dto = (h: HookRow & { due: number }): WebhookDto => ({
  id: h.id,
  name: h.name,
  url: h.url,
  jobIds: h.jobIds,
  due: h.due,
  failures: h.failures,
  paused: h.pausedAt !== null,
  nextAt: h.nextAt.toISOString(),
  lastOkAt: h.lastOkAt?.toISOString() ?? null,
  lastAnswer: h.lastAnswer,
  dropped: h.dropped,
});

export const webhookList = async (doors: Db): Promise<WebhookDto[]> => (await hooksOf(doors, askerNow()!.organisationId)).map(dto);

/** Makes an address that is told; what its calls are signed by is told once, here. @throws Refused for too many, or a plain address. */
export const makeWebhook = async (doors: Db, w: z.output<typeof webhookSchema>): Promise<WebhookMadeDto> => {
  const { organisationId } = askerNow()!;
  const url = new URL(w.url);
  if (url.protocol !== "https:" && !reach().hosts!.some((h) => h === url.host || h === url.hostname))
    throw new Refused("invalid", "url", {}, "the address must begin with https: anybody between here and there would read along");
  const jobIds = w.jobIds === null ? null : await ownJobIds(doors, organisationId, w.jobIds);
  if ((await hooksOf(doors, organisationId)).length >= MOST)
    throw new Refused("invalid", "name", {}, `there are ${MOST} addresses already: end one first`);
  const secret = `${SECRET_START}${randomBytes(SECRET_BYTES).toString("base64")}`;
  const [row] = await doors
    .insert(webhook)
    .values({
      organisationId,
      name: w.name,
      url: w.url,
      jobIds,
      secret: await symmetricEncrypt({ key: signInSecret(), data: secret }),
    })
    .returning({ id: webhook.id });
  await writeAudit(doors, "webhook-made", { detail: { for: w.name, to: url.host } });
  return { id: row!.id, secret };
};

export const endWebhook = async (doors: Db, id: string): Promise<void> => {
  const row = await endHookOf(doors, askerNow()!.organisationId, id);
  await writeAudit(doors, "webhook-ended", { detail: { for: row.name } });
};

/** Signs a call: what stands in its head. @param secret as it was told: "whsec_" and base64. */
export const signed = (secret: string, callId: string, atS: number, body: string): Record<string, string> => {
  const key = Buffer.from(secret.slice(SECRET_START.length), "base64");
  const mac = createHmac("sha256", key).update(`${callId}.${atS}.${body}`).digest("base64");
  return { "webhook-id": callId, "webhook-timestamp": String(atS), "webhook-signature": `v1,${mac}` };
};

const FAULTS: Readonly<Record<OutFault["why"], string>> = {
  "not-allowed": "it leads to this machine or into its network, which is not allowed",
  unreachable: "it cannot be reached",
  "too-large": "its answer is too long",
  "too-slow": "it did not answer within 3 seconds",
  redirect: "it points elsewhere, which is not followed",
};

const call = async (h: HookRow, callId: string, told: object): Promise<{ ok: boolean; answer: string; gone: boolean }> => {
  const body = JSON.stringify(told);
  const secret = await symmetricDecrypt({ key: signInSecret(), data: h.secret });
  const head = signed(secret, callId, Math.floor(Date.now() / 1000), body);
  try {
    const { status } = await callOut(new URL(h.url), reach(), {
      method: "POST",
      headers: { "content-type": "application/json", "user-agent": "dry-arc", ...head },
      body,
    });
    return { ok: status >= 200 && status < 300, answer: `answered ${status}`, gone: status === 410 };
  } catch (error) {
    if (!(error instanceof OutFault)) throw error;
    return { ok: false, answer: FAULTS[error.why], gone: false };
  }
};

const toldOf = (c: ToldChange) => ({
  seq: c.seq,
  jobId: c.jobId,
  job: c.jobName,
  kind: c.entity,
  recordId: c.entityId,
  action: c.action,
  at: c.at.toISOString(),
});

/**
 * Makes one call that is due. @param db what a firm's changes are read from. @returns false when none is due.
 */
export const tellOne = async (doors: Db, db: Db): Promise<boolean> => {
  const hook = await claimHook(doors);
  if (hook === null) return false;
  const { callId, changeIds } = await callFor(doors, hook.id);
  const changes = await asAsker(programFor(hook.organisationId), () => changesBy(db, changeIds));
  if (changes.length < changeIds.length)
    logFault("webhooks", `${changeIds.length - changes.length} of ${changeIds.length} changes of a call are not there any more`);
  if (changes.length === 0) {
    await callTaken(doors, hook.id, callId, hook.lastAnswer);
    return true;
  }
  const { ok, answer, gone } = await call(hook, callId, { type: "job.changed", changes: changes.map(toldOf) });
  if (ok) await callTaken(doors, hook.id, callId, answer);
  else await callFailed(doors, hook.id, answer, gone);
  return true;
};

/** Calls an address now, with nothing to tell, and lets it be called again where it had been given up. @returns what came of it. */
export const tryWebhook = async (doors: Db, id: string): Promise<{ readonly ok: boolean; readonly answer: string }> => {
  const hook = await hookOf(doors, askerNow()!.organisationId, id);
  const { ok, answer } = await call(hook, crypto.randomUUID(), { type: "try", changes: [] });
  if (ok) await resumeHook(doors, hook.id);
  return { ok, answer };
};
