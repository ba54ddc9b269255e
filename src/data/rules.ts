import { and, eq, inArray, isNull, or, sql } from "drizzle-orm";
import { z } from "zod";
import { designUnder, type HubFields, uuid } from "../contract";
import { inverse } from "../core/geo";
import { LONGEST_LINK_M, SHORTEST_LINK_M } from "../core/link";
import type { Tx } from "./changes";
import { NotFound, Refused } from "./clash";
import { nextJobNumber } from "./jobs";
import { design, link, site } from "./schema";
import { upload } from "./schema-work";
import { moveStock } from "./stock";
import type { Kept } from "./stores";

/* Rules between rows, by kind: what a declaration of fields cannot say. */

type Values = Readonly<Record<string, unknown>>;

export interface Rules {
  /** The name by which history tells it, when that is not its field "name". */
  readonly title?: (tx: Tx, row: Kept) => Promise<string>;
  /** Before it is made. @returns what the program itself sets. */
  readonly create?: (tx: Tx, jobId: string, values: Values) => Promise<Values | undefined>;
  /** Before its values change; "after" has all of them. */
  readonly patch?: (tx: Tx, row: Kept, after: Values) => Promise<void>;
  /** Before it is taken away. @param undoing the making of it is taken back, with all that was made in the same step. */
  readonly take?: (tx: Tx, row: Kept, undoing: boolean) => Promise<void>;
  readonly bring?: (tx: Tx, row: Kept) => Promise<void>;
  /** After it was changed: what of other records follows it, in the same step. Making it changes nothing else. */
  readonly followed?: (
    tx: Tx,
    row: Kept,
    change: (kind: string, id: string, version: number, fields: Values) => Promise<unknown>,
  ) => Promise<void>;
}

/** Two sites closer than this are one spot. */
export const ONE_SPOT_M = 2;
/** Most designs kept beside the one in force. */
export const MOST_KEPT = 8;

const refuseSameSpot = async (tx: Tx, jobId: string, self: string | null, values: Values): Promise<void> => {
  const at = { latDeg: Number(values.latDeg), lonDeg: Number(values.lonDeg) };
  const others = await tx
    .select({ id: site.id, name: site.name, latDeg: site.latDeg, lonDeg: site.lonDeg })
    .from(site)
    .where(and(eq(site.jobId, jobId), isNull(site.deletedAt)));
  for (const other of others)
    if (other.id !== self && inverse(other, at).distanceM < ONE_SPOT_M) throw new Refused("same-spot", "position", { name: other.name });
};

const siteRules: Rules = {
  create: async (tx, jobId, values) => {
    await refuseSameSpot(tx, jobId, null, values);
    return undefined;
  },
  patch: async (tx, row, after) => {
    if (after.latDeg !== row.values.latDeg || after.lonDeg !== row.values.lonDeg) await refuseSameSpot(tx, row.jobId, row.id, after);
  },
  // A site that still carries a link stays.
  take: async (tx, row) => {
    const [used] = await tx
      .select({ number: link.number })
      .from(link)
      .where(and(or(eq(link.nearSiteId, row.id), eq(link.farSiteId, row.id)), isNull(link.deletedAt)))
      .limit(1);
    if (used !== undefined) throw new Refused("site-in-use", "site", { name: String(row.values.name), link: used.number });
  },
  bring: (tx, row) => refuseSameSpot(tx, row.jobId, row.id, row.values),
};

const endsOf = (tx: Tx, values: Values) =>
  tx
    .select({ id: site.id, name: site.name, latDeg: site.latDeg, lonDeg: site.lonDeg, deletedAt: site.deletedAt })
    .from(site)
    .where(inArray(site.id, [String(values.nearSiteId), String(values.farSiteId)]));

const linkTitle = async (tx: Tx, values: Values): Promise<string> => {
  const ends = await endsOf(tx, values);
  const nameOf = (id: unknown): string => ends.find((s) => s.id === id)?.name ?? "?";
  return `${values.number}, ${nameOf(values.nearSiteId)} to ${nameOf(values.farSiteId)}`;
};

const linkRules: Rules = {
  title: (tx, row) => linkTitle(tx, row.values),
  create: async (tx, jobId, values) => {
    z.object({ nearSiteId: uuid, farSiteId: uuid }).parse(values);
    const ends = (await endsOf(tx, values)).filter((s) => s.deletedAt === null);
    const near = ends.find((s) => s.id === values.nearSiteId);
    const far = ends.find((s) => s.id === values.farSiteId);
    if (near === undefined || far === undefined) throw new NotFound("site");
    if (near.id === far.id) throw new Refused("same-ends", "farSiteId", { name: near.name });
    const { distanceM } = inverse(near, far);
    if (distanceM < SHORTEST_LINK_M || distanceM > LONGEST_LINK_M)
      throw new Refused("link-length", "farSiteId", { distanceM, leastM: SHORTEST_LINK_M, mostM: LONGEST_LINK_M });
    const [{ next } = { next: 1 }] = await tx
      .select({ next: sql<number>`coalesce(max(${link.number}), 0)::int + 1` })
      .from(link)
      .where(eq(link.jobId, jobId));
    return { number: next };
  },
  // It needs both its ends.
  bring: async (tx, row) => {
    const gone = (await endsOf(tx, row.values)).find((s) => s.deletedAt !== null);
    if (gone !== undefined) throw new Refused("site-gone", "site", { name: gone.name });
  },
};

