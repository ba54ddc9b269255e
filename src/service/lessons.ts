import { sql } from "drizzle-orm";
import { type LessonDto, lessonSchema } from "../contract";
import type { Db } from "../data/client";
import { openJobs } from "../data/jobs";
import { job } from "../data/schema";

/** Lessons of all jobs that whoever asks may open, but one, with the names of where they were learnt; those of a site that is gone keep their words. */
export const lessonsBeside = async (db: Db, jobId: string): Promise<readonly LessonDto[]> => {
  const found = await db.execute<{ lesson: unknown; job_id: string; job_name: string; site_name: string | null }>(sql`
    SELECT l.lesson, j.id AS job_id, j.name AS job_name, s.name AS site_name
    FROM record r
    JOIN (SELECT * FROM ${job} WHERE ${openJobs()}) j ON j.id = r.job_id
    CROSS JOIN LATERAL jsonb_array_elements(coalesce(r.doc -> 'lessons', '[]'::jsonb)) AS l(lesson)
    LEFT JOIN site s ON s.id::text = l.lesson ->> 'siteId' AND s.deleted_at IS NULL
    WHERE r.kind = 'kit' AND r.deleted_at IS NULL AND j.id <> ${jobId}
    ORDER BY j.updated_at DESC LIMIT 2000`);
  return found.rows.flatMap((row) => {
    const lesson = lessonSchema.safeParse(row.lesson);
    return lesson.success ? [{ ...lesson.data, jobId: row.job_id, jobName: row.job_name, siteName: row.site_name ?? "" }] : [];
  });
};
