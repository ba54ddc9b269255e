import type { z } from "zod";
import { ROLES, type TokenDto, type TokenMadeDto, type tokenSchema } from "../../contract";
import { askerNow } from "../../data/actor";
import { NotFound, Refused } from "../../data/clash";
import type { Db } from "../../data/client";
import { jobsOfFirm, memberById, writeAudit } from "../../data/people";
import { endTokenOf, keepToken, tokensOf } from "../../data/tokens";
import { hashOf, newSecret } from "./secret-key";

/* Tokens: what lets a program in, never as more than its member. */

/** So that one that lies about is known for what it is. */
export const TOKEN_START = "dryarc_";
const DAY_MS = 86_400_000;
const MOST_DAYS = 366;
const MOST = 50;

export const tokenList = async (db: Db): Promise<TokenDto[]> =>
  (await tokensOf(db, askerNow()!.organisationId)).map((t) => ({
    id: t.id,
    name: t.name,
    person: t.person,
    becomes: { role: t.role, jobIds: t.jobIds, sheets: null },
    expiresAt: t.expiresAt.toISOString(),
    ended: t.endedAt !== null || t.expiresAt.getTime() <= Date.now(),
    lastUsedAt: t.lastUsedAt?.toISOString() ?? null,
    lastUsedFrom: t.lastUsedFrom,
  }));

/** Makes a token of whoever asks; it is told once, here. @throws Refused for a day that is over or too far, or too many tokens. */
export const makeToken = async (db: Db, t: z.output<typeof tokenSchema>): Promise<TokenMadeDto> => {
  const who = askerNow()!;
  const of = await memberById(db, who.memberId ?? "00000000-0000-0000-0000-000000000000");
  if (ROLES.indexOf(t.becomes.role) < ROLES.indexOf(of.role)) throw new Refused("not-allowed", "becomes.role");
  const expiresAt = new Date(Date.parse(`${t.endsOn}T00:00:00Z`) + DAY_MS);
  const days = (expiresAt.getTime() - Date.now()) / DAY_MS;
  if (days <= 0) throw new Refused("invalid", "endsOn", {}, "that day is over");
  if (days > MOST_DAYS) throw new Refused("invalid", "endsOn", {}, "a token opens for a year at most");
  const { jobIds } = t.becomes;
  if (jobIds !== null && (await jobsOfFirm(db, who.organisationId, jobIds)).length !== new Set(jobIds).size) throw new NotFound("job");
  if ((await tokenList(db)).filter((one) => !one.ended).length >= MOST)
    throw new Refused("invalid", "name", {}, `there are ${MOST} tokens already: end one first`);
  const secret = newSecret();
  await keepToken(db, {
    organisationId: who.organisationId,
    memberId: of.id,
    role: t.becomes.role,
    jobIds,
    name: t.name,
    tokenHash: hashOf(secret),
    expiresAt,
  });
  await writeAudit(db, "token-made", { detail: { token: t.name, role: t.becomes.role, endsOn: t.endsOn } });
  return { token: `${TOKEN_START}${secret}`, expiresAt: expiresAt.toISOString() };
};

export const endToken = async (db: Db, id: string): Promise<TokenDto[]> => {
  const name = await endTokenOf(db, askerNow()!.organisationId, id);
  await writeAudit(db, "token-ended", { detail: { token: name } });
  return tokenList(db);
};
