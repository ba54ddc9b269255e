/** Where a share of the draws lies below. */
export interface Spread {
  readonly p02: number;
  readonly p10: number;
  readonly p50: number;
  readonly p90: number;
  readonly p98: number;
}

export const spreadOf = (values: Float64Array): Spread => {
  const sorted = Float64Array.from(values).sort();
  const at = (share: number): number => {
    const x = share * (sorted.length - 1);
    const i = Math.floor(x);
    return sorted[i]! + (sorted[Math.min(sorted.length - 1, i + 1)]! - sorted[i]!) * (x - i);
  };
  return { p02: at(0.02), p10: at(0.1), p50: at(0.5), p90: at(0.9), p98: at(0.98) };
};

/** Square of the correlation of two series: the share of the variance of one that the other explains. */
export const explainedShare = (a: Float64Array, b: Float64Array): number => {
  const n = a.length;
  let sa = 0;
  let sb = 0;
  for (let i = 0; i < n; i++) {
    sa += a[i]!;
    sb += b[i]!;
  }
  let aa = 0;
  let bb = 0;
  let ab = 0;
  for (let i = 0; i < n; i++) {
    const x = a[i]! - sa / n;
    const y = b[i]! - sb / n;
    aa += x * x;
    bb += y * y;
    ab += x * y;
  }
  return aa > 1e-12 && bb > 1e-12 ? (ab * ab) / (aa * bb) : 0;
};
