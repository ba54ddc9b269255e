/* What one draw does to both levels against their medians: the path, then the radios' own errors, then the reader's. */
import { normalRandom, seededRandom } from "../units";
import type { BodySection } from "./body-sections";
import { GAIN_SIGMA_DB, POWER_SIGMA_DB } from "./direction";
import { type LevelOfDraw, levelDraw } from "./draw-level";
import type { Draw } from "./draws";
import type { GroundField } from "./ground-field";
import type { PathState } from "./path-state";
import type { Direction, LinkPlan } from "./types";

const READING_SIGMA_DB = 2;
/** Keeps the radios' errors apart from those of the heights. */
const LEVEL_SEED = 7919;

export interface MoveOfDraw {
  readonly level: LevelOfDraw;
  /** Moves of both levels, the reader's own errors left out. */
  readonly toFarDb: number;
  readonly toNearDb: number;
  /** Of the move to the far end what gains and transmitter bring, the gains counted at both ends. */
  readonly radiosDb: number;
  /** How many sigma the rain is heavier than typed. */
  readonly rainSigmas: number;
  readonly readFarDb: number;
  readonly readNearDb: number;
}

/** @param direction any of both: the walls before its ends are drawn. Powers and rungs do not matter. */
export const moveDraw = (
  plan: LinkPlan,
  state: PathState,
  direction: Pick<Direction, "terms">,
  field: GroundField,
  sections: readonly BodySection[],
  seed: number,
): ((draw: Draw) => MoveOfDraw) => {
  // The radios' own errors come from a source of their own: the heights stay those of the chance alone.
  const uniform = seededRandom(seed + LEVEL_SEED);
  const normal = normalRandom(uniform);
  const levelOf = levelDraw(plan, state, direction, field, sections, uniform);
  return (draw) => {
    const level = levelOf(draw);
    const gainDb = Math.SQRT2 * GAIN_SIGMA_DB * normal();
    const pathDb = level.obstructionDb + level.leavesDb + level.aimDb + level.reflectionDb + level.wallsDb + gainDb;
    const toFarDb = pathDb + POWER_SIGMA_DB * normal();
    const toNearDb = pathDb + POWER_SIGMA_DB * normal();
    const rainSigmas = normal();
    const readFarDb = READING_SIGMA_DB * normal();
    const readNearDb = READING_SIGMA_DB * normal();
    return { level, toFarDb, toNearDb, radiosDb: toFarDb - pathDb + gainDb, rainSigmas, readFarDb, readNearDb };
  };
};
