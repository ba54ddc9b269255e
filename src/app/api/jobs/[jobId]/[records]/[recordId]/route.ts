import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { type KindName, kindAt, uuid } from "@/contract";
import { NotFound } from "@/data/clash";
import { edit, getRecord } from "@/data/records";

type Context = { params: Promise<{ jobId: string; records: string; recordId: string }> };

const named = async (params: Context["params"]): Promise<{ kind: KindName; id: string }> => {
  const { records, recordId } = await params;
  const kind = kindAt(records);
  if (kind === null) throw new NotFound("address");
  return { kind: kind as KindName, id: uuid.parse(recordId) };
};

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-records", params, async (job) => {
    const { kind, id } = await named(params);
    return getRecord(db(), job.id, kind, id);
  });

const body = z.looseObject({ version: z.number("the version is missing").int().min(1), deleted: z.boolean().optional() });

/** Changes some fields, takes the record away, or brings it back, as it stands at a version. */
export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "edit-records", params, async (job) => {
    const { kind, id } = await named(params);
    const { version, deleted, ...fields } = await parseBody(request, body);
    return edit(db(), job.id, async (door) => {
      if (deleted !== undefined) return deleted ? door.take(kind, id, version) : door.bring(kind, id, version);
      return door.patch(kind, id, version, fields as never);
    });
  });
