import { expose } from "comlink";
import { type LinkPlan, type PathProfile, type PreparedPath, pathStateOf, preparePath, reflectorOf, trimList } from "@/core/link";
import { heightAnswers, heightFrontier, levelOverHeight, levelOverTide, outlook, topsOf, worstOverTideGrid } from "@/core/solve";
import type { HeightsReply, HeightsRequest, SolveWorker, TreesReply, WaterReply } from "./messages";

/** Years looked ahead at least, beyond the job's horizon too. */
const YEARS_AHEAD = 10;
const NULL_SIDE = 25;
const ROOM_STEP_M = 5;
/** Heights of a mount looked at over water. */
const LOWEST_M = 1;

let profile: PathProfile | null = null;
let held: { key: string; path: PreparedPath } | null = null;
/** Pairs do not depend on where the mounts stand now: kept while only they move. */
let pairs: { key: string; reply: Pick<HeightsReply, "today" | "last" | "nulls"> } | null = null;

const pathFor = (plan: LinkPlan): PreparedPath => {
  if (profile === null) throw new Error("no path was opened");
  const key = JSON.stringify([plan.centreMhz, plan.policy, plan.climate, plan.trims]);
  if (held === null || held.key !== key || held.path.profile !== profile) held = { key, path: preparePath(plan, profile) };
  return held.path;
};

const heights = ({ plan, costs }: HeightsRequest): HeightsReply => {
  const path = pathFor(plan);
  const { year, horizonYears } = plan.policy;
  const tops = topsOf(plan);
  const answers = heightAnswers(plan, path, costs, year + horizonYears);
  // Room for every answer, in steps, so that a dragged mount seldom asks for all pairs anew.
  const room = (topM: number, heights: readonly number[]): number =>
    Math.ceil((Math.max(topM, ...heights) * 1.08 + 1) / ROOM_STEP_M) * ROOM_STEP_M;
  const roomy = {
    nearM: room(
      tops.nearM,
      answers.answers.map((a) => a.nearAglM),
    ),
    farM: room(
      tops.farM,
      answers.answers.map((a) => a.farAglM),
    ),
  };
  const { near, far, ...rest } = plan;
  const key = JSON.stringify([rest, near.radio.id, far.radio.id, near.antenna?.id, far.antenna?.id, roomy]);
  if (pairs === null || pairs.key !== key) {
    const reflects = reflectorOf(plan, pathStateOf(plan, path)) !== null;
    pairs = {
      key,
      reply: {
        today: heightFrontier(plan, path, roomy, year),
        last: heightFrontier(plan, path, roomy, year + horizonYears),
        nulls: reflects ? worstOverTideGrid(plan, path, roomy, NULL_SIDE) : null,
      },
    };
  }
  return {
    ...pairs.reply,
    nullSide: NULL_SIDE,
    answersToday: heightAnswers(plan, path, costs, year),
    answers,
  };
};

const trees = ({ plan }: { plan: LinkPlan }): TreesReply => {
  const path = pathFor(plan);
  const { year, horizonYears } = plan.policy;
  return {
    outlook: outlook(plan, path, Math.max(YEARS_AHEAD, horizonYears)),
    list: trimList(plan, path, year + horizonYears),
  };
};

const water = ({ plan }: { plan: LinkPlan }): WaterReply => {
  const path = pathFor(plan);
  const tops = topsOf(plan);
  return {
    tide: levelOverTide(plan, path),
    far: levelOverHeight(plan, path, "far", LOWEST_M, tops.farM),
    near: levelOverHeight(plan, path, "near", LOWEST_M, tops.nearM),
  };
};

const open = (next: PathProfile): void => {
  profile = next;
  held = null;
  pairs = null;
};

expose({ open, heights, trees, water } satisfies SolveWorker);
