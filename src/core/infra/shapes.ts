/*
 * The ways of joining two buildings, weighed for a distance and a need. Prices and rates are rough, ours, and of
 * low confidence: they order the shapes, they are no offer. Amounts are in the job's own money with a factor.
 */

export type ShapeKey = "copper" | "fibre" | "stretch" | "outdoor-ap" | "pair" | "hub" | "relay";
export const SHAPE_KEYS = ["copper", "fibre", "stretch", "outdoor-ap", "pair", "hub", "relay"] as const satisfies readonly ShapeKey[];

export interface ShapeQuestion {
  readonly distanceM: number;
  /** The larger direction's need. */
  readonly needMbps: number;
  readonly farEnds: number;
  readonly duct: "clear" | "none" | "unknown";
  /** Buildings on separate supplies: copper would carry earth currents between them. */
  readonly suppliedApart: boolean;
  /** What the trench would cost a metre, and what a subscription at the far end would cost a month. */
  readonly trenchPerM: number;
  readonly subscriptionPerMonth: number;
}

export interface ShapeAnswer {
  readonly key: ShapeKey;
  /** What it would carry, rough. */
  readonly mbps: number;
  /** Places outdoors where something is mounted. */
  readonly outdoorMounts: number;
  readonly cost: number;
  /** Months until it has cost less than the subscription; null when none is paid, or it never does within ten years. */
  readonly paybackMonths: number | null;
  /** What it costs less than fibre in a trench of its own; null where a duct is clear and no trench is asked for. */
  readonly underTrench: number | null;
  readonly verdict: "fits" | "poor" | "no";
  readonly reason:
    | "ok"
    | "too-long-for-copper"
    | "separate-supplies"
    | "no-duct-known"
    | "too-long-to-stretch"
    | "too-slow"
    | "too-long-for-ap"
    | "only-one-far-end"
    | "not-needed"
    | "shared-air"
    | "two-hops";
}

export const COPPER_LIMIT_M = 90;
const STRETCH_LIMIT_M = 40;
const AP_LIMIT_M = 120;
const LONGEST_PAYBACK_MONTHS = 120;
const PRICE = {
  cablePerM: 1.5,
  fibrePerM: 2.5,
  fibreEnds: 180,
  stretch: 120,
  ap: 320,
  pair: 450,
  longPair: 1100,
  hub: 500,
  remote: 180,
  labour: 400,
};
/** Beyond this a pair needs dishes and better fixings. */
const LONG_PAIR_M = 3000;

/** Every shape judged, in the order they are usually asked. */
export const weighShapes = (q: ShapeQuestion): ShapeAnswer[] => {
  const trench = q.duct === "clear" ? 0 : q.trenchPerM * q.distanceM;
  const fibreCost = trench + PRICE.fibrePerM * q.distanceM + PRICE.fibreEnds + PRICE.labour;
  const answer = (
    key: ShapeKey,
    mbps: number,
    outdoorMounts: number,
    cost: number,
    trouble: ShapeAnswer["reason"],
    bad: ShapeAnswer["verdict"],
  ): ShapeAnswer => {
    const slow = mbps < q.needMbps;
    const months = q.subscriptionPerMonth > 0 ? Math.ceil(cost / q.subscriptionPerMonth) : Number.POSITIVE_INFINITY;
    const verdict = bad === "no" || slow ? "no" : bad;
    return {
      key,
      mbps,
      outdoorMounts,
      cost: Math.round(cost),
      paybackMonths: months <= LONGEST_PAYBACK_MONTHS ? months : null,
      underTrench: trench === 0 || key === "copper" || key === "fibre" ? null : Math.round(fibreCost - cost),
      verdict,
      reason: bad === "no" ? trouble : slow ? "too-slow" : trouble,
    };
  };
  const ends = Math.max(1, q.farEnds);
  const copperTrouble = q.distanceM > COPPER_LIMIT_M ? "too-long-for-copper" : q.suppliedApart ? "separate-supplies" : null;
  const pairCost = (q.distanceM > LONG_PAIR_M ? PRICE.longPair : PRICE.pair) + PRICE.labour;
  return [
    answer(
      "copper",
      1000,
      0,
      trench + PRICE.cablePerM * q.distanceM + PRICE.labour,
      copperTrouble ?? (q.duct === "clear" ? "ok" : "no-duct-known"),
      copperTrouble !== null ? "no" : q.duct === "clear" ? "fits" : "poor",
    ),
    answer("fibre", 10_000, 0, fibreCost, q.duct === "clear" ? "ok" : "no-duct-known", q.duct === "clear" ? "fits" : "poor"),
    answer(
      "stretch",
      20,
      0,
      PRICE.stretch,
      q.distanceM > STRETCH_LIMIT_M ? "too-long-to-stretch" : "shared-air",
      q.distanceM > STRETCH_LIMIT_M ? "no" : "poor",
    ),
    answer(
      "outdoor-ap",
      80,
      2,
      PRICE.ap + PRICE.labour,
      q.distanceM > AP_LIMIT_M ? "too-long-for-ap" : "shared-air",
      q.distanceM > AP_LIMIT_M ? "no" : "poor",
    ),
    answer("pair", q.distanceM < 1000 ? 800 : 300, 2 * ends, pairCost * ends, "ok", "fits"),
    answer(
      "hub",
      250 / ends,
      1 + ends,
      PRICE.hub + PRICE.remote * ends + PRICE.labour * (1 + ends / 2),
      ends === 1 ? "only-one-far-end" : "shared-air",
      ends === 1 ? "poor" : "fits",
    ),
    answer("relay", 150, 4, 2 * pairCost, "two-hops", "poor"),
  ];
};
