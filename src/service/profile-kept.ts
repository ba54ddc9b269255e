import { LRUCache } from "lru-cache";
import type { ProfileDto } from "../contract";
import type { Db } from "../data/client";
import { getLink } from "../data/jobs";
import { wantOf } from "../data/verdict-store";
import { endPositions, profileDto, profileOf } from "./profile";

/*
 * Profiles of designs in force as they were last sampled. All that a profile rests on makes its link's verdict stale, and the
 * database counts that: while the count stands, the profile does.
 */

/** Each holds some thousand figures at most. */
const MOST_KEPT = 150;
const kept = new LRUCache<string, { readonly want: number; readonly dto: Promise<ProfileDto> }>({ max: MOST_KEPT });

const sampled = async (db: Db, linkId: string, jobId: string): Promise<ProfileDto> => {
  const { link, job, near, far } = await getLink(db, linkId, jobId);
  const ends = endPositions(link, near, far);
  return profileDto(await profileOf(db, job, link, near, far), job, ends.near, ends.far);
};

/**
 * The profile of a link's design in force, sampled anew only after something it rests on has changed.
 * @throws NotFound of a link that is not of this job or is away; Refused of profileBetween.
 */
export const keptProfile = async (db: Db, linkId: string, jobId: string): Promise<ProfileDto> => {
  // Read before anything that is sampled: what changes meanwhile raises the count, and this profile is not asked for again.
  const want = await wantOf(db, linkId, jobId);
  const before = kept.get(linkId);
  if (want !== null && before?.want === want) return before.dto;
  const dto = sampled(db, linkId, jobId);
  if (want !== null && (before === undefined || before.want < want)) {
    const entry = { want, dto };
    kept.set(linkId, entry);
    // What could not be sampled is tried again.
    dto.catch(() => {
      if (kept.peek(linkId) === entry) kept.delete(linkId);
    });
  }
  return dto;
};
