import type { Verdict } from "@/core/link";

export interface MarkStroke {
  readonly d: string;
  readonly fill: boolean;
  readonly dash?: readonly [number, number];
}

/** The scene of a verdict as paths, `a` half its width: the line of the ray over something standing under it. */
export const verdictPaths = (verdict: Verdict, a: number): readonly MarkStroke[] => {
  const line = -0.28 * a;
  const foot = 0.62 * a;
  switch (verdict) {
    case "clear":
      return [
        { d: `M${-a} ${line}H${a}`, fill: false },
        { d: `M${-0.62 * a} ${foot}Q${-0.4 * a} ${0.02 * a} 0 ${0.02 * a}T${0.62 * a} ${foot}Z`, fill: false },
      ];
    case "tight":
      return [
        { d: `M${-a} ${line}H${a}`, fill: false },
        { d: `M${-0.6 * a} ${foot}L0 ${-0.16 * a}L${0.6 * a} ${foot}Z`, fill: false },
        { d: `M${-0.6 * a} ${foot}L0 ${-0.16 * a}V${foot}Z`, fill: true },
      ];
    case "short":
      return [
        { d: `M${-a} ${line}H${-0.52 * a}`, fill: false },
        { d: `M${0.5 * a} ${line}h${0.17 * a}M${0.82 * a} ${line}h${0.17 * a}`, fill: false },
        { d: `M${-0.6 * a} ${foot}L0 ${-0.78 * a}L${0.6 * a} ${foot}Z`, fill: true },
      ];
    case "unknown":
      return [
        { d: `M${-a} ${line}h${0.44 * a}M${-0.22 * a} ${line}h${0.44 * a}M${0.56 * a} ${line}h${0.44 * a}`, fill: false },
        {
          d: `M${-0.6 * a} ${foot}L${-0.2 * a} ${0.04 * a}M${0.6 * a} ${foot}L${0.2 * a} ${0.04 * a}`,
          fill: false,
          dash: [0.18 * a, 0.12 * a],
        },
        { d: `M${-0.1 * a} ${foot}a${0.1 * a} ${0.1 * a} 0 1 0 ${0.2 * a} 0a${0.1 * a} ${0.1 * a} 0 1 0 ${-0.2 * a} 0Z`, fill: true },
      ];
  }
};

export const markWidth = (a: number): number => Math.max(1.5, 0.085 * a);
