import { and, eq, sql } from "drizzle-orm";
import type { z } from "zod";
import type { FreeTextDto, ShareDto, shareSchema } from "../../contract";
import { askerNow } from "../../data/actor";
import { NotFound, Refused } from "../../data/clash";
import type { Db } from "../../data/client";
import { countShare, type ShareRow, sharesOf, writeAudit } from "../../data/people";
import { listRecords } from "../../data/records";
import { share } from "../../data/schema-people";
import { endOfDay } from "./bounds";
import { hashOf, newSecret } from "./secret-key";
import { freeTextsOf, tickedKinds } from "./veil";

/* Links by which somebody without an account reads chosen sheets of one job: until a day, or until they are taken back. */

/** Open at a time, of one job. */
const MOST = 50;

const shareDto = (s: ShareRow): ShareDto => ({
  id: s.id,
  identityOut: s.identityOut,
  name: s.name,
  sheets: s.sheets,
  expiresAt: s.expiresAt.toISOString(),
  ended: s.endedAt !== null || s.expiresAt.getTime() <= Date.now(),
  opened: s.opened,
  lastOpenedAt: s.lastOpenedAt?.toISOString() ?? null,
});

export const shareList = async (db: Db, jobId: string): Promise<ShareDto[]> => (await sharesOf(db, jobId)).map(shareDto);

/** Makes a link; its secret is told once, here. @throws Refused for a day that is over or too far, or too many links. */
export const makeShare = async (
  db: Db,
  jobId: string,
  p: z.output<typeof shareSchema>,
  origin: string,
): Promise<{ url: string; expiresAt: string }> => {
  const who = askerNow()!;
  const expiresAt = endOfDay(p.endsOn, "a link");
  if ((await sharesOf(db, jobId)).filter((s) => !shareDto(s).ended).length >= MOST) throw new Refused("busy", "share");
  const token = newSecret();
  await db.insert(share).values({
    organisationId: who.organisationId,
    jobId,
    sheets: [...new Set(p.sheets)],
    identityOut: p.identityOut,
    told: p.identityOut ? [...new Set(p.told)] : [],
    name: p.name,
    tokenHash: hashOf(token),
    madeBy: who.personId,
    expiresAt,
  });
  await writeAudit(db, "shared", {
    jobId,
    detail: { for: p.name, sheets: p.sheets.join(", "), identity: p.identityOut ? "left out" : "told" },
  });
  return { url: `${origin}/share#${token}`, expiresAt: expiresAt.toISOString() };
};

/** Takes a link back: it opens nothing at the next request. */
export const endShare = async (db: Db, jobId: string, id: string): Promise<void> => {
  const rows = await db
    .update(share)
    .set({ endedAt: sql`coalesce(${share.endedAt}, now())` })
    .where(and(eq(share.id, id), eq(share.jobId, jobId)))
    .returning({ name: share.name });
  if (rows[0] === undefined) throw new NotFound("share");
  await writeAudit(db, "share-ended", { jobId, detail: { for: rows[0].name } });
};

/** Opens a link: counted. @throws Refused "link-used" when it opens no longer. */
export const openShared = async (db: Db, token: string): Promise<{ jobId: string; expiresAt: Date }> => {
  const row = await countShare(db, hashOf(token));
  if (row === null) throw new Refused("link-used", "token");
  return { jobId: row.jobId, expiresAt: row.expiresAt };
};

/** Words of a job that a link without identity leaves out unless they are ticked, each once. */
export const freeTexts = async (db: Db, jobId: string): Promise<FreeTextDto[]> => {
  const found = new Map<string, FreeTextDto>();
  for (const kind of tickedKinds()) {
    // Of a kind that nobody wrote, there is none.
    const rows = (await listRecords(db, jobId, kind)) as unknown as readonly Readonly<Record<string, unknown>>[];
    for (const row of rows) for (const text of freeTextsOf(kind, row)) if (!found.has(text.mark)) found.set(text.mark, text);
  }
  return [...found.values()];
};
