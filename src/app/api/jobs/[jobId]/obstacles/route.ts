import { z } from "zod";
import { parseBody, parseQuery } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { boxSchema, type DrawnDto, obstacleFieldsSchema } from "@/contract";
import { featuresOf, obstaclesOf } from "@/data/obstacles";
import { edit } from "@/data/records";
import { obstacleDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string }> };

/** More than this no screen shows apart: the widest are sent, and how many there are. Who computes with them may ask for more. */
const MOST_DRAWN = 6000;
const MOST_ASKED = 60_000;
const question = z.intersection(
  boxSchema,
  z.object({
    most: z.coerce.number().int().min(1).max(MOST_ASKED).default(MOST_DRAWN),
    /** All or none: where there are more than asked for, none is sent, and `total` is one more than that. */
    whole: z.stringbool().default(false),
  }),
);

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "see-ground", params, async (job): Promise<DrawnDto> => {
    const q = parseQuery(request, question);
    const [{ rows, total }, features] = await Promise.all([obstaclesOf(db(), job.id, q, q.most, q.whole), featuresOf(db(), job.id)]);
    return {
      obstacles: rows.map(obstacleDto),
      total,
      features: features.map((f) => ({ id: f.id, name: f.name, version: f.version, points: f.points.map((p) => [p.lonDeg, p.latDeg]) })),
    };
  });

/** A drawn one: its outline is held against the rules of an obstacle. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "plan", params, async (job) => {
    const fields = await parseBody(request, obstacleFieldsSchema);
    return edit(db(), job.id, (door) => door.create("obstacle", fields));
  });
