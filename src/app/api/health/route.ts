import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { workerIsThere } from "@/data/beats";
import { isUnreachable } from "@/data/client";

/** Whether the server answers, and what it waits for. */
export const GET = (request: Request): Promise<Response> =>
  handle(request, "open", async () => {
    try {
      return { database: "ready", worker: (await workerIsThere(db())) ? "ready" : "away" };
    } catch (error) {
      if (!isUnreachable(error)) throw error;
      return Response.json(
        { database: "away", worker: "waiting for the database" },
        { status: 503, headers: { "cache-control": "no-store" } },
      );
    }
  });
