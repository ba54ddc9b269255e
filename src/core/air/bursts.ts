/*
 * What others' bursts leave of a rate: not noise that is always there. With one of them the rate is (1 - a) quiet + a hit. With
 * several, by the strongest that sends just then; while it does all weaker ones are taken to send with it (ours, the worse).
 */

export interface Burst {
  /** In the receiver's channel, against its noise, a ratio; infinite: it blinds. */
  readonly ratio: number;
  /** Part of the wanted bursts' time on which it falls. */
  readonly share: number;
}

const riseOf = (ratio: number): number => 10 * Math.log10(1 + ratio);

export interface Mixed {
  readonly quietMbps: number;
  /** While all of them send. */
  readonly hitMbps: number;
  readonly meanMbps: number;
  readonly riseDb: number;
  /** Part of the time on which any of them falls. */
  readonly hitShare: number;
}

/** @param rateAt rate in Mbps with the noise risen by dB (infinite: nothing is received); never more for a greater rise. */
export const mixed = (bursts: readonly Burst[], rateAt: (riseDb: number) => number): Mixed => {
  const falling = bursts.filter((b) => b.share > 0 && b.ratio > 0).sort((a, b) => b.ratio - a.ratio);
  const quietMbps = rateAt(0);
  let weaker = 0;
  const sums: number[] = new Array<number>(falling.length);
  for (let i = falling.length - 1; i >= 0; i--) {
    weaker += falling[i]!.ratio;
    sums[i] = weaker;
  }
  let free = 1;
  let meanMbps = 0;
  falling.forEach((b, i) => {
    meanMbps += free * b.share * rateAt(riseOf(sums[i]!));
    free *= 1 - b.share;
  });
  meanMbps += free * quietMbps;
  const riseDb = falling.length === 0 ? 0 : riseOf(sums[0]!);
  return { quietMbps, hitMbps: falling.length === 0 ? quietMbps : rateAt(riseDb), meanMbps, riseDb, hitShare: 1 - free };
};
