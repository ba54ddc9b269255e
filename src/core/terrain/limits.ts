/** Steps are half a cell of the dataset in force, this at least (ours). */
export const MIN_STEP_M = 0.5;
/** Points of a profile are never nearer to each other than this: they stay apart when they travel, rounded. */
export const LEAST_GAP_M = 0.001;
/** A profile is thinned to so many points. */
export const MAX_PROFILE_POINTS = 4096;
/** In place of a dataset's index where none knows the ground. */
export const NO_DATASET = 255;
