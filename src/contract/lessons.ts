import type { KitFields, Lesson } from "./kit";
import { kitSiteOf } from "./kit-facts";
import type { SiteKit } from "./kit-job";

/* Lessons that earlier sites taught, offered where the same thing or the same wall is met again. */

/** A lesson with the names of where it was learnt. */
export interface LessonDto extends Lesson {
  readonly jobId: string;
  readonly jobName: string;
  readonly siteName: string;
}

export interface OfferedLesson {
  readonly lesson: LessonDto;
  /** Ends that it is of use at. */
  readonly siteIds: readonly string[];
}

/** Lessons that fit some ends: not those that were learnt there, nor those that were read. */
export const offeredLessons = (
  lessons: readonly LessonDto[],
  ends: readonly SiteKit[],
  kit: Pick<KitFields, "sites" | "lessonsRead">,
): OfferedLesson[] => {
  const read = new Set(kit.lessonsRead);
  return lessons.flatMap((lesson) => {
    if (read.has(lesson.id)) return [];
    const siteIds = ends
      .filter(({ siteId, rows }) => {
        if (siteId === lesson.siteId) return false;
        if (lesson.partId !== null && !rows.some((r) => r.part?.id === lesson.partId)) return false;
        return lesson.wall === null || kitSiteOf(kit, siteId).wall === lesson.wall;
      })
      .map((e) => e.siteId);
    return siteIds.length === 0 ? [] : [{ lesson, siteIds }];
  });
};
