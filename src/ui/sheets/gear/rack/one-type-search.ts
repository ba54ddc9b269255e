import { type HardwareDto, type Limits, type LinkDto, profileFromDto } from "@/contract";
import type { PathProfile } from "@/core/link";
import { type OneTypeAnswer, oneTypeFor, type Serving, typeKeyOf } from "@/core/rack";
import type { RackRequest } from "@/workers/messages";
import { ApiError } from "../../../api/client";
import { rackLimitsOf, schoolOf } from "./limits-of";
import type { OtherLink } from "./other-links";

/** How the search meets the world; a test gives its own. */
export interface SearchParts {
  readonly read: (linkId: string) => Promise<OtherLink>;
  /** What serves a link, the first of the order drawn. */
  readonly serving: (profile: PathProfile, request: RackRequest) => Promise<Found>;
  readonly onProgress: (done: number, total: number) => void;
  /** Nobody waits for it any more. */
  readonly isGone: () => boolean;
}

export interface JobType extends OneTypeAnswer {
  /** Links that were not looked at: no required rate, a radio that is gone, a path that cannot be judged. */
  readonly passedOver: readonly string[];
}

type Found = readonly (Serving & { readonly drawn: boolean })[];

/** What was found of a link, by a digest of all that it was asked with: its plan, its path, its limits, the catalogue. */
const known = new Map<string, Found>();
const MOST_KNOWN = 600;
let knownOf: HardwareDto | null = null;

const digestOf = async (of: unknown): Promise<string> =>
  [...new Uint8Array(await crypto.subtle.digest("SHA-256", new TextEncoder().encode(JSON.stringify(of))))].join(".");

type Ask = (onlyType: string | null) => Promise<Found>;
interface Served {
  readonly linkId: string;
  readonly serving: Found;
  readonly ask: Ask;
}

/**
 * The one type that serves most links of a job. Each link has its own rack; a type that the quick sum lets serve somewhere is
 * drawn there before it is told.
 * @returns null when nobody waits for it any more.
 */
export const findOneType = async (
  links: readonly Pick<LinkDto, "id">[],
  limits: Limits,
  hardware: HardwareDto,
  { read, serving, onProgress, isGone }: SearchParts,
): Promise<JobType | null> => {
  if (knownOf !== hardware) known.clear();
  knownOf = hardware;
  const passedOver: string[] = [];
  const found: Served[] = [];
  for (const [i, { id }] of links.entries()) {
    onProgress(i, links.length);
    const other = await read(id);
    if (isGone()) return null;
    if (other.kind !== "plan") {
      passedOver.push(id);
      continue;
    }
    const { plan, bundle } = other;
    // A path that the server refuses is that link's trouble; one that cannot be fetched is everybody's.
    const dto = await other.path().catch((error: unknown) => {
      if (error instanceof ApiError && error.status >= 400 && error.status < 500) return null;
      throw error;
    });
    if (isGone()) return null;
    if (dto === null) {
      passedOver.push(id);
      continue;
    }
    const profile = profileFromDto(dto);
    const ask: Ask = async (onlyType) => {
      const own = rackLimitsOf(limits, id, bundle.near.id, bundle.far.id, onlyType);
      const request: RackRequest = { plan, limits: own, school: schoolOf(limits, id) };
      const key = await digestOf([dto, request]);
      const now = known.get(key) ?? (await serving(profile, request));
      if (known.size >= MOST_KNOWN) known.clear();
      known.set(key, now);
      return now;
    };
    const list = await ask(null);
    if (isGone()) return null;
    found.push({ linkId: id, serving: list, ask });
  }
  onProgress(links.length, links.length);
  // What is told of a type is drawn wherever it is told: where the draws refuse it, the search goes on without it there.
  const drawnAt = new Set<string>();
  for (;;) {
    const answer = oneTypeFor(found);
    const { best } = answer;
    if (best === null) return { ...answer, passedOver };
    const open = found.find((l) => {
      const s = l.serving.find((x) => isOf(x, best.key));
      return s !== undefined && !s.drawn && !drawnAt.has(`${l.linkId}|${best.key}`);
    });
    if (open === undefined) return { ...answer, passedOver };
    drawnAt.add(`${open.linkId}|${best.key}`);
    const drawn = await open.ask(best.key);
    if (isGone()) return null;
    if (drawn.length === 0) found[found.indexOf(open)] = { ...open, serving: open.serving.filter((x) => !isOf(x, best.key)) };
  }
};

const isOf = ({ pair }: Serving, key: string): boolean => typeKeyOf(pair) === key;