const designRules: Rules = {
  title: async (tx, row) => {
    const [of] = await tx
      .select({ number: link.number, nearSiteId: link.nearSiteId, farSiteId: link.farSiteId })
      .from(link)
      .where(eq(link.id, String(row.values.linkId)));
    const name = String(row.values.name ?? "");
    return `${of === undefined ? "" : await linkTitle(tx, of)}${name === "" ? "" : `, ${name}`}`;
  },
  create: async (tx, _jobId, values) => {
    const rows = await tx
      .select({ chosen: design.chosen })
      .from(design)
      .where(and(eq(design.linkId, String(values.linkId)), isNull(design.deletedAt)));
    if (values.chosen === true && rows.some((d) => d.chosen)) throw new Refused("design-in-force", "design");
    if (rows.length > MOST_KEPT) throw new Refused("too-many-designs", "design", { most: MOST_KEPT });
    return undefined;
  },
  // The one in force goes only with its link.
  take: async (_tx, row, undoing) => {
    if (row.values.chosen === true && !undoing) throw new NotFound("design");
  },
};

const photoRules: Rules = {
  title: async (tx, row) => {
    const [at] = await tx
      .select({ name: site.name })
      .from(site)
      .where(eq(site.id, String(row.values.siteId ?? "00000000-0000-0000-0000-000000000000")));
    return at === undefined ? "" : `at ${at.name}`;
  },
};

/** The file of a map must be one of the same job. */
const refuseForeignFile = async (tx: Tx, jobId: string, values: Values): Promise<void> => {
  if (values.uploadId == null) return;
  const [file] = await tx
    .select({ id: upload.id })
    .from(upload)
    .where(and(eq(upload.id, String(values.uploadId)), eq(upload.jobId, jobId), isNull(upload.deletedAt)));
  if (file === undefined) throw new Refused("unknown-reference", "uploadId");
};

const basemapRules: Rules = {
  create: async (tx, jobId, values) => {
    await refuseForeignFile(tx, jobId, values);
    return undefined;
  },
  patch: (tx, row, after) => refuseForeignFile(tx, row.jobId, after),
  bring: (tx, row) => refuseForeignFile(tx, row.jobId, row.values),
};

const jobRules: Rules = {
  create: async (tx) => {
    return { number: await nextJobNumber(tx) };
  },
};

/** Links of a hub that are there, each with its design in force. */
const remotesOf = (tx: Tx, row: { readonly jobId: string; readonly values: Values }) => {
  const remotes = row.values.remotes as HubFields["remotes"];
  return remotes.length === 0
    ? Promise.resolve([])
    : tx
        .select({
          linkId: link.id,
          number: link.number,
          nearSiteId: link.nearSiteId,
          farSiteId: link.farSiteId,
          designId: design.id,
          version: design.version,
        })
        .from(link)
        .innerJoin(design, and(eq(design.linkId, link.id), eq(design.chosen, true), isNull(design.deletedAt)))
        .where(
          and(
            inArray(
              link.id,
              remotes.map((r) => r.linkId),
            ),
            eq(link.jobId, row.jobId),
            isNull(link.deletedAt),
          ),
        );
};

const refuseForeignRemotes = async (tx: Tx, jobId: string, values: Values): Promise<void> => {
  const [elsewhere] = (await remotesOf(tx, { jobId, values })).filter(
    (l) => l.nearSiteId !== values.siteId && l.farSiteId !== values.siteId,
  );
  if (elsewhere !== undefined) throw new Refused("hub-remote", "remotes", { link: elsewhere.number });
};

const hubRules: Rules = {
  create: async (tx, jobId, values) => {
    await refuseForeignRemotes(tx, jobId, values);
    return undefined;
  },
  patch: (tx, row, after) => refuseForeignRemotes(tx, row.jobId, after),
  // What a sector is set to, every link that hangs on it is set to.
  followed: async (tx, row, change) => {
    const hub = row.values as unknown as HubFields;
    const { sectors, remotes } = hub;
    for (const of of await remotesOf(tx, row)) {
      const sector = sectors.find((s) => s.id === remotes.find((r) => r.linkId === of.linkId)?.sectorId);
      if (sector !== undefined)
        await change("design", of.designId, of.version, designUnder(hub, sector, of.nearSiteId === row.values.siteId));
    }
  },
};

/** What a pick holds of the stock, reserved or picked: whole pieces, or begun metres. */
const heldBy = (values: Values): number => (values.state !== "there" ? Math.ceil(Number(values.count)) : 0);

const pickRules: Rules = {
  create: async (tx, _jobId, values) => ({
    fromStock: values.partId == null ? false : await moveStock(tx, String(values.partId), heldBy(values)),
  }),
  patch: async (tx, row, after) => {
    if (row.values.fromStock === true) await moveStock(tx, String(row.values.partId), heldBy(after) - heldBy(row.values));
  },
  take: async (tx, row) => {
    if (row.values.fromStock === true) await moveStock(tx, String(row.values.partId), -heldBy(row.values));
  },
  bring: async (tx, row) => {
    if (row.values.fromStock === true) await moveStock(tx, String(row.values.partId), heldBy(row.values));
  },
};

const RULES: Readonly<Record<string, Rules>> = {
  pick: pickRules,
  site: siteRules,
  link: linkRules,
  design: designRules,
  photo: photoRules,
  hub: hubRules,
  basemap: basemapRules,
  job: jobRules,
};

export const rulesOf = (kind: string): Rules => RULES[kind] ?? {};
