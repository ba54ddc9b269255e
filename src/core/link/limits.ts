/*
 * Every threshold of a link's verdict and every bound of its inputs, once. Where the number is ours and not a
 * recommendation's it says so. docs/verdicts.md tells who uses which.
 */

/** Lengths for which a link is worked out (ours: below, nothing is in the far field; above, the methods part ways). */
export const SHORTEST_LINK_M = 5;
export const LONGEST_LINK_M = 100_000;

/** A policy is met when it is missed by no more than this: figures are shown to a decimetre (ours). */
export const MET_WITHIN_M = 0.0005;
/** Clear asks for this chance that the policy is met. */
export const CLEAR_PROBABILITY = 0.9;
/** Between these by the errors of ground and obstacles alone nobody knows: Unknown, and it says what to measure. */
export const UNSURE_LOW = 0.2;
export const UNSURE_HIGH = 0.8;
/** Share of the terrain variance that shifts a whole dataset together. */
export const COMMON_SHARE = 0.6;
/** A link serves when its need is kept in this share of the draws. */
export const SERVES_PROBABILITY = 0.9;
/** So near to it the draws are too few to tell: between these more are drawn (500 draws are known to 1.3 in 100, 4,000 to half of one). */
export const NEARLY_SERVES_LOW = 0.88;
export const NEARLY_SERVES_HIGH = 0.92;
export const NEARLY_SERVES_DRAWS = 4000;
/** Share of the year a need is to be kept for when nobody said, and the shares the methods can speak of, per cent. */
export const DEFAULT_YEAR_PERCENT = 99.9;
export const LEAST_YEAR_PERCENT = 99;
export const MOST_YEAR_PERCENT = 99.999;

/** Mount heights that are known about: a lower one lies on the ground, its foot has no zone (ours). */
export const LOWEST_KNOWN_MOUNT_M = 0.1;
/** What an end is fixed to, and how far wind turns it, degrees (ours): on a tree nothing stays pointed. */
export const STANDS = ["wall", "stiff pole", "thin pole", "tree"] as const;
export type Stands = (typeof STANDS)[number];
export const TWIST_DEG: Readonly<Record<Exclude<Stands, "tree">, number>> = { wall: 0.1, "stiff pole": 0.3, "thin pole": 1 };
/** A beam narrower than so many times the twist is not held on the other end. */
export const BEAM_PER_TWIST = 4;

/** Nobody carries a bracket higher than this above today's mount; more is no answer (ours). */
export const HIGHEST_RAISE_M = 40;
/** How low a mount may hang when it is lowered beneath a span (ours). */
export const LOWEST_MOUNT_M = 2;
/** Mounts that can be typed, metres above ground, and settings of power, dBm: beyond, it is a slip. */
export const HIGHEST_TYPED_MOUNT_M = 300;
export const LEAST_POWER_DBM = -40;
export const MOST_POWER_DBM = 50;
/** One sigma of a mount's height and of a position when nobody said how they were measured (ours: tape, phone). */
export const MOUNT_SIGMA_M = 0.2;
export const POSITION_SIGMA_M = 0.5;
/** One sigma of an obstacle's height and of ground told by hand when nobody said (ours: paced and levelled by eye). */
export const TOLD_SIGMA_M = 0.5;

/** A setting this little over what the rules allow is rounding. */
export const RULE_TOLERANCE_DB = 1e-9;
/** A reflected ray that can take this much is worth a word (ours). */
export const REFLECTION_WORTH_DB = -3;
/** Half power: beyond it the other end lies outside the beam. */
export const BEAM_EDGE_DB = -3;
/** Below this a distance shown by a radio is not a distance. */
export const RADIO_DISTANCE_LIMIT_M = 300;
/** Above a lever of this the answer at one end hangs on centimetres at the other (ours). */
export const MOST_LEVER = 50;
