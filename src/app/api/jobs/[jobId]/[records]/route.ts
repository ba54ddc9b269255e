import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { type KindName, kindAt, kindOf, uuid } from "@/contract";
import { NotFound } from "@/data/clash";
import { edit, listRecords } from "@/data/records";

type Context = { params: Promise<{ jobId: string; records: string }> };

const kindIn = async (params: Context["params"]): Promise<KindName> => {
  const kind = kindAt((await params).records);
  if (kind === null) throw new NotFound("address");
  return kind as KindName;
};

/** All records of a kind; of a kind that a job has one of, that one. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-records", params, async (job) => {
    const kind = await kindIn(params);
    const rows = await listRecords(db(), job.id, kind);
    return kindOf(kind).many ? rows : rows[0];
  });

const body = z.looseObject({ id: uuid.optional() });

/** Makes one. A kind whose id comes from the client may be made again without harm. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "edit-records", params, async (job) => {
    const kind = await kindIn(params);
    const { id, ...input } = await parseBody(request, body);
    const own = kindOf(kind).idByClient && id !== undefined ? { id } : {};
    return edit(db(), job.id, (door) => door.create(kind, input as never, own));
  });

/** Changes the one that there is of a kind; version 0 is what nobody wrote yet. */
export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "edit-records", params, async (job) => {
    const kind = await kindIn(params);
    if (kindOf(kind).many) throw new NotFound(kind);
    const { version, ...fields } = await parseBody(request, z.looseObject({ version: z.number().int().min(0) }));
    return edit(db(), job.id, (door) => door.patch(kind, job.id, version, fields as never));
  });
