import type { z } from "zod";
import { ROLES, type TokenDto, type TokenMadeDto, type tokenSchema } from "../../contract";
import { askerNow } from "../../data/actor";
import { NotFound, Refused } from "../../data/clash";
import type { Db } from "../../data/client";
import { memberById, writeAudit } from "../../data/people";
import { endTokenOf, keepToken, tokensOf } from "../../data/tokens";
import { endOfDay, ownJobs } from "./bounds";
import { hashOf, newSecret } from "./secret-key";

/* Tokens: what lets a program in, never as more than its member. */

/** So that one that lies about is known for what it is. */
export const TOKEN_START = "dryarc_";
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
  if (who.memberId === null) throw new NotFound("person");
  const of = await memberById(db, who.memberId);
  if (ROLES.indexOf(t.becomes.role) < ROLES.indexOf(of.role)) throw new Refused("not-allowed", "becomes.role");
  const expiresAt = endOfDay(t.endsOn, "a token");
  const { role, jobIds } = await ownJobs(db, who.organisationId, t.becomes);
  if ((await tokenList(db)).filter((one) => !one.ended).length >= MOST)
    throw new Refused("invalid", "name", {}, `there are ${MOST} tokens already: end one first`);
  const secret = newSecret();
  await keepToken(db, {
    organisationId: who.organisationId,
    memberId: of.id,
    role,
    jobIds,
    name: t.name,
    tokenHash: hashOf(secret),
    expiresAt,
  });
  await writeAudit(db, "token-made", { detail: { token: t.name, role, endsOn: t.endsOn } });
  return { token: `${TOKEN_START}${secret}`, expiresAt: expiresAt.toISOString() };
};

export const endToken = async (db: Db, id: string): Promise<void> => {
  const name = await endTokenOf(db, askerNow()!.organisationId, id);
  await writeAudit(db, "token-ended", { detail: { token: name } });
};
