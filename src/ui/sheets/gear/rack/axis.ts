/** The axis of rates: from nothing to a round figure, with ticks; what is longer is drawn broken. */
export interface RateAxis {
  readonly mostMbps: number;
  readonly ticksMbps: readonly number[];
}

const STEPS = [1, 2, 2.5, 5, 10];
const TICKS = 6;
/** The need keeps at least this share of the axis, so that what is short of it can be seen. */
const NEED_SHARE = 1 / 10;

const niceStep = (raw: number): number => {
  const power = 10 ** Math.floor(Math.log10(raw));
  return (STEPS.find((s) => s * power >= raw - 1e-9) ?? 10) * power;
};

/** @param rates all that is drawn on it. */
export const rateAxis = (needMbps: number, rates: readonly number[]): RateAxis => {
  const mostShown = needMbps / NEED_SHARE;
  const fitting = rates.filter((r) => Number.isFinite(r) && r <= mostShown);
  const top = Math.max(2 * needMbps, ...fitting, 1);
  const step = niceStep(top / TICKS);
  const count = Math.ceil(top / step - 1e-9);
  return { mostMbps: count * step, ticksMbps: Array.from({ length: count + 1 }, (_, i) => i * step) };
};

/** Where a rate lies on an axis that is so many pixels long, and whether it is longer than that. */
export const onAxis = (axis: RateAxis, mbps: number, px: number): { x: number; broken: boolean } => {
  const x = (mbps / axis.mostMbps) * px;
  return x > px + 0.5 ? { x: px, broken: true } : { x: Math.max(0, x), broken: false };
};
